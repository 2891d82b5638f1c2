package org.abletwine.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import org.abletwine.audit.ColumnProfile;
import org.abletwine.audit.TableProfile;
import org.abletwine.plan.AuditJson;
import org.abletwine.table.Tables;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** What the columns of tables hold. */
@Command(
    name = "profile",
    mixinStandardHelpOptions = true,
    sortOptions = false,
    description =
        "Shows what each column holds: type, nulls, distinct values, examples, stray"
            + " spaces, mixed forms; and which columns could be a key.",
    footerHeading = "%nExample%n",
    footer = "  able-twine profile tickets.csv growers.csv")
final class ProfileCommand implements Callable<Integer> {
  private static final int MOST_KEYS = 6;

  @Parameters(
      paramLabel = "TABLE",
      arity = "1..*",
      description = "The tables; - is standard input.")
  private List<Path> files;

  @Mixin private ReadingOptions reading;

  @Option(names = "--json", description = "Print the figures as JSON.")
  private boolean json;

  @Override
  public Integer call() {
    List<TableProfile> profiles = new ArrayList<>();
    for (Path file : files) {
      profiles.add(TableProfile.of(Tables.file(file, reading.options())));
    }
    if (json) {
      System.out.println(Streams.json(AuditJson.profiles(profiles)));
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
            + RunSummary.rows(profile.rows())
            + ", "
            + profile.columns().size()
            + " columns");
    TextTable table = new TextTable("llrrrl");
    for (String heading :
        new String[] {"column", "type", "nulls", "distinct", "length", "examples"}) {
      table.cell(heading, Ink.DIM);
    }
    table.end();
    for (ColumnProfile column : profile.columns()) {
      table.cell(column.name(), Ink.BOLD).cell(column.type());
      table.cell(RunSummary.count(column.nulls()), column.nulls() == 0 ? Ink.DIM : Ink.PLAIN);
      table.cell(RunSummary.count(column.distinct()) + (column.exact() ? "" : " ± 1.6 %"));
      table.cell(
          column.shortest() == column.longest()
              ? Integer.toString(column.longest())
              : column.shortest() + "-" + column.longest());
      table.cell(String.join(", ", column.examples().stream().map(ProfileCommand::shown).toList()));
      table.end();
    }
    table.render(colour).forEach(System.out::println);
    for (ColumnProfile column : profile.columns()) {
      List<String> remarks = remarks(column);
      if (!remarks.isEmpty()) {
        print(column.name() + ": " + String.join("; ", remarks), Ink.WARN, colour);
      }
    }
    profile.remarks().forEach(remark -> print(remark, Ink.WARN, colour));
    print(keys(profile), Ink.PLAIN, colour);
    types(profile).forEach(line -> print(line, Ink.PLAIN, colour));
  }

  private static void print(String text, Ink ink, boolean colour) {
    Screen.line("  " + text).forEach(line -> System.out.println(ink.on(line, colour)));
  }

  private static String shown(String example) {
    String text = example.replace("\n", "\\n").replace('\u00A0', '␣');
    return text.isEmpty() || text.startsWith(" ") || text.endsWith(" ") ? "'" + text + "'" : text;
  }

  private static List<String> remarks(ColumnProfile column) {
    List<String> remarks = new ArrayList<>();
    ColumnProfile.Spoiled spoiled = column.spoiled();
    if (spoiled != null) {
      remarks.add(
          spoiled.type()
              + " but for "
              + RunSummary.count(spoiled.cells())
              + (spoiled.cells() == 1 ? " cell" : " cells")
              + ", such as "
              + shown(spoiled.example())
              + " in row "
              + RunSummary.count(spoiled.row()));
    }
    if (column.straySpaces() > 0) {
      remarks.add(RunSummary.count(column.straySpaces()) + " with spaces at an end");
    }
    if (column.caseForms() > 0) {
      remarks.add(RunSummary.count(column.caseForms()) + " differ from another only in case");
    }
    if (column.zeroForms() > 0 && !column.type().equals("decimal")) {
      remarks.add(
          RunSummary.count(column.zeroForms()) + " differ from another only in leading zeros");
    }
    return remarks;
  }

  /** The types of the columns as a plan states them, to be pasted. */
  private static List<String> types(TableProfile profile) {
    List<String> types = new ArrayList<>();
    for (ColumnProfile column : profile.columns()) {
      if (column.stated() != null) {
        boolean plain = column.name().matches("[A-Za-z_][A-Za-z0-9_]*");
        String name = plain ? column.name() : '"' + column.name().replace("\"", "\\\"") + '"';
        types.add(name + ": " + column.stated());
      }
    }
    return types.isEmpty() ? List.of() : List.of("types: { " + String.join(", ", types) + " }");
  }

  private static String keys(TableProfile profile) {
    List<String> keys = new ArrayList<>();
    profile.columns().stream()
        .filter(ColumnProfile::unique)
        .forEach(column -> keys.add(column.name()));
    profile.pairs().forEach(pair -> keys.add(String.join(" + ", pair)));
    if (!keys.isEmpty()) {
      int more = keys.size() - MOST_KEYS;
      return "could be a key: "
          + String.join(", ", keys.subList(0, Math.min(MOST_KEYS, keys.size())))
          + (more > 0 ? " and " + more + " more" : "");
    }
    return "no column could be a key, and no pair of those tried (" + profile.pairsTried() + ")";
  }
}
