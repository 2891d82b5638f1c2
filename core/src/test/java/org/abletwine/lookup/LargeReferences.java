package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.function.UnaryOperator;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.derive.Compute;
import org.abletwine.enrich.Enrichment;
import org.abletwine.figures.LookupFigures;
import org.abletwine.figures.RunRecord;
import org.abletwine.key.Normalise;
import org.abletwine.step.Evaluation;
import org.abletwine.step.Exceptions;
import org.abletwine.table.DataException;
import org.junit.jupiter.api.io.TempDir;

/** Runs with references in memory and on disk, held against each other. */
abstract class LargeReferences {
  static final long ENOUGH = Long.MAX_VALUE / 2;

  @TempDir Path folder;

  final Random random = new Random(20261126);
  MemoryTable tickets = MemoryTable.of("tickets", "no");
  MemoryTable growers = MemoryTable.of("growers", "code");
  MemoryTable former = MemoryTable.of("former", "code,name");

  void tables(int rows, int keys) {
    List<String> ours = new ArrayList<>();
    List<String> theirs = new ArrayList<>();
    List<String> others = new ArrayList<>();
    for (int i = 0; i < rows; i++) {
      ours.add(i + "," + code(keys) + "," + random.nextInt(3) + "," + random.nextInt(900));
    }
    for (int i = 0; i < keys; i++) {
      theirs.add(
          code(keys)
              + ","
              + random.nextInt(3)
              + ",n"
              + random.nextInt(3)
              + ","
              + (random.nextInt(9) == 0 ? "" : random.nextInt(50))
              + ","
              + (random.nextInt(5) == 0 ? "closed" : "open"));
      others.add(code(keys * 2) + ",f" + random.nextInt(4));
    }
    tickets = MemoryTable.of("tickets", "no,grower,part,kg", ours.toArray(String[]::new));
    growers = MemoryTable.of("growers", "code,part,name,size,state", theirs.toArray(String[]::new));
    former = MemoryTable.of("former", "code,name", others.toArray(String[]::new));
  }

  String code(int keys) {
    int code = random.nextInt(keys + keys / 3);
    return switch (random.nextInt(8)) {
      case 0 -> " g" + code;
      case 1 -> "G" + code;
      case 2 -> code % 5 == 0 ? "" : "g" + code;
      default -> "g" + code;
    };
  }

  /** What came of a run. */
  record Came(
      List<List<String>> rows, List<?> figures, List<Exceptions.Found> told, String failure) {}

  Came ran(List<Lookup> lookups, long memory, int workers) {
    ListSink sink = new ListSink();
    List<Exceptions.Found> told = new ArrayList<>();
    Enrichment.Builder builder =
        Enrichment.of(tickets)
            .measure("kg")
            .carry(List.of("no"))
            .exceptions(told::add)
            .workers(workers)
            .memory(memory, folder);
    for (Lookup lookup : lookups) {
      builder.lookup(lookup);
    }
    builder.step(new Compute("end", "kg + 1", Evaluation.STRICT));
    try {
      RunRecord run = builder.build().writeTo(sink);
      for (LookupFigures one : run.lookups()) {
        assertThat(one.spilled() != null).as(one.name()).isEqualTo(memory == 1);
      }
      List<LookupFigures> figures = run.lookups().stream().map(LookupFigures::inMemory).toList();
      return new Came(new ArrayList<>(sink.rows()), figures, told, "");
    } catch (DataException e) {
      return new Came(List.of(), List.of(), List.of(), String.valueOf(e.getMessage()));
    }
  }

  void same(String what, UnaryOperator<Lookup> setting) {
    same(what, () -> List.of(setting.apply(plain())));
  }

  void same(String what, java.util.function.Supplier<List<Lookup>> lookups) {
    for (int size : new int[] {3, 150}) {
      tables(size * 2, size);
      Came expected = ran(lookups.get(), ENOUGH, 1);
      for (int workers = 1; workers <= 3; workers += 2) {
        Came came = ran(lookups.get(), 1, workers);
        assertThat(came.failure()).as(what).isEqualTo(expected.failure());
        assertThat(came.rows()).as(what).isEqualTo(expected.rows());
        assertThat(came.figures()).as(what).isEqualTo(expected.figures());
        assertThat(came.told()).as(what).isEqualTo(expected.told());
      }
    }
  }

  Lookup plain() {
    return Lookup.in(growers)
        .key("grower", "code")
        .normalise(Normalise.trim(), Normalise.ignoreCase())
        .bring("name", "size");
  }

  void prices(int rows, int places, boolean days) {
    List<String> ours = new ArrayList<>();
    List<String> theirs = new ArrayList<>();
    for (int i = 0; i < rows * 2; i++) {
      ours.add(i + ",A" + random.nextInt(7) + "," + value(places, days) + "," + random.nextInt(90));
    }
    for (int i = 0; i < rows; i++) {
      String from = value(random.nextInt(places + 1), days);
      String to = random.nextInt(5) == 0 ? "" : from.isEmpty() ? value(0, days) : from + "9";
      theirs.add(
          "A"
              + random.nextInt(9)
              + ","
              + from
              + ","
              + to
              + ",p"
              + random.nextInt(5)
              + ","
              + (random.nextInt(6) == 0 ? "old" : "new"));
    }
    tickets = MemoryTable.of("tickets", "no,grade,at,kg", ours.toArray(String[]::new));
    growers = MemoryTable.of("prices", "grade,from,to,price,state", theirs.toArray(String[]::new));
  }

  String value(int places, boolean days) {
    if (random.nextInt(12) == 0) {
      return "";
    }
    if (days) {
      return String.format("2026-%02d-%02d", 1 + random.nextInt(12), 1 + random.nextInt(28));
    }
    String whole = Integer.toString(random.nextInt(60));
    return places == 0 ? whole : whole + "." + "123".substring(0, places);
  }
}
