package org.abletwine.plan.draft;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.abletwine.figures.LookupFigures;
import org.abletwine.figures.RunRecord;
import org.abletwine.figures.StepFigures;
import org.abletwine.plan.draft.FoundKey.Kind;
import org.abletwine.plan.draft.FoundKey.Pair;
import org.abletwine.plan.tell.Words;
import org.jspecify.annotations.Nullable;

/** Writes a draft down as a plan, with the evidence beside each step. */
final class DraftText {
  private static final int FEW_VALUES = 6;
  private static final List<String> HARMLESS =
      List.of("trim", "collapse-spaces", "ignore-case", "ignore-accents");

  private final Source transactions;
  private final SampleTable rows;
  private final Map<String, Source> files;
  private final Map<String, SampleTable> tables;
  private final List<DraftedStep> steps;
  private final Collection<String> unused;
  private final LikeDraft.Ending ending;
  private final Path plan;
  private final StringBuilder text = new StringBuilder();
  private @Nullable RunRecord figures;
  private String stopped = "";

  DraftText(
      Source transactions,
      SampleTable rows,
      Map<String, Source> files,
      Map<String, SampleTable> tables,
      List<DraftedStep> steps,
      Collection<String> unused,
      LikeDraft.Ending ending,
      Path plan) {
    this.ending = ending;
    this.transactions = transactions;
    this.rows = rows;
    this.files = files;
    this.tables = tables;
    this.steps = steps;
    this.unused = unused;
    this.plan = plan;
  }

  /** The plan without what only a run of it tells. */
  String plain() {
    figures = null;
    return write();
  }

  /**
   * The plan with what a run of it counted.
   *
   * @param counted the figures; null when the data stopped it
   * @param problem what stopped it
   */
  String told(@Nullable RunRecord counted, String problem) {
    figures = counted;
    stopped = problem;
    return write();
  }

  private String write() {
    text.setLength(0);
    line("able-twine: 1");
    line("title: " + quoted(transactions.name()));
    Set<String> hidden = hidden(false);
    Set<String> later = hidden(true);
    later.removeAll(hidden);
    if (!later.isEmpty()) {
      comment("", "Private too, once its table is used: " + String.join(", ", later));
    }
    if (!hidden.isEmpty()) {
      line("private: [" + String.join(", ", hidden.stream().map(DraftText::quoted).toList()) + "]");
    }
    line("transactions: { file: " + path(transactions) + " }");
    long all = rows.allRows();
    comment(
        "",
        Words.rows(all)
            + (rows.whole() ? "" : "; " + Words.count(rows.count()) + " of them were looked at")
            + ". Drafted from the data: read the comments, and change what you know better.");
    if (!stopped.isEmpty()) {
      comment("", "It could not be run to its end, so nothing is counted below: " + stopped);
    }
    references();
    line("");
    line("steps:");
    steps.forEach(this::step);
    ending.lines().forEach(one -> line("  " + one));
    if (ending == LikeDraft.Ending.NONE) {
      left();
    }
    line("");
    line("controls:");
    line("  rows: same");
    line("");
    line("outputs:");
    line("  enriched: out/enriched.csv");
    line("  exceptions: out/exceptions.csv             # what needs a look");
    line(
        "  corrections: out/corrections-draft.csv     # unmatched keys and what they probably were");
    line("  report: out/report.html");
    line("  record: out/run.json");
    leaves();
    return text.toString();
  }

  /** The columns kept private, of the tables that join, or of the others. */
  private Set<String> hidden(boolean ofUnused) {
    Set<String> hidden = new TreeSet<>();
    List<SampleTable> all = new ArrayList<>(ofUnused ? List.of() : List.of(rows));
    files.keySet().stream()
        .filter(name -> unused.contains(name) == ofUnused)
        .forEach(name -> all.add(tables.get(name)));
    for (SampleTable table : all) {
      table.schema().names().stream().filter(table::isPrivate).forEach(hidden::add);
    }
    return hidden;
  }

