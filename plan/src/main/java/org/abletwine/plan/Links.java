package org.abletwine.plan;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import org.abletwine.derive.DropColumns;
import org.abletwine.lookup.Attribute;
import org.abletwine.lookup.Duplicates;
import org.abletwine.lookup.KeyPart;
import org.abletwine.lookup.Lookup;
import org.abletwine.plan.Plan.LookupSpec;
import org.abletwine.plan.Plan.ReferenceSpec;
import org.abletwine.step.Evaluation;
import org.abletwine.step.Step;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.text.NearestName;
import org.jspecify.annotations.Nullable;

/**
 * Follows links from reference to reference: {@code district_code.region_code.region_name} becomes
 * a lookup for each link, so that each has its own figures and the summary shows where along the
 * chain rows fall away. A linked reference holds each key once, or the run ends and names those
 * that it does not, unless the reference has a rule for duplicates of its own.
 */
final class Links {
  private final Map<String, ReferenceSpec> specs;
  private final Map<String, Table> tables;
  private final Evaluation expressions;
  private final Mistakes mistakes;

  Links(
      Map<String, ReferenceSpec> specs,
      Map<String, Table> tables,
      Evaluation expressions,
      Mistakes mistakes) {
    this.expressions = expressions;
    this.specs = specs;
    this.tables = tables;
    this.mistakes = mistakes;
  }

  /** Tells links from columns that are not there, or to references that are not there. */
  void check() {
    specs.forEach(
        (name, spec) ->
            spec.links()
                .forEach(
                    (column, target) -> {
                      String where = "reference " + name + ", links: ";
                      Table table = tables.get(name);
                      if (table != null && table.schema().indexOf(column) < 0) {
                        mistakes.add(
                            spec.table().mark(),
                            where
                                + table.name()
                                + " has no column \""
                                + column
                                + "\"; "
                                + NearestName.hint(column, table.schema().names()));
                      }
                      if (!specs.containsKey(target)) {
                        mistakes.add(
                            spec.table().mark(),
                            where
                                + "no reference is called \""
                                + target
                                + "\"; "
                                + NearestName.hint(target, specs.keySet()));
                      }
                    }));
  }

  /** Attributes to bring by way of one link: what follows the first dot, and their names. */
  private record Linked(String rest, String as) {}

  /**
   * The steps of a lookup: itself, and those that follow its links.
   *
   * @param step the lookup as written
   * @param compile makes a lookup of one without links; null when it is wrong
   */
  List<Step> follow(LookupSpec step, Function<LookupSpec, @Nullable Lookup> compile) {
    ReferenceSpec spec = specs.get(step.reference());
    Table table = tables.get(step.reference());
    if (spec == null || table == null) {
      return List.of();
    }
    List<String> plain = new ArrayList<>();
    Map<String, List<Linked>> linked = split(step.bring(), table, plain);
    List<Step> steps = new ArrayList<>();
    try {
      Map<String, String> keys = new LinkedHashMap<>();
      List<String> hidden = new ArrayList<>();
      String name = step.name() == null ? step.reference() : step.name();
      for (String column : linked.keySet()) {
        keys.put(column, broughtAs(plain, column, name, hidden));
      }
      Lookup lookup = compile.apply(bringing(step, plain));
      if (lookup == null) {
        return List.of();
      }
      steps.add(lookup);
      for (Map.Entry<String, List<Linked>> link : linked.entrySet()) {
        Set<String> seen = new LinkedHashSet<>(List.of(step.reference()));
        follow(
            new Link(
                name, spec, step.reference(), link.getKey(), keys.get(link.getKey()), step.when()),
            link.getValue(),
            seen,
            steps,
            hidden);
      }
      if (!hidden.isEmpty()) {
        steps.add(new DropColumns(hidden));
      }
    } catch (SettingException e) {
      mistakes.add(step.place(), String.valueOf(e.getMessage()));
    }
    return steps;
  }

  /** One link to follow: from which lookup and reference, by which column, and what holds it. */
  private record Link(
      String lookup,
      ReferenceSpec spec,
      String reference,
      String column,
      @Nullable String ours,
      @Nullable String when) {}

