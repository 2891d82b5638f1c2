package org.abletwine.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** Every option of the lookup without a plan, and the rows that come out. */
class EnrichOptionsTest {
  @TempDir private Path folder;

  @BeforeEach
  void tables() throws IOException {
    Files.writeString(
        folder.resolve("t.csv"),
        "no,code,crop,kg,day\n1,a1,oats,15,2026-07-01\n2, A1,oats,5,2026-08-01\n3,B2,rye,,\n4,,oats,50,soon\n");
    Files.writeString(
        folder.resolve("g.csv"),
        "id,name,since\nA1,Ash,2024-01-01\nA1,Alder,2025-01-01\nB2,Birch,\n");
    Files.writeString(
        folder.resolve("r.csv"),
        "crop,from_kg,to_kg,since,rate\noats,0,10,2026-01-01,3\noats,10,40,2026-01-01,2\noats,10,40,2026-07-01,1\n");
  }

  private static Arguments gives(String reference, String options, String... lines) {
    return Arguments.of(reference, options, List.of(lines));
  }

  static Stream<Arguments> options() {
    return Stream.of(
        gives(
            "g.csv",
            "--key code=id --bring name --normalise none",
            "1,a1,oats,15,2026-07-01,",
            "2, A1,oats,5,2026-08-01,",
            "3,B2,rye,,,Birch",
            "4,,oats,50,soon,"),
        gives(
            "g.csv",
            "--key code=id --bring name --several last",
            "1,a1,oats,15,2026-07-01,",
            "2, A1,oats,5,2026-08-01,Alder",
            "3,B2,rye,,,Birch",
            "4,,oats,50,soon,"),
        gives(
            "g.csv",
            "--key code=id --bring name --several newest-by:since --normalise trim,ignore-case --mark m",
            "1,a1,oats,15,2026-07-01,Alder,matched",
            "2, A1,oats,5,2026-08-01,Alder,matched",
            "3,B2,rye,,,Birch,matched",
            "4,,oats,50,soon,,blank-key"),
        gives(
            "g.csv",
            "--key code=id --bring name --several each --normalise trim,ignore-case --unmatched drop",
            "1,a1,oats,15,2026-07-01,Ash",
            "1,a1,oats,15,2026-07-01,Alder",
            "2, A1,oats,5,2026-08-01,Ash",
            "2, A1,oats,5,2026-08-01,Alder",
            "3,B2,rye,,,Birch",
            "4,,oats,50,soon,"),
        gives(
            "g.csv",
            "--key code=id --bring since --several first --fill since=never --fill-empty since=open",
            "1,a1,oats,15,2026-07-01,never",
            "2, A1,oats,5,2026-08-01,2024-01-01",
            "3,B2,rye,,,open",
            "4,,oats,50,soon,"),
        gives(
            "r.csv",
            "--key crop,kg|between|from_kg|and|to_kg,day|at-or-below|since --bring rate",
            "1,a1,oats,15,2026-07-01,1",
            "2, A1,oats,5,2026-08-01,3",
            "3,B2,rye,,,",
            "4,,oats,50,soon,"));
  }

  @ParameterizedTest
  @MethodSource("options")
  void eachOptionDoesWhatItSays(String reference, String options, List<String> lines) {
    List<String> words = new ArrayList<>();
    words.addAll(
        List.of(
            "enrich",
            folder.resolve("t.csv").toString(),
            "--from",
            folder.resolve(reference).toString()));
    for (String word : options.split(" ")) {
      words.add(word.replace('|', ' '));
    }
    Cli.Gave gave = Cli.run(words.toArray(String[]::new));
    assertThat(gave.status()).as(gave.err()).isZero();
    assertThat(gave.out().lines().skip(1)).containsExactlyElementsOf(lines);
    assertThat(gave.err()).contains("4 rows in");
  }
}
