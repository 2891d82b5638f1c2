package org.abletwine.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.abletwine.audit.DuplicateAudit;
import org.abletwine.audit.RecordFinder;
import org.abletwine.audit.RecordFinder.Choice;
import org.abletwine.audit.RecordFinder.Found;
import org.abletwine.audit.TableProfile;
import org.abletwine.key.Normalise;
import org.abletwine.key.NormaliseStep;
import org.abletwine.plan.AuditJson;
import org.abletwine.plan.tell.Words;
import org.abletwine.step.run.Trace;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.Tables;
import org.abletwine.table.text.Veil;

/** One record of a reference. */
final class FindCommand implements Command {
  private final Usage usage =
      Usage.of(
              this,
              "find",
              "Finds one record of a reference by its key, or by a condition. With a part of the key left out, shows the"
                  + " values it can still take; when nothing fits, the values most like those given. On a"
                  + " terminal, without values, it asks for one part after the other.")
          .asStated()
          .examples(
              "  able-twine find growers.csv grower_no=000042V",
              "  able-twine find grades.csv commodity=wheat --key commodity,grade",
              "  able-twine find growers.csv --where \"mobile is null and updated_on > date '2026-03-01'\"");

  private static final int MOST_RECORDS = 10;

  /** Records that are shown whole. */
  private static final int MOST_WHOLE = 5;

  private static final int MOST_CHOICES = 20;

  /** Tried, those not needed left out, when nothing fits as written. */
  private static final List<String> LENIENT =
      List.of(
          "trim",
          "collapse-spaces",
          "ignore-case",
          "ignore-accents",
          "ignore-punctuation",
          "drop-leading-zeros");

  private final Given<Path> file = usage.argument("REFERENCE", Path.class, "The table.");

  private final Given<Map<String, String>> parts =
      usage.argumentPairs("COLUMN=VALUE", "Key parts that are known.");

  private final Given<String> key =
      usage.option("--key", "A,B", "The key columns. Default: found from the data.");

  private final Given<List<String>> normalise =
      usage
          .options(
              "--normalise", "STEPS", "Steps applied to both sides for comparing. Default: trim.")
          .parted();

  private final Given<String> where =
      usage.option(
          "--where",
          "CONDITION",
          "A SQL condition that the record must meet, beside or in place of values.");

  private final ReadingOptions reading = new ReadingOptions(usage);

  private final Given<Boolean> json = usage.flag("--json", "Print what was found as JSON.");

  private Map<String, String> given = Map.of();

  @Override
  public Usage usage() {
    return usage;
  }

  @Override
  public Integer call() {
    given = parts.get();
    Table table = Tables.file(file.get(), reading.options());
    reading.checkPrivate(table);
    List<NormaliseStep> steps =
        normalise.get().isEmpty() ? List.of(Normalise.trim()) : Normalise.parse(normalise.get());
    given.keySet().forEach(column -> table.schema().require(column, table.name()));
    List<String> keys = keys(table);
    RecordFinder finder = new RecordFinder(table, steps, where.orNull());
    if (given.isEmpty() && where.orNull() == null) {
      if (!Ink.terminal(1) || System.console() == null || json.get()) {
        throw new SettingException(
            "state at least one COLUMN=VALUE; the key of "
                + table.name()
                + " is "
                + String.join(" + ", keys));
      }
      given = new FindDialogue(finder, keys).ask();
    }
    List<String> open = new ArrayList<>(where.orNull() == null ? keys : List.of());
    open.removeAll(given.keySet());
    Found found = finder.find(given, open, MOST_RECORDS);
    if (json.get()) {
      System.out.println(Words.json(AuditJson.found(found)));
    } else {
      print(table, found, open);
    }
    Say.remarks(table);
    return 0;
  }

  private static String shown(Table table, String column, String value) {
    return Trace.shown(Veil.over(table.isPrivate(column), value));
  }

  /** The key as stated, else what the data says. */
  private List<String> keys(Table table) {
    if (key.orNull() != null) {
      List<String> stated = NameLists.split(key.orNull());
      stated.forEach(name -> table.schema().require(name, "--key: " + table.name()));
      return stated;
    }
    return given.isEmpty()
        ? where.orNull() == null ? likeliestKey(table) : List.of()
        : completed(table);
  }

  /** The given columns, with the fewest others that make a key of them; the first such ones. */
  private List<String> completed(Table table) {
    int[] columns = given.keySet().stream().mapToInt(table.schema()::indexOf).toArray();
    List<List<String>> more =
        DuplicateAudit.of(table, columns, List.of(Normalise.trim())).report(0).uniqueWith();
    List<String> keys = new ArrayList<>(given.keySet());
    more.stream().limit(1).forEach(keys::addAll);
    return keys;
  }

  /** The first single column or pair that could be a key; best one with the first column. */
  private static List<String> likeliestKey(Table table) {
    TableProfile profile = TableProfile.of(table);
    String first = table.schema().names().get(0);
    boolean unique = profile.columns().stream().anyMatch(c -> c.unique() && c.name().equals(first));
    if (unique) {
      return List.of(first);
    }
    // A reference that holds its key twice has no unique column: its first is still the best guess.
    return profile.pairs().stream()
        .filter(pair -> pair.contains(first))
        .findFirst()
        .orElse(List.of(first));
  }