  /** Which columns leave, by which names. */
  private void leaves() {
    if (!ending.drop().isEmpty()) {
      line("  drop-columns: " + list(ending.drop()));
    }
    if (!ending.order().isEmpty()) {
      line("  order-columns: " + list(ending.order()));
    }
    if (!ending.rename().isEmpty()) {
      List<String> pairs = new ArrayList<>();
      ending.rename().forEach((name, as) -> pairs.add(quoted(name) + ": " + quoted(as)));
      line("  rename: { " + String.join(", ", pairs) + " }");
    }
  }

  private static String list(List<String> names) {
    return "[" + String.join(", ", names.stream().map(DraftText::quoted).toList()) + "]";
  }

  private void line(String line) {
    text.append(line).append('\n');
  }

  private void comment(String indent, String sentence) {
    line(indent + "# " + Words.shown(sentence).replace('\n', ' '));
  }

  private void references() {
    if (files.isEmpty()) {
      return;
    }
    line("");
    line("references:");
    Map<String, String> duplicates = new LinkedHashMap<>();
    Map<String, String> conditions = new LinkedHashMap<>();
    for (DraftedStep step : steps) {
      for (DraftedStep one = step; one != null; one = one.otherwise()) {
        duplicates.put(one.reference(), one.newestBy());
        if (one.key().kind() == Kind.CORRECTION) {
          conditions.put(one.reference(), accepted(tables.get(one.reference())));
        }
      }
    }
    for (Map.Entry<String, Source> file : files.entrySet()) {
      String name = file.getKey();
      String rule = duplicates.getOrDefault(name, "");
      String where = conditions.getOrDefault(name, "");
      line(
          (unused.contains(name) ? "  # " : "  ")
              + quoted(name)
              + ": { file: "
              + path(file.getValue())
              + (rule.isEmpty() ? "" : ", duplicates: { newest-by: " + quoted(rule) + " }")
              + (where.isEmpty() ? "" : ", where: " + quoted(where))
              + " }"
              + (unused.contains(name) ? "   joins nothing that was found" : ""));
    }
  }

  /** Of a list of corrections those lines that somebody accepted, where a column says so. */
  private static String accepted(@Nullable SampleTable list) {
    if (list != null) {
      for (SampleColumn column : list.columns()) {
        String yes = null;
        boolean decides = column.distinct() > 0 && column.distinct() <= 2;
        for (int id = 0; id < column.distinct(); id++) {
          String value = column.valueOf(id);
          decides &= value.matches("(?i)yes|no");
          yes = value.equalsIgnoreCase("yes") ? value : yes;
        }
        if (decides && yes != null) {
          return name(column.name()) + " = '" + yes + "'";
        }
      }
    }
    return "";
  }

  private void step(DraftedStep step) {
    line("");
    if (step.key().kind() == Kind.CORRECTION) {
      evidence(step);
      line("  - correct: " + quoted(step.key().ours()));
      line("    using: " + quoted(step.reference()));
      line("    written: " + quoted(step.key().theirs()));
      line("    meant: " + quoted(step.key().theirsTo()));
      return;
    }
    evidence(step);
    line("  - lookup: " + quoted(step.reference()));
    line("    key: " + key(step));
    if (!step.steps().isEmpty() && !ofParts(step)) {
      line("    normalise: " + normalise(step.steps()));
    }
    if (step.bring().isEmpty()) {
      line("    mark: " + quoted(step.reference() + "_outcome")); // it has nothing but its key
    } else {
      line("    bring: " + bring(step));
    }
    DraftedStep other = step.otherwise();
    if (other != null) {
      line("    otherwise:                           # tried for rows still without a match");
      line(
          "      - { reference: "
              + quoted(other.reference())
              + ", key: "
              + key(other)
              + (other.steps().isEmpty() ? "" : ", normalise: " + normalise(other.steps()))
              + ", bring: "
              + bring(other)
              + " }");
    }
  }

