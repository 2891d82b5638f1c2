package org.abletwine.plan;

import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.abletwine.lookup.Duplicates;
import org.abletwine.plan.Plan.LookupSpec;
import org.abletwine.plan.Plan.Outputs;
import org.abletwine.plan.Plan.ReferenceSpec;
import org.abletwine.plan.Plan.RollupSpec;
import org.abletwine.plan.Plan.Settings;
import org.abletwine.plan.Plan.StepSpec;
import org.abletwine.plan.Plan.TableSpec;
import org.abletwine.table.TableOptions;
import org.abletwine.table.text.NearestName;
import org.jspecify.annotations.Nullable;
import org.snakeyaml.engine.v2.exceptions.Mark;

/** Reads the nodes of a plan file, top to bottom, noting every mistake. */
final class PlanReader {
  private static final Set<String> TOP =
      ordered(
          "able-twine",
          "title",
          "private",
          "parameters",
          "transactions",
          "measure",
          "errors",
          "current-date",
          "references",
          "steps",
          "controls",
          "outputs");
  private static final Set<String> TABLE =
      ordered(
          "file",
          "database",
          "delimiter",
          "quote",
          "header",
          "encoding",
          "nulls",
          "ragged",
          "nested",
          "sheet",
          "header-row",
          "range",
          "source",
          "types");
  private static final Set<String> REFERENCE =
      with(TABLE, "key", "where", "duplicates", "unreadable", "links");
  private final Path folder;
  private final LocalDate today;
  private final Mistakes mistakes;

  /** Columns that are private, of whichever table. */
  private Set<String> hidden = Set.of();

  PlanReader(Path folder, LocalDate today, Mistakes mistakes) {
    this.today = today;
    this.folder = folder;
    this.mistakes = mistakes;
  }

  static Set<String> ordered(String... names) {
    return new LinkedHashSet<>(List.of(names));
  }

  private static Set<String> with(Set<String> names, String... more) {
    Set<String> all = new LinkedHashSet<>(names);
    all.addAll(List.of(more));
    return all;
  }

  /** The plan, or null when mistakes leave nothing to go on with. */
  @Nullable Plan read(PlanNode root) {
    Map<String, PlanNode> top = root.entries(TOP);
    PlanNode version = top.get("able-twine");
    if (version == null) {
      root.wrong("the first line states the plan's version: able-twine: 1");
    } else if (!"1".equals(version.text())) {
      version.wrong("this program reads version 1 plans");
    }
    PlanNode titleNode = top.get("title");
    String title = titleNode == null ? "" : titleNode.text();
    PlanNode hiddenNode = top.get("private");
    hidden = hiddenNode == null ? Set.of() : new LinkedHashSet<>(hiddenNode.texts());
    TableSpec transactions = null;
    PlanNode transactionsNode = top.get("transactions");
    if (transactionsNode == null) {
      root.wrong("no transactions; state transactions: { file: NAME.csv }");
    } else {
      transactions = table(transactionsNode, transactionsNode.entries(TABLE));
    }
    Map<String, ReferenceSpec> references = references(top.get("references"));
    List<StepSpec> steps = steps(root, top.get("steps"), references);
    Outputs outputs = new OutputReader(folder).read(top.get("outputs"));
    if (transactions == null || title == null) {
      return null;
    }
    return new Plan(
        title,
        transactions,
        references,
        steps,
        settings(top),
        ControlReader.read(top.get("controls")),
        outputs);
  }

  private Map<String, ReferenceSpec> references(@Nullable PlanNode node) {
    Map<String, ReferenceSpec> references = new LinkedHashMap<>();
    if (node != null) {
      node.anyEntries()
          .forEach(
              (name, reference) -> {
                if (reference.has("rollup")) {
                  totals(name, reference, references);
                  return;
                }
                Map<String, PlanNode> settings = reference.entries(REFERENCE);
                TableSpec table = table(reference, settings);
                PlanNode key = settings.get("key");
                if (table != null) {
                  PlanNode where = settings.get("where");
                  PlanNode duplicates = settings.get("duplicates");
                  PlanNode unreadable = settings.get("unreadable");
                  references.put(
                      name,
                      new ReferenceSpec(
                          table,
                          key == null ? List.of() : key.texts(),
                          where == null ? null : where.sql(),
                          duplicates == null ? Duplicates.keep() : duplicates(duplicates),
                          unreadable != null
                              && "leave-out".equals(unreadable.oneOf(List.of("fail", "leave-out"))),
                          links(settings.get("links")),
                          where == null ? Optional.empty() : where.mark(),
                          null));
                }
              });
    }
    return references;
  }

  /** A reference that holds totals of the transactions, by default found by what they are by. */
  private void totals(String name, PlanNode node, Map<String, ReferenceSpec> references) {
    Map<String, PlanNode> settings = node.entries(ordered("rollup", "key"));
    PlanNode rollup = settings.get("rollup");
    PlanNode key = settings.get("key");
    RollupSpec spec = rollup == null ? null : new OutputReader(folder).totals(rollup);
    if (rollup == null || spec == null) {
      return;
    }
    if (spec.by().isEmpty()) {
      rollup.wrong("totals that a step fetches are found by what they are by; state by: [COLUMN]");
      return;
    }
    references.put(
        name,
        new ReferenceSpec(
            new TableSpec(List.of(), null, TableOptions.NONE, rollup.mark()),
            key == null ? spec.by() : key.texts(),
            null,
            Duplicates.keep(),
            false,
            Map.of(),
            Optional.empty(),
            spec));
  }

  private static Map<String, String> links(@Nullable PlanNode node) {
    Map<String, String> links = new LinkedHashMap<>();
    if (node != null) {
      node.anyEntries()
          .forEach(
              (column, target) -> {
                String name = target.text();
                if (name != null) {
                  links.put(column, name);
                }
              });
    }
    return links;
  }

