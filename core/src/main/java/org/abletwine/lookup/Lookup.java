package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import org.abletwine.expression.Condition;
import org.abletwine.key.Normalise;
import org.abletwine.key.NormaliseStep;
import org.abletwine.step.Columns;
import org.abletwine.step.Progress;
import org.abletwine.step.RunContext;
import org.abletwine.step.Step;
import org.abletwine.step.StepRunner;
import org.abletwine.table.Batch;
import org.abletwine.table.CellVector;
import org.abletwine.table.Table;
import org.jspecify.annotations.Nullable;

/**
 * One lookup: which reference, by which key, which attributes to bring, and what to do with rows
 * that do not match cleanly. Immutable: every setting returns a new lookup. Safe to share between
 * threads.
 *
 * <p>Defaults: {@code trim} on both sides of every key part; rows of every outcome are left, their
 * attributes null; several reference rows that disagree are flagged; no column marks the outcome;
 * the lookup is called after its reference.
 */
public final class Lookup implements Step {
  final Table reference;
  final String name;
  final List<KeyPart> key;
  final List<NormaliseStep> normalise;
  final List<Attribute> bring;
  final Several several;
  final Map<Outcome, Treatment> treatments;
  final @Nullable String mark;
  final @Nullable Condition where;
  final Duplicates duplicates;
  final List<Lookup> otherwise;

  private Lookup(
      Table reference,
      String name,
      List<KeyPart> key,
      List<NormaliseStep> normalise,
      List<Attribute> bring,
      Several several,
      Map<Outcome, Treatment> treatments,
      @Nullable String mark,
      @Nullable Condition where,
      Duplicates duplicates,
      List<Lookup> otherwise) {
    this.reference = reference;
    this.name = name;
    this.key = List.copyOf(key);
    this.normalise = List.copyOf(normalise);
    this.bring = List.copyOf(bring);
    this.several = several;
    this.treatments = Collections.unmodifiableMap(new EnumMap<>(treatments));
    this.mark = mark;
    this.where = where;
    this.duplicates = duplicates;
    this.otherwise = List.copyOf(otherwise);
  }

  /**
   * Begins a lookup.
   *
   * @param reference the table to fetch from
   */
  public static Lookup in(Table reference) {
    Map<Outcome, Treatment> treatments = new EnumMap<>(Outcome.class);
    for (Outcome outcome : Outcome.values()) {
      treatments.put(outcome, Treatment.leave());
    }
    return new Lookup(
        reference,
        reference.name(),
        List.of(),
        List.of(Normalise.trim()),
        List.of(),
        Several.FLAG,
        treatments,
        null,
        null,
        Duplicates.keep(),
        List.of());
  }

  /** Returns the lookup with another name. */
  public Lookup named(String newName) {
    return new Lookup(
        reference,
        newName,
        key,
        normalise,
        bring,
        several,
        treatments,
        mark,
        where,
        duplicates,
        otherwise);
  }

  /** Returns the lookup with one more key part, the column called the same on both sides. */
  public Lookup key(String both) {
    return key(both, both);
  }

  /** Returns the lookup with one more key part: a column of ours equal to a column of theirs. */
  public Lookup key(String ours, String theirs) {
    return key(new KeyPart(ours, theirs, null));
  }

  /** Returns the lookup with one more key part. */
  public Lookup key(KeyPart part) {
    List<KeyPart> parts = new ArrayList<>(key);
    parts.add(part);
    return new Lookup(
        reference,
        name,
        parts,
        normalise,
        bring,
        several,
        treatments,
        mark,
        where,
        duplicates,
        otherwise);
  }

  /** Returns the lookup with these normalise steps, in order, in place of {@code trim}. */
  public Lookup normalise(NormaliseStep... steps) {
    return normalise(Arrays.asList(steps));
  }

  /** Returns the lookup with these normalise steps, in order, in place of {@code trim}. */
  public Lookup normalise(List<NormaliseStep> steps) {
    return new Lookup(
        reference,
        name,
        key,
        steps,
        bring,
        several,
        treatments,
        mark,
        where,
        duplicates,
        otherwise);
  }

  /** Returns the lookup with more attributes, each {@code name} or {@code name as other}. */
  public Lookup bring(String... attributes) {
    List<Attribute> all = new ArrayList<>(bring);
    for (String attribute : attributes) {
      all.add(Attribute.parse(attribute));
    }
    return new Lookup(
        reference,
        name,
        key,
        normalise,
        all,
        several,
        treatments,
        mark,
        where,
        duplicates,
        otherwise);
  }

  /** Returns the lookup with every column of the reference that is not part of its key so far. */
  public Lookup bringAll() {
    List<String> keys = new ArrayList<>(key.stream().map(KeyPart::theirs).toList());
    key.forEach(part -> keys.add(String.valueOf(part.theirsTo())));
    List<Attribute> all = new ArrayList<>(bring);
    reference.schema().names().stream()
        .filter(column -> !keys.contains(column))
        .forEach(column -> all.add(new Attribute(column, column)));
    return new Lookup(
        reference,
        name,
        key,
        normalise,
        all,
        several,
        treatments,
        mark,
        where,
        duplicates,
        otherwise);
  }

