package org.abletwine.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.abletwine.audit.TableProfile;
import org.abletwine.plan.AuditJson;
import org.abletwine.plan.tell.Words;
import org.abletwine.table.Table;
import org.abletwine.table.Tables;
import org.jspecify.annotations.Nullable;

/** What the columns of tables hold. */
final class ProfileCommand implements Command {
  private final Usage usage =
      Usage.of(
              this,
              "profile",
              "Shows what each column holds: type, nulls, distinct, least, greatest and"
                  + " most frequent values, what spoils the type, words that look like null, stray spaces,"
                  + " mixed forms; and which columns could be a key, or are nearest to one.")
          .asStated()
          .examples("  able-twine profile tickets.csv growers.csv");

  private static final int MOST_KEYS = 6;
  private static final int WIDEST_NAME = 24;
  private static final int LEAST_LAST = 13;
  private static final int WIDEST_END = 12;
  private static final int WIDEST_VALUE = 18;

  private final Given<List<Path>> files =
      usage.arguments("TABLE", Path.class, "The tables; - is standard input.");

  private final ReadingOptions reading = new ReadingOptions(usage);

  private final Given<Boolean> json = usage.flag("--json", "Print the figures as JSON.");

  @Override
  public Usage usage() {
    return usage;
  }

  @Override
  public Integer call() {
    List<Table> tables = new ArrayList<>();
    for (Path file : files.get()) {
      tables.add(Tables.file(file, reading.options()));
    }
    reading.checkPrivate(tables.toArray(Table[]::new));
    List<TableProfile> profiles = tables.stream().map(TableProfile::of).toList();
    if (json.get()) {
      System.out.println(Words.json(AuditJson.profiles(profiles)));
    } else {
      for (int i = 0; i < profiles.size(); i++) {
        if (i > 0) {
          System.out.println();
        }
        print(profiles.get(i));
      }
    }
    return 0;
  }

  private static void print(TableProfile profile) {
    boolean colour = Ink.colour();
    System.out.println(
        Ink.BOLD.on(profile.table(), colour)
            + "  "
            + Words.rows(profile.rows())
            + ", "
            + profile.columns().size()
            + " columns");
    columns(profile).render(colour).forEach(System.out::println);
    for (TableProfile.Column column : profile.columns()) {
      List<String> remarks = remarks(column);
      if (!remarks.isEmpty()) {
        print(column.name() + ": " + String.join("; ", remarks), Ink.WARN, colour);
      }
    }
    profile.remarks().forEach(remark -> print(remark, Ink.WARN, colour));
    print(keys(profile), Ink.PLAIN, colour);
    nulls(profile).forEach(line -> print(line, Ink.PLAIN, colour));
    types(profile).forEach(line -> print(line, Ink.PLAIN, colour));
  }

  /** A line for each column, none of them broken: of the frequent values as many as fit. */
  private static TextTable columns(TableProfile profile) {
    List<List<String>> lines = new ArrayList<>();
    lines.add(List.of("column", "type", "nulls", "distinct", "length", "least", "greatest"));
    for (TableProfile.Column column : profile.columns()) {
      lines.add(
          List.of(
              Screen.shortened(column.name(), WIDEST_NAME),
              column.type(),
              Words.count(column.nulls()),
              Words.count(column.distinct()) + (column.exact() ? "" : " ± 1.6 %"),
              column.shortest() == column.longest()
                  ? Integer.toString(column.longest())
                  : column.shortest() + "-" + column.longest(),
              end(column.least()),
              end(column.greatest())));
    }
    int left = Screen.width() - 2 - 2 * lines.get(0).size();
    for (int cell = 0; cell < lines.get(0).size(); cell++) {
      int at = cell;
      left -= lines.stream().mapToInt(line -> Screen.width(line.get(at))).max().orElse(0);
    }
    boolean roomy = left >= LEAST_LAST;
    TextTable table = new TextTable("llrrrll" + (roomy ? "l" : ""));
    for (int line = 0; line < lines.size(); line++) {
      for (int cell = 0; cell < lines.get(line).size(); cell++) {
        boolean dim = line == 0 || cell == 2 && lines.get(line).get(cell).equals("0");
        table.cell(lines.get(line).get(cell), dim ? Ink.DIM : cell == 0 ? Ink.BOLD : Ink.PLAIN);
      }
      if (roomy) {
        String last = line == 0 ? "most frequent" : values(profile.columns().get(line - 1), left);
        table.cell(last, line == 0 ? Ink.DIM : Ink.PLAIN);
      }
      table.end();
    }
    return table;
  }

  private static String end(@Nullable String value) {
    return value == null ? "" : Screen.shortened(shown(value), WIDEST_END);
  }