  private void evidence(DraftedStep step) {
    RunRecord run = figures;
    if (run != null) {
      for (LookupFigures one : run.lookups()) {
        if (one.name().equals(step.reference())) {
          List<String> parts = new ArrayList<>();
          parts.add(Words.part(one.matched(), one.rows()) + " match");
          if (one.unmatched() > 0) {
            parts.add(Words.part(one.unmatched(), one.rows()) + " do not");
          }
          if (one.ambiguous() > 0) {
            parts.add(Words.part(one.ambiguous(), one.rows()) + " fit several rows that disagree");
          }
          if (one.blankKey() > 0) {
            parts.add(Words.part(one.blankKey(), one.rows()) + " have no key");
          }
          comment("  ", "Of " + Words.rows(one.rows()) + " " + String.join(", ", parts) + ".");
          gains(one);
          one.misses()
              .forEach(
                  miss ->
                      comment(
                          "  ",
                          Words.rows(miss.rows())
                              + " "
                              + miss.kind()
                              + ", such as "
                              + miss.example()));
          if (one.ambiguous() > 0 && step.key().kind() == Kind.WILDCARD) {
            comment(
                "  ",
                "Where several fit: several: longest, or bring such as"
                    + " \"listagg(COLUMN, ' + ') as COLUMN\".");
          }
        }
      }
      for (StepFigures.Corrected one : run.corrections()) {
        if (step.key().kind() == Kind.CORRECTION && one.column().equals(step.key().ours())) {
          comment(
              "  ",
              Words.part(one.changed(), one.rows())
                  + " rows are corrected"
                  + "; "
                  + Words.count(one.unused())
                  + " of "
                  + Words.count(one.lines())
                  + " lines are not needed.");
        }
      }
    }
    step.doubts().forEach(doubt -> comment("  ", doubt));
    SampleTable table = tables.get(step.reference());
    if (table != null && !table.whole()) {
      comment(
          "  ",
          "Found from "
              + Words.count(table.count())
              + " of "
              + Words.rows(table.allRows())
              + " of "
              + table.name()
              + "; able-twine duplicates looks at all of them.");
    }
    DraftedStep other = step.otherwise();
    if (other != null) {
      other.doubts().forEach(doubt -> comment("  ", doubt));
    }
  }

  private void gains(LookupFigures lookup) {
    List<String> parts = new ArrayList<>();
    for (LookupFigures.Share share : lookup.matchedBy()) {
      if (share.rows() > 0) {
        parts.add(Words.count(share.rows()) + " " + share.name());
      }
    }
    if (parts.size() > 1) {
      comment("  ", "Matched: " + String.join(" + ", parts) + ".");
    }
  }

  /** What the data cannot tell. */
  private void left() {
    List<String> asks = new ArrayList<>();
    transactions.undecided().forEach(one -> asks.add(transactions.name() + ": " + one));
    files.forEach((name, source) -> source.undecided().forEach(one -> asks.add(name + ": " + one)));
    for (DraftedStep step : steps) {
      SampleTable table = tables.get(step.reference());
      if (table == null || step.key().kind() == Kind.CORRECTION) {
        continue;
      }
      for (SampleColumn column : table.columns()) {
        boolean state =
            Names.has(column.name(), "status", "state", "active", "closed", "valid", "deleted")
                && column.distinct() <= FEW_VALUES
                && column.distinct() > 1
                && column.kind() == SampleColumn.Kind.TEXT
                && !table.isPrivate(column.name());
        if (state) {
          List<String> values = new ArrayList<>();
          for (int id = 0; id < column.distinct(); id++) {
            values.add(column.valueOf(id));
          }
          asks.add(
              step.reference()
                  + ": do all rows count, whatever "
                  + column.name()
                  + " says ("
                  + String.join(", ", values)
                  + ")? If not: where: \""
                  + column.name()
                  + " = '"
                  + values.get(0)
                  + "'\" on the reference.");
        }
      }
    }
    unused.forEach(
        name -> asks.add(name + " joins nothing that was found. By which column does it?"));
    asks.add("Which of the columns fetched are needed? Take the others out of bring.");
    asks.add("What should stand where nothing was found: unmatched: { fill: { COLUMN: VALUE } }.");
    asks.add("What is computed from all this, and which totals must be the same at the end.");
    line("");
    comment("", "What only you can know:");
    asks.forEach(ask -> comment("", "- " + ask));
  }