  /** Returns the lookup with this rule for several reference rows that disagree. */
  public Lookup several(Several rule) {
    return new Lookup(
        reference,
        name,
        key,
        normalise,
        bring,
        rule,
        treatments,
        mark,
        where,
        duplicates,
        otherwise);
  }

  /** Returns the lookup with this treatment for rows of an outcome. */
  public Lookup when(Outcome outcome, Treatment treatment) {
    if (outcome == Outcome.MATCHED && treatment.action() != Treatment.Action.LEAVE) {
      throw new IllegalArgumentException("matched rows are left; only their nulls can be filled");
    }
    Map<Outcome, Treatment> changed = new EnumMap<>(treatments);
    changed.put(outcome, treatment);
    return new Lookup(
        reference,
        name,
        key,
        normalise,
        bring,
        several,
        changed,
        mark,
        where,
        duplicates,
        otherwise);
  }

  /** Returns the lookup with this treatment for unmatched rows. */
  public Lookup whenUnmatched(Treatment treatment) {
    return when(Outcome.UNMATCHED, treatment);
  }

  /** Returns the lookup with these values for the attributes of unmatched rows. */
  public Lookup whenUnmatched(Fill fill) {
    return when(Outcome.UNMATCHED, Treatment.filling(fill));
  }

  /** Returns the lookup with these values for attributes that are null in the reference. */
  public Lookup whenEmpty(Fill fill) {
    return when(Outcome.MATCHED, Treatment.filling(fill));
  }

  /** Returns the lookup with a column that holds the outcome of each row. */
  public Lookup markAs(String column) {
    return new Lookup(
        reference,
        name,
        key,
        normalise,
        bring,
        several,
        treatments,
        column,
        where,
        duplicates,
        otherwise);
  }

  /**
   * Returns the lookup with a condition on the reference: rows that do not pass are left out before
   * anything else, and transactions that would have matched one are counted.
   *
   * @param condition a SQL condition over the columns of the reference
   * @throws org.abletwine.table.SettingException when it cannot be read
   */
  public Lookup where(String condition) {
    Condition read = Condition.parse(condition, reference.schema(), reference.name());
    return new Lookup(
        reference,
        name,
        key,
        normalise,
        bring,
        several,
        treatments,
        mark,
        read,
        duplicates,
        otherwise);
  }

  /** Returns the lookup with a rule for keys that stand on several rows of the reference. */
  public Lookup duplicates(Duplicates rule) {
    return new Lookup(
        reference, name, key, normalise, bring, several, treatments, mark, where, rule, otherwise);
  }

  /**
   * Returns the lookup with one more to try, after those stated before, for rows that are unmatched
   * or have a blank key so far. It brings some or all of the attributes of this one, under the same
   * names; its treatments of rows and its mark are not used.
   *
   * @param other what to try: another reference, or another key
   */
  public Lookup otherwise(Lookup other) {
    List<Lookup> all = new ArrayList<>(otherwise);
    all.add(other);
    return new Lookup(
        reference, name, key, normalise, bring, several, treatments, mark, where, duplicates, all);
  }

  /** Returns the name. */
  public String name() {
    return name;
  }

  /** Returns the key parts, in order. */
  public List<KeyPart> keyParts() {
    return key;
  }

  /**
   * Whether the condition on the reference lets a row pass.
   *
   * @param batch rows of the reference
   * @param row one of them, 0-based
   */
  public boolean passes(Batch batch, int row) {
    if (where == null) {
      return true;
    }
    CellVector[] cells = new CellVector[batch.baseColumns()];
    where.columns().forEach(column -> cells[column] = batch.column(column));
    return where.passes(cells, row);
  }

  /** Returns the table to fetch from. */
  public Table reference() {
    return reference;
  }

  /**
   * Loads the reference, for use one record at a time.
   *
   * @return the loaded lookup; safe to share between threads
   * @throws org.abletwine.table.DataException when the reference cannot be read
   */
  public LoadedLookup load() {
    LookupCheck.settings(this);
    return new LoadedLookup(this, ReferenceLoader.load(this, Progress.NONE));
  }

  @Override
  public StepRunner prepare(Columns columns, RunContext context) {
    List<int[]> keyColumns = LookupCheck.against(this, columns);
    List<String> names = bring.stream().map(Attribute::as).toList();
    LookupRunner.Fills fills = LookupRunner.Fills.of(this);
    @Nullable String[] emptyFills = fills.byOutcome()[Outcome.MATCHED.ordinal()];
    Source[] sources = new Source[1 + otherwise.size()];
    for (int i = 0; i < sources.length; i++) {
      Lookup from = i == 0 ? this : otherwise.get(i - 1);
      LoadedReference loaded = ReferenceLoader.load(from, context.progress());
      sources[i] = new Source(from, loaded, keyColumns.get(i), names, emptyFills);
    }
    return new LookupRunner(
        this,
        sources,
        keyColumns.get(0),
        fills,
        new LookupRunner.Telling(
            columns.tableName(), context.exceptions(), context.trace(), columns.measure()));
  }

  @Override
  public String title() {
    return "lookup " + name;
  }

  @Override
  public void check(Columns columns) {
    LookupCheck.against(this, columns);
  }

  @Override
  public String toString() {
    return "Lookup[" + name + " by " + key + "]";
  }
}
