package org.abletwine.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Locale;
import org.abletwine.audit.DuplicateAudit;
import org.abletwine.key.Normalise;
import org.abletwine.key.NormaliseStep;
import org.abletwine.lookup.Duplicates;
import org.abletwine.match.BandReport;
import org.abletwine.plan.AuditJson;
import org.abletwine.plan.OutputPaths;
import org.abletwine.plan.tell.Words;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.TableSink;
import org.abletwine.table.Tables;
import org.abletwine.table.batch.RowCopy;
import org.abletwine.table.spill.Spill;
import org.jspecify.annotations.Nullable;

/** Keys on more than one row. */
final class DuplicatesCommand implements Command {
  private final Usage usage =
      Usage.of(
              this,
              "duplicates",
              "Finds keys that stand on more than one row, says whether the rows are alike or"
                  + " conflict and in which columns, and writes the table without them if asked.")
          .asStated()
          .examples(
              "  able-twine duplicates growers.csv --key grower_no",
              "  able-twine duplicates growers.csv --key grower_no --without unique.csv --keep newest-by=updated_on",
              "  able-twine duplicates moisture-deductions.csv --key commodity --bands from_pct,to_pct");

  private static final long MANY_KEYS = 10_000;

  private final Given<Path> file =
      usage.argument("TABLE", Path.class, "The table; - is standard input.");

  private final Given<String> key =
      usage.option(
          "--key", "A,B", "The key columns; with --bands those that must be equal, if any.");

  private final Given<String> bands =
      usage.option(
          "--bands",
          "FROM[,TO]",
          "Look at bands instead: the column of their lower ends and that of their upper ends, or"
              + " of the lower ends alone. Shows overlaps, gaps, reversed and open ends.");

  private final Given<List<String>> normalise =
      usage
          .options("--normalise", "STEPS", "Steps applied to the key for comparing. Default: trim.")
          .parted();

  private final Given<Integer> show =
      usage
          .option("--show", "N", Integer.class, "How many keys to show. Default: ${DEFAULT-VALUE}.")
          .usually("10");

  private final Given<Path> out =
      usage.option("--out", "FILE", Path.class, "Write the duplicate rows.");

  private final Given<Path> without =
      usage.option(
          "--without", "FILE", Path.class, "Write the table with one row per key, as --keep says.");

  private final Given<String> keep =
      usage.option(
          "--keep",
          "RULE",
          "Which row stays: first, last, newest-by=COLUMN, fullest, or identical (rows"
              + " alike count as one, others end the command).");

  private final ReadingOptions reading = new ReadingOptions(usage);

  private final MemoryOption memory = new MemoryOption(usage);

  private final Given<Boolean> json = usage.flag("--json", "Print the figures as JSON.");

  @Override
  public Usage usage() {
    return usage;
  }

  @Override
  public Integer call() {
    Table table = Tables.file(file.get(), reading.options());
    reading.checkPrivate(table);
    if (bands.orNull() != null) {
      bands(table);
      Say.remarks(table);
      return 0;
    }
    if (key.orNull() == null) {
      throw new SettingException("--key is missing: name the key columns, or --bands FROM,TO");
    }
    if (without.orNull() != null && keep.orNull() == null) {
      throw new SettingException("--without needs --keep: say which row stays");
    }
    Duplicates policy = keep.orNull() == null ? null : policy(table);
    checkOutputs();
    int[] columns = columns(table, key.orNull(), "--key: ");
    List<NormaliseStep> steps = steps();
    try (Spill spill = new Spill(memory.bytes(), memory.folder())) {
      audit(table, columns, steps, policy, spill);
    }
    return 0;
  }

  private void audit(
      Table table,
      int[] columns,
      List<NormaliseStep> steps,
      @Nullable Duplicates policy,
      Spill spill) {
    DuplicateAudit audit = DuplicateAudit.of(table, columns, steps, spill);
    DuplicateAudit.Report report = audit.report(json.get() ? Integer.MAX_VALUE : show.get());
    if (json.get()) {
      System.out.println(Words.json(AuditJson.duplicates(report)));
    } else {
      print(table, report);
    }
    Say.remarks(table);
    write(table, audit, policy, columns, steps);
  }

  private static int[] columns(Table table, String names, String option) {
    return NameLists.split(names).stream()
        .mapToInt(name -> table.schema().require(name, option + table.name()))
        .toArray();
  }

  private List<NormaliseStep> steps() {
    return normalise.get().isEmpty() ? List.of(Normalise.trim()) : Normalise.parse(normalise.get());
  }

  private void bands(Table table) {
    int[] ends = columns(table, bands.get(), "--bands: ");
    if (ends.length > 2) {
      throw new SettingException("--bands takes one column, or two: FROM,TO");
    }
    if (out.orNull() != null || without.orNull() != null || keep.orNull() != null) {
      throw new SettingException(
          "--bands shows what is wrong and writes nothing: leave out --out,"
              + " --without and --keep");
    }
    int[] columns = key.orNull() == null ? new int[0] : columns(table, key.orNull(), "--key: ");
    BandReport report = BandReport.of(table, columns, ends, steps());
    if (json.get()) {
      System.out.println(Words.json(AuditJson.bands(report)));
    } else {
      BandLines.print(table, key.orNull(), bands.get(), report);
    }
  }