  private void follow(
      Link link, List<Linked> wanted, Set<String> seen, List<Step> steps, List<String> hidden) {
    String target = link.spec().links().get(link.column());
    String where = "lookup " + link.lookup() + ", bring";
    if (target == null) {
      throw new SettingException(
          where
              + ": "
              + link.reference()
              + " has no link for \""
              + link.column()
              + "\"; state it at the reference as links: { "
              + link.column()
              + ": REFERENCE }"
              + (link.spec().links().isEmpty()
                  ? ""
                  : "; " + NearestName.hint(link.column(), link.spec().links().keySet())));
    }
    ReferenceSpec spec = specs.get(target);
    Table table = tables.get(target);
    if (spec == null || table == null) {
      return; // told by check()
    }
    if (!seen.add(target)) {
      throw new SettingException(
          where
              + ": the links go round in a circle: "
              + String.join(" to ", seen)
              + " to "
              + target);
    }
    if (spec.key().size() != 1) {
      throw new SettingException(
          "reference "
              + link.reference()
              + ", links: "
              + target
              + " must state one column as its key to be linked to; state key: COLUMN there");
    }
    String name = link.lookup() + "." + link.column();
    List<String> plain = new ArrayList<>();
    Map<String, List<Linked>> further = new LinkedHashMap<>();
    for (Linked one : wanted) {
      divide(one.rest(), one.as(), table, plain, further);
    }
    Map<String, String> keys = new LinkedHashMap<>();
    for (String column : further.keySet()) {
      keys.put(column, broughtAs(plain, column, name, hidden));
    }
    Lookup lookup =
        Lookup.in(table)
            .named(name)
            .key(new KeyPart(String.valueOf(link.ours()), spec.key().get(0), null))
            .bring(plain.toArray(String[]::new))
            .duplicates(
                spec.duplicates().rule() == Duplicates.Rule.KEEP
                    ? Duplicates.fail()
                    : spec.duplicates());
    lookup = link.when() == null ? lookup : lookup.when(link.when(), expressions);
    steps.add(spec.where() == null ? lookup : lookup.where(spec.where()));
    for (Map.Entry<String, List<Linked>> more : further.entrySet()) {
      follow(
          new Link(name, spec, target, more.getKey(), keys.get(more.getKey()), link.when()),
          more.getValue(),
          new LinkedHashSet<>(seen),
          steps,
          hidden);
    }
  }

  private static Map<String, List<Linked>> split(
      List<String> bring, Table table, List<String> plain) {
    Map<String, List<Linked>> linked = new LinkedHashMap<>();
    for (String text : bring) {
      Attribute attribute = Attribute.parse(text);
      String source = attribute.source();
      if (attribute.aggregate() != null || !isPath(source, table)) {
        plain.add(text);
      } else {
        boolean named = !attribute.as().equals(source);
        String as = named ? attribute.as() : source.substring(source.lastIndexOf('.') + 1);
        divide(source, as, table, plain, linked);
      }
    }
    return linked;
  }

  private static void divide(
      String path, String as, Table table, List<String> plain, Map<String, List<Linked>> linked) {
    if (!isPath(path, table)) {
      plain.add(quoted(path) + " as " + quoted(as));
      return;
    }
    int dot = path.indexOf('.');
    linked
        .computeIfAbsent(path.substring(0, dot), column -> new ArrayList<>())
        .add(new Linked(path.substring(dot + 1), as));
  }

  private static boolean isPath(String source, Table table) {
    return source.indexOf('.') > 0 && table.schema().indexOf(source) < 0;
  }

  /** What the link's column is called once brought; brought under a name of its own if need be. */
  private static String broughtAs(
      List<String> plain, String column, String lookup, List<String> hidden) {
    for (String text : plain) {
      Attribute attribute = Attribute.parse(text);
      if (attribute.aggregate() == null && attribute.source().equals(column)) {
        return attribute.as();
      }
    }
    String as = lookup + "." + column;
    plain.add(quoted(column) + " as " + quoted(as));
    hidden.add(as);
    return as;
  }

  private static String quoted(String name) {
    return '"' + name.replace("\"", "\"\"") + '"';
  }

  private static LookupSpec bringing(LookupSpec step, List<String> bring) {
    return new LookupSpec(
        step.reference(),
        step.name(),
        step.key(),
        step.normalise(),
        bring,
        step.bringAll(),
        step.when(),
        step.several(),
        step.treatments(),
        step.empty(),
        step.mark(),
        step.otherwise(),
        step.place());
  }
}