  /**
   * Whether steps are stated for the equal parts alone: those that change more than case and spaces
   * would spoil the numbers and dates of a rule.
   */
  private static boolean ofParts(DraftedStep step) {
    return step.key().kind() != Kind.EQUAL && !HARMLESS.containsAll(step.steps());
  }

  private static String key(DraftedStep step) {
    FoundKey key = step.key();
    List<String> parts = new ArrayList<>();
    for (Pair pair : key.equal()) {
      if (ofParts(step)) {
        parts.add(
            "{ ours: "
                + quoted(pair.ours())
                + ", theirs: "
                + quoted(pair.theirs())
                + ", normalise: "
                + normalise(step.steps())
                + " }");
        continue;
      }
      String both =
          pair.ours().equals(pair.theirs())
              ? name(pair.ours())
              : name(pair.ours()) + " = " + name(pair.theirs());
      parts.add(quoted(both));
    }
    String ours = key.ours() == null ? "" : quoted(key.ours());
    String theirs = key.theirs() == null ? "" : quoted(key.theirs());
    switch (key.kind()) {
      case AT_OR_BELOW ->
          parts.add("{ ours: " + ours + ", theirs: " + theirs + ", match: at-or-below }");
      case BETWEEN ->
          parts.add(
              "{ ours: "
                  + ours
                  + ", theirs: ["
                  + theirs
                  + ", "
                  + quoted(key.theirsTo())
                  + "], match: between }");
      case WILDCARD -> parts.add("{ ours: " + ours + ", theirs: " + theirs + ", match: wildcard }");
      default -> {
        // nothing but what must be equal
      }
    }
    return parts.size() == 1 ? parts.get(0) : "[" + String.join(", ", parts) + "]";
  }

  private static String bring(DraftedStep step) {
    List<String> columns = new ArrayList<>();
    step.bring()
        .forEach(
            (column, as) ->
                columns.add(
                    quoted(column.equals(as) ? name(column) : name(column) + " as " + name(as))));
    return "[" + String.join(", ", columns) + "]";
  }

  private static String normalise(List<String> steps) {
    List<String> written = new ArrayList<>();
    for (String step : steps) {
      int equals = step.indexOf('=');
      String argument = equals < 0 ? "" : step.substring(equals + 1);
      written.add(
          equals < 0
              ? step
              : step.substring(0, equals)
                  + ": "
                  + (argument.matches("[0-9]+") ? argument : quoted(argument)));
    }
    return "[" + String.join(", ", written) + "]";
  }

  /** A column as expressions and keys name it. */
  static String name(String column) {
    return column.matches("[A-Za-z_][A-Za-z0-9_]*")
        ? column
        : '"' + column.replace("\"", "\"\"") + '"';
  }

  private String path(Source source) {
    Path file = source.file();
    Path folder = plan.toAbsolutePath().normalize().getParent();
    Path absolute = file.toAbsolutePath().normalize();
    Path named = folder != null && absolute.startsWith(folder) ? folder.relativize(absolute) : file;
    return quoted(named.toString()) + source.settings();
  }

  /** A text as YAML writes it. */
  static String quoted(@Nullable String value) {
    String written = value == null ? "" : value.replace("${", "$${"); // no parameter is meant
    boolean plain =
        written.matches("[A-Za-z][A-Za-z0-9_./ =-]*")
            && !written.endsWith(" ")
            && !written.matches("(?i)true|false|yes|no|null|on|off|y|n");
    if (plain) {
      return written;
    }
    StringBuilder text = new StringBuilder("\"");
    for (char c : written.toCharArray()) {
      if (c == '"' || c == '\\') {
        text.append('\\').append(c);
      } else if (c < ' ' || Words.hidden(c) || c == '\uFEFF' || c == '\u00A0') {
        text.append(String.format(java.util.Locale.ROOT, "\\u%04X", (int) c));
      } else {
        text.append(c);
      }
    }
    return text.append('"').toString();
  }
}