  private void checkOutputs() {
    List<Path> taken = new ArrayList<>();
    for (Path output : new Path[] {out.orNull(), without.orNull()}) {
      if (output != null) {
        String problem = OutputPaths.problem(output, Tables.matching(file.get()), taken);
        if (problem != null) {
          throw new SettingException(problem);
        }
        taken.add(output);
      }
    }
  }

  private Duplicates policy(Table table) {
    Duplicates policy;
    try {
      policy = Duplicates.parse(keep.get());
    } catch (SettingException e) {
      throw new SettingException("--keep: " + e.getMessage());
    }
    String column = policy.column();
    if (column != null) {
      table.schema().require(column, "--keep: " + table.name());
    }
    return policy;
  }

  private void write(
      Table table,
      DuplicateAudit audit,
      @Nullable Duplicates policy,
      int[] columns,
      List<NormaliseStep> steps) {
    if (out.orNull() != null) {
      BitSet rows = audit.duplicateRows();
      try (TableSink sink = Tables.sink(out.orNull())) {
        long count = RowCopy.copy(table, rows::get, sink);
        System.err.println("Wrote " + Words.rows(count) + " to " + out.orNull());
      }
    }
    if (without.orNull() != null && policy != null) {
      BitSet leftOut = audit.leftOutBy(policy);
      try (TableSink sink = Tables.sink(without.orNull())) {
        long count = RowCopy.copy(table, row -> !leftOut.get(row), sink);
        System.err.println(
            "Wrote "
                + Words.rows(count)
                + " to "
                + without.orNull()
                + ", "
                + Words.rows(leftOut.cardinality())
                + " left out ("
                + policy
                + ")");
      }
      if (!without.orNull().toString().equals("-")) {
        long left =
            DuplicateAudit.of(
                    Tables.file(without.orNull(), reading.options().but().sheet(null).build()),
                    columns,
                    steps)
                .report(0)
                .duplicateKeys();
        System.err.println("Read again: " + Words.keys(left) + " on several rows");
      }
    }
  }

  private void print(Table table, DuplicateAudit.Report report) {
    boolean colour = Ink.colour();
    System.out.println(
        Ink.BOLD.on(table.name(), colour)
            + "  key "
            + key.orNull()
            + ": "
            + Words.rows(report.rows())
            + ", "
            + Words.keys(report.keys())
            + (report.blankRows() > 0
                ? ", " + Words.rows(report.blankRows()) + " with a blank key"
                : ""));
    if (report.duplicateKeys() == 0) {
      System.out.println("  " + Ink.GOOD.on("every key stands on one row", colour));
      return;
    }
    long conflicting = report.duplicateKeys() - report.identicalKeys();
    System.out.println(
        "  "
            + Ink.WARN.on(Words.keys(report.duplicateKeys()) + " on several rows", colour)
            + " ("
            + Words.rows(report.duplicateRows())
            + "): "
            + report.identicalKeys()
            + " with rows alike, "
            + conflicting
            + " conflicting"
            + (report.collisions() > 0
                ? ", " + report.collisions() + " written differently and equal only by normalising"
                : ""));
    System.out.println();
    TextTable lines = new TextTable("lll");
    lines.cell("key", Ink.DIM).cell("rows", Ink.DIM).cell("", Ink.DIM).end();
    for (DuplicateAudit.DuplicateKey duplicate : report.examples()) {
      lines.cell(duplicate.key(), Ink.BOLD).cell(rows(duplicate.rows()));
      if (duplicate.conflicts().isEmpty()) {
        lines.cell("alike", Ink.DIM).end();
        continue;
      }
      boolean first = true;
      for (DuplicateAudit.Conflict conflict : duplicate.conflicts()) {
        if (!first) {
          lines.cell("").cell("");
        }
        first = false;
        lines.cell(conflict.column() + ": " + shown(conflict.values()), Ink.WARN).end();
      }
    }
    lines.render(colour).forEach(System.out::println);
    if (report.examples().size() < report.duplicateKeys()) {
      System.out.println(
          "  and "
              + (report.duplicateKeys() - report.examples().size())
              + " more; --show N shows more, --out FILE writes the rows");
    }
    System.out.println();
    printUnique(report);
    if (report.keys() > MANY_KEYS) {
      System.out.printf(Locale.ROOT, "  index: %.0f bytes a key%n", report.bytesPerKey());
    }
  }

  private static String rows(List<Integer> rows) {
    String text = String.join(", ", rows.stream().limit(6).map(String::valueOf).toList());
    return rows.size() > 6 ? text + " and " + (rows.size() - 6) + " more" : text;
  }

  private static String shown(List<String> values) {
    String text = String.join(" | ", values.stream().limit(4).toList());
    return values.size() > 4 ? text + " | ..." : text;
  }

  private void printUnique(DuplicateAudit.Report report) {
    if (report.uniqueWith().isEmpty()) {
      System.out.println(
          "  no further columns would make the key unique"
              + (report.identicalKeys() > 0 ? ": some rows are alike in every column" : "")
              + (report.searchBounded()
                  ? " (searched " + report.setsTried() + " sets of columns, not all)"
                  : ""));
      return;
    }
    List<String> sets =
        report.uniqueWith().stream().limit(6).map(set -> String.join(" + ", set)).toList();
    System.out.println("  the key would be unique with " + String.join(", or ", sets));
  }
}
