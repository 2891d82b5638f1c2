package org.abletwine.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * Holds the front door against what is written down of it in {@code docs/front-door}, so that a
 * change of it is deliberate: programs of others are compiled against it.
 */
class FrontDoorTest {
  private static final Path WRITTEN = Path.of("..", "docs", "front-door");
  private static final boolean ACCEPTED = Boolean.getBoolean("org.abletwine.accept");

  static Stream<Class<?>> modules() {
    return FrontDoor.modules();
  }

  @ParameterizedTest
  @MethodSource("modules")
  void isWhatIsWrittenDown(Class<?> one) throws IOException {
    FrontDoor door = FrontDoor.of(one);
    String name = door.module();
    List<String> lines = PublicParts.of(door.types());
    Path file = WRITTEN.resolve(name.substring(name.lastIndexOf('.') + 1) + ".txt");
    if (ACCEPTED) {
      Files.createDirectories(WRITTEN);
      Files.write(file, lines);
    }
    List<String> written = Files.exists(file) ? Files.readAllLines(file) : List.of();
    assertThat(missing(written, lines))
        .as(
            "gone from the front door of %s, so that programs that use it do not compile or run"
                + " any more; if that is meant: mvn test -pl cli -am -Dtest=FrontDoorTest"
                + " -Dsurefire.failIfNoSpecifiedTests=false -Dorg.abletwine.accept=true",
            name)
        .isEmpty();
    assertThat(missing(lines, written))
        .as("new at the front door of %s; if that is meant, the same command", name)
        .isEmpty();
  }

  private static List<String> missing(List<String> from, List<String> in) {
    Set<String> there = Set.copyOf(in);
    return from.stream().filter(line -> !there.contains(line)).toList();
  }
}