  private void print(Table table, Found found, List<String> open) {
    boolean colour = Ink.colour();
    List<String> wanted = new ArrayList<>();
    given.forEach((column, value) -> wanted.add(column + " " + shown(table, column, value)));
    if (where.orNull() != null) {
      wanted.add(where.orNull());
    }
    System.out.println(
        Ink.BOLD.on(table.name(), colour)
            + "  "
            + String.join(", ", wanted)
            + ": "
            + (found.rows() == 0 ? "no row" : Words.rows(found.rows())));
    if (found.rows() == 0) {
      nothing(found, colour);
      if (normalise.get().isEmpty() && !given.isEmpty()) {
        otherwise(table, colour);
      }
      return;
    }
    if (found.rows() <= MOST_WHOLE) {
      whole(found, colour);
    } else if (open.isEmpty()) {
      several(found, colour);
    }
    if (found.rows() > 1 && !open.isEmpty()) {
      choices(found, colour);
    }
  }

  /** Says which normalise steps would find something, when some do. */
  private void otherwise(Table table, boolean colour) {
    List<String> steps = new ArrayList<>(LENIENT);
    if (found(table, steps).rows() == 0) {
      return;
    }
    for (String step : LENIENT) {
      List<String> fewer = new ArrayList<>(steps);
      fewer.remove(step);
      if (found(table, fewer).rows() > 0) {
        steps = fewer;
      }
    }
    Found found = found(table, steps);
    System.out.println(
        "  "
            + Ink.GOOD.on("with --normalise " + String.join(",", steps), colour)
            + " it is "
            + (found.rows() == 1 ? "row " : "rows ")
            + String.join(", ", found.records().keySet().stream().map(String::valueOf).toList())
            + (found.records().size() < found.rows() ? " and more" : ""));
  }

  private Found found(Table table, List<String> steps) {
    return new RecordFinder(table, Normalise.parse(steps), where.orNull())
        .find(given, List.of(), MOST_RECORDS);
  }

  /** The records side by side, a line for each column; where they differ, that is marked. */
  private static void whole(Found found, boolean colour) {
    List<List<String>> records = List.copyOf(found.records().values());
    TextTable lines = new TextTable("l".repeat(records.size() + 2));
    lines.cell("row", Ink.DIM);
    found.records().keySet().forEach(number -> lines.cell(Long.toString(number), Ink.DIM));
    lines.cell("").end();
    boolean any = false;
    for (int column = 0; column < found.columns().size(); column++) {
      int at = column;
      boolean differ = records.stream().map(cells -> cells.get(at)).distinct().count() > 1;
      any |= differ;
      lines.cell(found.columns().get(column), Ink.DIM);
      for (List<String> cells : records) {
        String value = cells.get(column);
        lines.cell(value == null ? "null" : value, value == null ? Ink.WARN : Ink.PLAIN);
      }
      lines.cell(differ ? "differ" : "", Ink.WARN).end();
    }
    lines.render(colour).forEach(System.out::println);
    if (records.size() > 1 && !any) {
      System.out.println("  " + Ink.DIM.on("they are alike in every column", colour));
    }
  }

  private void several(Found found, boolean colour) {
    TextTable lines = new TextTable("r" + "l".repeat(found.columns().size()));
    lines.cell("row", Ink.DIM);
    found.columns().forEach(column -> lines.cell(column, Ink.DIM));
    lines.end();
    found
        .records()
        .forEach(
            (number, cells) -> {
              lines.cell(Long.toString(number), Ink.DIM);
              cells.forEach(cell -> lines.cell(cell == null ? "null" : cell));
              lines.end();
            });
    lines.render(colour).forEach(System.out::println);
    boolean byKey = where.orNull() == null; // a condition may well mean several
    boolean cut = found.records().size() < found.rows();
    List<String> notes = new ArrayList<>();
    if (byKey) {
      notes.add(Ink.WARN.on("the key fits several rows", colour));
    }
    if (cut) {
      notes.add("the first " + found.records().size() + " are shown");
    }
    if (byKey) {
      notes.add("able-twine duplicates says where they differ");
    }
    if (!notes.isEmpty()) {
      System.out.println("  " + String.join("; ", notes));
    }
  }

  private static void choices(Found found, boolean colour) {
    found
        .choices()
        .forEach(
            (column, choices) -> {
              System.out.println(
                  "  " + column + " can still be one of " + choices.size() + " values:");
              TextTable lines = new TextTable("lr");
              for (Choice choice : choices.subList(0, Math.min(MOST_CHOICES, choices.size()))) {
                lines
                    .cell("  " + Trace.shown(choice.value()))
                    .cell(Words.rows(choice.rows()), Ink.DIM)
                    .end();
              }
              lines.render(colour).forEach(System.out::println);
              if (choices.size() > MOST_CHOICES) {
                System.out.println("    and " + (choices.size() - MOST_CHOICES) + " more");
              }
            });
  }

  private static void nothing(Found found, boolean colour) {
    found
        .nearMisses()
        .forEach(
            (column, misses) -> {
              List<String> near = new ArrayList<>();
              misses.forEach(miss -> near.add(Trace.shown(miss.key())));
              System.out.println(
                  "  "
                      + Ink.WARN.on(column + " has no such value", colour)
                      + (near.isEmpty() ? "" : "; most like it: " + String.join(", ", near)));
            });
    if (found.apart()) {
      System.out.println(
          "  "
              + Ink.WARN.on("each of these values is there, but no row has them together", colour));
    }
  }
}
