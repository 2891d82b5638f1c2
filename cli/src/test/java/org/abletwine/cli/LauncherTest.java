package org.abletwine.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.RandomAccessFile;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The last part of starting the tool, with a Java that only says how it was started. */
class LauncherTest {
  private static final String BRIEF = "-XX:TieredStopAtLevel=1";

  /** A Java that lists classes and writes class data, and notes that it was asked to. */
  private static final String WRITES =
      """
      for word; do
        case $word in
          -Xshare:dump) dump=yes ;;
          -XX:SharedArchiveFile=*) file=${word#*=} ;;
          -XX:DumpLoadedClassList=*) echo asked >>../asked; cat ../list >"${word#*=}"; exit ;;
        esac
      done
      if [ -n "$dump" ]; then
        echo "of another" >"$file"
        exit $(cat ../status)
      fi
      """;

  @TempDir private Path folder;
  private Path classData;
  private Path madeBy;

  @BeforeEach
  void tables() throws IOException {
    classData = folder.resolve("able-twine.jsa");
    madeBy = folder.resolve("able-twine.jsa.of");
    Files.writeString(folder.resolve("able-twine.jar"), "");
    Files.writeString(folder.resolve("small.csv"), "a\n1\n");
    Files.createDirectory(folder.resolve("here"));
    Files.writeString(folder.resolve("here/small.csv"), "a\n1\n");
    sized("large.csv", 41);
    sized("packed.csv.gz", 9);
    Files.createDirectory(folder.resolve("months"));
    for (int i = 0; i < 5; i++) {
      sized("months/" + i + ".csv", 9);
    }
    Files.createDirectory(folder.resolve("large"));
    Files.move(folder.resolve("large.csv"), folder.resolve("large/large.csv"));
    plan("here/near.plan.yaml", "small.csv");
    plan("here/set.plan.yaml", "${month}.csv");
    plan("here/above.plan.yaml", "../large/large.csv");
    plan("here/far.plan.yaml", folder.resolve("large/large.csv").toString());
    plan("here/home.plan.yaml", "\"~/tables/small.csv\"");
    plan("here/listed.plan.yaml", "[small.csv, /srv/tables/large.csv]");
    plan("here/database.plan.yaml", "small.csv, database: { url: \"jdbc:postgresql://h/d\" }");
    plan("months/all.plan.yaml", "*.csv");
    String[] pipes = {"mkfifo", folder + "/pipe", folder + "/here/pipe.plan.yaml"};
    assertThat(new ProcessBuilder(pipes).start())
        .satisfies(made -> assertThat(made.waitFor()).isZero());
  }

  private void sized(String name, int megabytes) throws IOException {
    try (RandomAccessFile file = new RandomAccessFile(folder.resolve(name).toFile(), "rw")) {
      file.setLength(megabytes * 1_000_000L);
    }
  }

  private void plan(String name, String file) throws IOException {
    Files.writeString(
        folder.resolve(name),
        "able-twine: 1\ntransactions: { file: " + file + " }\nsteps:\n  - { drop-suffix: /w }\n");
  }

  /** A Java that says how it was started, but for what it does first. */
  private void java(String first) throws IOException {
    Path java = folder.resolve("java");
    Files.writeString(java, "#!/bin/sh\n" + first + "printf '%s\\n' \"$@\"\n");
    assertThat(java.toFile().setExecutable(true)).isTrue();
  }