  private static Duplicates duplicates(PlanNode node) {
    if (node.isMapping()) {
      PlanNode column = node.entries(Set.of("newest-by")).get("newest-by");
      String name = column == null ? null : column.text();
      if (name == null) {
        node.wrong("state duplicates: { newest-by: COLUMN }");
        return Duplicates.keep();
      }
      return Duplicates.newestBy(name);
    }
    String rule = node.oneOf(List.of("fail", "first", "last", "fullest", "identical"));
    return rule == null
        ? Duplicates.keep()
        : new Duplicates(Duplicates.Rule.valueOf(rule.toUpperCase(java.util.Locale.ROOT)), null);
  }

  private @Nullable TableSpec table(PlanNode node, Map<String, PlanNode> settings) {
    PlanNode file = settings.get("file");
    PlanNode database = settings.get("database");
    if (file != null && database != null) {
      database.wrong("a table is in a file or in a database; state one of them");
      return null;
    }
    if (database != null) {
      DatabaseReader.Source source = new DatabaseReader(folder).source(database);
      return source == null
          ? null
          : new TableSpec(List.of(), source, options(settings), database.mark());
    }
    if (file == null) {
      if (node.isMapping()) {
        node.wrong("no file; state file: NAME.csv");
      }
      return null;
    }
    List<Path> paths = new ArrayList<>();
    for (PlanNode one : file.items()) {
      Path path = OutputReader.path(folder, one);
      if (path == null) {
        return null;
      }
      paths.add(path);
    }
    return paths.isEmpty() ? null : new TableSpec(paths, null, options(settings), file.mark());
  }

  private TableOptions options(Map<String, PlanNode> settings) {
    PlanNode header = settings.get("header");
    PlanNode encoding = settings.get("encoding");
    PlanNode nulls = settings.get("nulls");
    PlanNode ragged = settings.get("ragged");
    PlanNode nested = settings.get("nested");
    PlanNode source = settings.get("source");
    return new TableOptions(
        delimiter(settings.get("delimiter")),
        character(settings.get("quote")),
        header == null ? null : header.yesOrNo(),
        encoding == null ? null : encoding.text(),
        nulls == null ? List.of() : nulls.texts(),
        ragged != null && "pad".equals(ragged.oneOf(List.of("fail", "pad"))),
        TypeReader.read(settings.get("types")),
        nested != null && "columns".equals(nested.oneOf(List.of("text", "columns"))),
        sheet(settings),
        source == null ? null : source.text(),
        hidden);
  }

  private static TableOptions.@Nullable Sheet sheet(Map<String, PlanNode> settings) {
    PlanNode sheet = settings.get("sheet");
    PlanNode range = settings.get("range");
    PlanNode row = settings.get("header-row");
    if (sheet == null && range == null && row == null) {
      return null;
    }
    String number = row == null ? "0" : row.text();
    if (row != null && (number == null || !number.matches("[1-9]\\d{0,6}"))) {
      row.wrong("expected the number of a row, from 1 on; found " + number);
      number = "0";
    }
    return new TableOptions.Sheet(
        sheet == null ? null : sheet.text(),
        Integer.parseInt(String.valueOf(number)),
        range == null ? null : range.text());
  }

  static @Nullable Character delimiter(@Nullable PlanNode node) {
    String text = node == null ? null : node.text();
    if (text == null || node == null) {
      return null;
    }
    Character known = Delimiters.parse(text);
    if (known == null) {
      node.wrong(Delimiters.expected(text));
    }
    return known;
  }

  private static @Nullable Character character(@Nullable PlanNode node) {
    String text = node == null ? null : node.text();
    if (text == null || node == null) {
      return null;
    }
    if (text.length() != 1 || text.charAt(0) >= 0x80) {
      node.wrong("expected one ASCII character, found \"" + text + "\"");
      return null;
    }
    return text.charAt(0);
  }

  private List<StepSpec> steps(
      PlanNode root, @Nullable PlanNode node, Map<String, ReferenceSpec> references) {
    List<StepSpec> steps = new ArrayList<>();
    if (node == null) {
      root.wrong("no steps; state at least one, such as - lookup: REFERENCE");
      return steps;
    }
    StepReader reader = new StepReader(folder);
    for (PlanNode item : node.items()) {
      for (StepSpec step : reader.read(item)) {
        requireReference(step.reference(), step.place(), references);
        if (step instanceof LookupSpec lookup) {
          lookup
              .otherwise()
              .forEach(other -> requireReference(other.reference(), other.place(), references));
        }
        steps.add(step);
      }
    }
    return steps;
  }

  private void requireReference(
      @Nullable String name, Optional<Mark> place, Map<String, ReferenceSpec> references) {
    if (name != null && !references.containsKey(name)) {
      mistakes.add(
          place,
          "no reference is called \""
              + name
              + "\"; "
              + NearestName.hint(name, references.keySet()));
    }
  }

  private Settings settings(Map<String, PlanNode> top) {
    PlanNode errors = top.get("errors");
    PlanNode date = top.get("current-date");
    PlanNode measure = top.get("measure");
    return new Settings(
        errors != null && errors.isNullWord(),
        date == null ? null : today(date),
        measure == null ? null : measure.text(),
        hidden,
        top.containsKey("private") ? top.get("private").mark() : Optional.empty());
  }

  private @Nullable LocalDate today(PlanNode node) {
    String text = node.text();
    if (text == null) {
      return null;
    }
    try {
      return text.equals("today") ? today : LocalDate.parse(text);
    } catch (DateTimeException e) {
      node.wrong("expected a date such as 2026-07-20, or today; found \"" + text + "\"");
      return null;
    }
  }
}