  /** The most frequent values, or an example of what stands but once; as many as fit. */
  private static String values(TableProfile.Column column, int width) {
    if (column.frequent().isEmpty()) {
      return column.examples().isEmpty()
          ? ""
          : Screen.shortened("such as " + shown(column.examples().get(0)), Math.max(width, 10));
    }
    int most = column.frequent().size();
    while (most > 1 && Screen.width(counted(column.frequent().subList(0, most))) > width) {
      most--;
    }
    String first = counted(column.frequent().subList(0, most));
    if (most > 1 || Screen.width(first) <= width) {
      return first;
    }
    String count = " " + Words.count(column.frequent().get(0).rows());
    String value = shown(column.frequent().get(0).value());
    return Screen.shortened(value, Math.max(4, width - count.length())) + count;
  }

  private static String counted(List<TableProfile.Column.Value> values) {
    return String.join(
        ", ",
        values.stream()
            .map(
                value ->
                    Screen.shortened(shown(value.value()), WIDEST_VALUE)
                        + " "
                        + Words.count(value.rows()))
            .toList());
  }

  private static void print(String text, Ink ink, boolean colour) {
    Screen.line("  " + text).forEach(line -> System.out.println(ink.on(line, colour)));
  }

  private static String shown(String example) {
    String text = example.replace("\n", "\\n").replace('\u00A0', '␣');
    return text.isEmpty() || text.startsWith(" ") || text.endsWith(" ") ? "'" + text + "'" : text;
  }

  private static List<String> remarks(TableProfile.Column column) {
    List<String> remarks = new ArrayList<>();
    TableProfile.Column.Spoiled spoiled = column.spoiled();
    if (spoiled != null) {
      remarks.add(
          spoiled.type()
              + " but for "
              + Words.count(spoiled.cells())
              + (spoiled.cells() == 1 ? " cell" : " cells")
              + ", such as "
              + shown(spoiled.example())
              + " in row "
              + Words.count(spoiled.row()));
    }
    if (column.written().size() == 1) {
      remarks.add("written as " + column.written().get(0));
    } else if (!column.written().isEmpty()) {
      remarks.add(
          "written as "
              + String.join(" or as ", column.written())
              + ", and nothing here tells which: state it");
    }
    if (!column.nullWords().isEmpty()) {
      remarks.add("looks like null: " + counted(column.nullWords()));
    }
    if (column.straySpaces() > 0) {
      remarks.add(Words.count(column.straySpaces()) + " with spaces at an end");
    }
    if (column.caseForms() > 0) {
      remarks.add(Words.count(column.caseForms()) + " differ from another only in case");
    }
    if (column.zeroForms() > 0 && !column.type().equals("decimal")) {
      remarks.add(Words.count(column.zeroForms()) + " differ from another only in leading zeros");
    }
    return remarks;
  }

  /** The types of the columns as a plan states them, to be pasted. */
  private static List<String> types(TableProfile profile) {
    List<String> types = new ArrayList<>();
    for (TableProfile.Column column : profile.columns()) {
      if (column.stated() != null) {
        boolean plain = column.name().matches("[A-Za-z_][A-Za-z0-9_]*");
        String name = plain ? column.name() : '"' + column.name().replace("\"", "\\\"") + '"';
        types.add(name + ": " + column.stated());
      }
    }
    return types.isEmpty() ? List.of() : List.of("types: { " + String.join(", ", types) + " }");
  }

  /** Words that stand for null, as a plan states them, to be pasted. */
  private static List<String> nulls(TableProfile profile) {
    List<String> words =
        profile.columns().stream()
            .flatMap(column -> column.nullWords().stream())
            .map(value -> '"' + value.value().replace("\\", "\\\\").replace("\"", "\\\"") + '"')
            .distinct()
            .toList();
    return words.isEmpty() ? List.of() : List.of("nulls: [" + String.join(", ", words) + "]");
  }

  private static String keys(TableProfile profile) {
    List<String> keys = new ArrayList<>();
    profile.columns().stream()
        .filter(TableProfile.Column::unique)
        .forEach(column -> keys.add(column.name()));
    profile.pairs().forEach(pair -> keys.add(String.join(" + ", pair)));
    if (!keys.isEmpty()) {
      int more = keys.size() - MOST_KEYS;
      return "could be a key: "
          + String.join(", ", keys.subList(0, Math.min(MOST_KEYS, keys.size())))
          + (more > 0 ? " and " + more + " more" : "");
    }
    TableProfile.Nearest nearest = profile.nearest();
    return "no column could be a key, and no pair of those tried ("
        + profile.pairsTried()
        + ")"
        + (nearest == null
            ? ""
            : "; nearest is "
                + String.join(" + ", nearest.columns())
                + ", a key but for "
                + Words.rows(nearest.rows())
                + ": duplicates "
                + profile.table()
                + " --key "
                + String.join(",", nearest.columns()));
  }
}