  /** What Java is started with. */
  private List<String> started(String... words) throws Exception {
    Path launch = Path.of("src/main/launch").toAbsolutePath();
    if (!Files.exists(classData)) {
      java("");
      Files.writeString(classData, "of this Java");
      Files.writeString(madeBy, folder.resolve("java").toRealPath() + "\n");
    }
    Path script =
        Files.writeString(
            folder.resolve("start"),
            "java=../java jar=../able-twine.jar archive=../able-twine.jsa options="
                + launch.resolve("java.options")
                + "\n. "
                + launch.resolve("start")
                + "\n");
    List<String> command = new ArrayList<>(List.of("sh", script.toString()));
    command.addAll(List.of(words));
    Process run =
        new ProcessBuilder(command)
            .directory(folder.resolve("here").toFile())
            .redirectErrorStream(true)
            .start();
    String out = new String(run.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    assertThat(run.waitFor()).as(out).isZero();
    return out.lines().toList();
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "--version",
        "demo wendle-vale",
        "run near.plan.yaml",
        "run ../here/near.plan.yaml --set out=new.csv",
        "run set.plan.yaml --set month=small",
        "enrich small.csv --from=../small.csv --key a --bring all --out new.csv",
        "draft .",
      })
  void whatReadsLittleIsNotCompiledWithAllCare(String words) throws Exception {
    assertThat(started(words.split(" "))).contains(BRIEF).endsWith(words.split(" "));
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "demo wendle-vale --tickets 12000000",
        "run above.plan.yaml",
        "run far.plan.yaml",
        "run pipe.plan.yaml",
        "run home.plan.yaml",
        "run listed.plan.yaml",
        "run database.plan.yaml",
        "run ../months/all.plan.yaml",
        "run near.plan.yaml --set more=../large",
        "enrich small.csv --from ../large/large.csv --key a --bring all",
        "enrich small.csv --from=../large/large.csv --key a --bring all",
        "profile ../packed.csv.gz",
        "profile ../pipe",
        "profile -",
        "profile *.csv",
        "profile jdbc:postgresql://host/tables",
      })
  void whatMayReadMuchIs(String words) throws Exception {
    assertThat(started(words.split(" "))).doesNotContain(BRIEF).endsWith(words.split(" "));
  }

  /** Starts twice, by a Java that did not make the class data that is there. */
  private void byAnother(String list, int status) throws Exception {
    java(WRITES);
    Files.writeString(folder.resolve("list"), list);
    Files.writeString(folder.resolve("status"), "" + status);
    Files.writeString(classData, "of this Java");
    Files.writeString(madeBy, "/another/bin/java JAVA_VERSION=\"17.0.1\"\n");
    for (int start = 0; start < 2; start++) {
      assertThat(started("--version")).contains("-XX:SharedArchiveFile=../able-twine.jsa");
      assertThat(beside()).containsExactly("able-twine.jar", "able-twine.jsa", "able-twine.jsa.of");
    }
  }

  @Test
  void classDataOfAnotherJavaIsMadeAnewOnce() throws Exception {
    byAnother("some/Type", 0);
    assertThat(classData).hasContent("of another");
    assertThat(folder.resolve("asked")).hasContent("asked");
  }

  @Test
  void javaThatListsNoClassesIsNotAskedAgain() throws Exception {
    byAnother("", 0);
    assertThat(classData).hasContent("of this Java");
    assertThat(folder.resolve("asked")).hasContent("asked");
  }

  @Test
  void classDataThatCouldNotBeWrittenIsTriedAgain() throws Exception {
    byAnother("some/Type", 1);
    assertThat(classData).hasContent("of this Java");
    assertThat(folder.resolve("asked")).hasContent("asked\nasked");
  }

  private List<String> beside() throws IOException {
    try (Stream<Path> files = Files.list(folder)) {
      return files
          .map(f -> f.getFileName().toString())
          .filter(f -> f.startsWith("able"))
          .sorted()
          .toList();
    }
  }

  @Test
  void namesWithSpacesAreLookedAtAsTheyAre() throws Exception {
    Path spaced = Files.createDirectory(folder.resolve("here/two words"));
    Files.copy(folder.resolve("small.csv"), spaced.resolve("a b.csv"));
    assertThat(started("profile", "two words/a b.csv")).contains(BRIEF);
    Files.copy(folder.resolve("large/large.csv"), spaced.resolve("c d.csv"));
    assertThat(started("profile", "two words/c d.csv")).doesNotContain(BRIEF);
  }
}
