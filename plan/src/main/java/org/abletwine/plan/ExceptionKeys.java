package org.abletwine.plan;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import org.abletwine.lookup.Lookup;
import org.abletwine.match.NearMiss;
import org.abletwine.plan.GroupedKeys.Group;
import org.abletwine.plan.GroupedKeys.Keys;
import org.abletwine.plan.GroupedKeys.Of;
import org.abletwine.table.ColumnType;
import org.abletwine.table.batch.BatchSink;
import org.abletwine.table.output.Output;
import org.jspecify.annotations.Nullable;

/**
 * Writes what needs attention a line for each key: what its rows come to, the first of them, and of
 * an unmatched key what is near. The largest come first.
 */
final class ExceptionKeys implements ExceptionList {
  private static final List<String> NUMBERS = List.of("rows", "first_row", "measure", "likeness");

  private final Map<String, Lookup> lookups;
  private final Function<Lookup, ReferenceKeys> keysOf;
  private final int carried;
  private final ListedRows rows;
  private final Output output;
  private final GroupedKeys groups = new GroupedKeys();

  /**
   * @param sink takes the lines; not started yet
   * @param carry columns of the transactions that go with the first row of each key
   * @param lookups the lookups, by name
   * @param keysOf gives the keys that a lookup can find
   */
  ExceptionKeys(
      BatchSink sink,
      List<String> carry,
      Map<String, Lookup> lookups,
      Function<Lookup, ReferenceKeys> keysOf) {
    this.lookups = lookups;
    this.keysOf = keysOf;
    this.carried = carry.size();
    List<String> names =
        new ArrayList<>(
            List.of("step", "kind", "table", "key", "rows", "measure", "near", "likeness"));
    names.addAll(List.of("judged", "detail", "first_row"));
    names.addAll(carry);
    List<@Nullable ColumnType> types = new ArrayList<>();
    for (int i = 0; i < names.size(); i++) {
      boolean number = i < names.size() - carried && NUMBERS.contains(names.get(i));
      types.add(number ? ColumnType.of(ColumnType.Kind.NUMBER) : null);
    }
    rows = new ListedRows(sink, types, names);
    output = rows.output();
  }

  @Override
  public void found(Found found) {
    groups.found(found);
  }

  @Override
  public void finish(Set<String> hidden) {
    List<Line> lines = new ArrayList<>();
    groups.forEach((of, keys) -> lines.addAll(lines(of, keys, hidden.contains(of.step()))));
    lines.sort((one, other) -> Group.largestFirst(one.group(), other.group()));
    lines.forEach(this::write);
  }

  /** A key that has a line, and what is near. */
  private record Line(Of of, Group group, boolean others, String judged, @Nullable NearMiss near) {}

  private List<Line> lines(Of of, Keys keys, boolean hidden) {
    Lookup lookup = lookups.get(of.step());
    boolean looks =
        of.kind().equals("unmatched") && !hidden && lookup != null && ReferenceKeys.canTell(lookup);
    List<Group> all = List.copyOf(keys.byKey().values());
    List<@Nullable NearMiss> near =
        looks && lookup != null
            ? keysOf.apply(lookup).nearest(all.stream().map(group -> group.first().key()).toList())
            : List.of();
    List<Line> lines = new ArrayList<>();
    for (int i = 0; i < all.size(); i++) {
      NearMiss miss = looks ? near.get(i) : null;
      lines.add(new Line(of, all.get(i), false, looks ? ReferenceKeys.judged(miss) : "", miss));
    }
    if (keys.others() != null) {
      lines.add(new Line(of, keys.others(), true, "", null));
    }
    return lines;
  }

  private void write(Line line) {
    Group group = line.group();
    NearMiss near = line.near();
    List<@Nullable String> cells = new ArrayList<>();
    cells.add(ExceptionFile.cell(line.of().step()));
    cells.add(line.of().kind());
    cells.add(ExceptionFile.cell(line.of().table()));
    cells.add(line.others() ? null : ExceptionFile.cell(group.first().key()));
    BigDecimal measure = group.stake().measure();
    cells.add(Long.toString(group.stake().rows()));
    cells.add(measure == null ? null : measure.toPlainString());
    cells.add(near == null ? null : near.key());
    cells.add(near == null ? null : near.likenessText());
    cells.add(ExceptionFile.cell(line.judged()));
    cells.add(
        line.others()
            ? "the rows of all keys beyond the first " + GroupedKeys.MOST_KEYS
            : ExceptionFile.cell(group.first().detail()));
    cells.add(group.first().row() == 0 ? null : Long.toString(group.first().row()));
    for (int i = 0; i < carried; i++) {
      cells.add(i < group.first().carried().size() ? group.first().carried().get(i) : null);
    }
    rows.row(cells.toArray(new @Nullable String[0]));
  }

  @Override
  public long rows() {
    return rows.rows();
  }

  @Override
  public String told() {
    return rows.rows() + " keys that need attention";
  }

  @Override
  public Output output() {
    return output;
  }
}
