package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Consumer;
import org.abletwine.compute.RowFilter;
import org.abletwine.key.NormaliseStep;
import org.abletwine.step.Evaluation;
import org.abletwine.step.Progress;
import org.abletwine.step.run.Columns;
import org.abletwine.step.run.Exchanging;
import org.abletwine.step.run.PreparedStep;
import org.abletwine.step.run.RunContext;
import org.abletwine.step.run.RunStep;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Workers;
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
@SuppressWarnings("exports") // prepare and check are for the engine
public final class Lookup implements RunStep {
  final Table reference;
  final String name;
  final List<KeyPart> key;
  final List<NormaliseStep> normalise;
  final List<Attribute> bring;
  final Several several;
  final Map<Outcome, Treatment> treatments;
  final @Nullable String mark;
  final @Nullable RowFilter where;
  final @Nullable Asked asked;
  final Duplicates duplicates;
  final boolean leavesOutUnreadable;
  final List<Lookup> otherwise;

  /** Columns of theirs that are private because they are compared with a private one of ours. */
  final Set<String> hidden;

  private Lookup(LookupDraft draft) {
    this.reference = draft.reference;
    this.name = draft.name;
    this.key = List.copyOf(draft.key);
    this.normalise = List.copyOf(draft.normalise);
    this.bring = List.copyOf(draft.bring);
    this.several = draft.several;
    this.treatments = Collections.unmodifiableMap(new EnumMap<>(draft.treatments));
    this.mark = draft.mark;
    this.where = draft.where;
    this.asked = draft.asked;
    this.duplicates = draft.duplicates;
    this.leavesOutUnreadable = draft.leavesOutUnreadable;
    this.otherwise = List.copyOf(draft.otherwise);
    this.hidden = Set.copyOf(draft.hidden);
  }

  private Lookup with(Consumer<LookupDraft> change) {
    return with(change, reference);
  }

  private Lookup with(Consumer<LookupDraft> change, Table of) {
    LookupDraft draft = new LookupDraft(this, of);
    change.accept(draft);
    return new Lookup(draft);
  }

  /**
   * Begins a lookup.
   *
   * @param reference the table to fetch from
   * @return the lookup, to be given its key and what to bring
   */
  public static Lookup in(Table reference) {
    Objects.requireNonNull(reference, "reference");
    return new Lookup(new LookupDraft(reference));
  }

  /**
   * {@return the lookup with another name}
   *
   * @param newName the name, which messages and figures go by
   */
  public Lookup named(String newName) {
    Objects.requireNonNull(newName, "newName");
    return with(draft -> draft.name = newName);
  }

  /**
   * {@return the lookup with one more key part, the column called the same on both sides}
   *
   * @param both the column, on both sides
   */
  public Lookup key(String both) {
    Objects.requireNonNull(both, "both");
    return key(both, both);
  }

  /**
   * {@return the lookup with one more key part: a column of ours equal to a column of theirs}
   *
   * @param ours the column of the transactions
   * @param theirs the column of the reference
   */
  public Lookup key(String ours, String theirs) {
    Objects.requireNonNull(ours, "ours");
    Objects.requireNonNull(theirs, "theirs");
    return key(new KeyPart(ours, theirs, null));
  }

  /**
   * {@return the lookup with one more key part}
   *
   * @param part the key part
   */
  public Lookup key(KeyPart part) {
    Objects.requireNonNull(part, "part");
    return with(draft -> draft.key.add(part));
  }

  /**
   * {@return the lookup with these normalise steps, in order, in place of {@code trim}}
   *
   * @param steps the steps, in the order they apply
   */
  public Lookup normalise(NormaliseStep... steps) {
    Objects.requireNonNull(steps, "steps");
    return normalise(Arrays.asList(steps));
  }

  /**
   * {@return the lookup with these normalise steps, in order, in place of {@code trim}}
   *
   * @param steps the steps, in the order they apply
   */
  public Lookup normalise(List<NormaliseStep> steps) {
    Objects.requireNonNull(steps, "steps");
    return with(draft -> draft.normalise = steps);
  }

  /**
   * {@return the lookup with more attributes, each {@code name} or {@code name as other}}
   *
   * @param attributes as {@link Attribute#parse} reads them, such as {@code name as grower_name}
   */
  public Lookup bring(String... attributes) {
    Objects.requireNonNull(attributes, "attributes");
    List<Attribute> more = Arrays.stream(attributes).map(Attribute::parse).toList();
    return with(draft -> draft.bring.addAll(more));
  }

  /** {@return the lookup with every column of the reference that is not part of its key so far} */
  public Lookup bringAll() {
    List<String> keys = new ArrayList<>(key.stream().map(KeyPart::theirs).toList());
    key.forEach(part -> keys.add(String.valueOf(part.theirsTo())));
    List<Attribute> more =
        reference.schema().names().stream()
            .filter(column -> !keys.contains(column))
            .map(column -> new Attribute(column, column))
            .toList();
    return with(draft -> draft.bring.addAll(more));
  }

  /**
   * {@return the lookup with this rule for several reference rows that disagree}
   *
   * @param rule the rule
   */
  public Lookup several(Several rule) {
    Objects.requireNonNull(rule, "rule");
    return with(draft -> draft.several = rule);
  }

  /**
   * {@return the lookup with this treatment for rows of an outcome}
   *
   * @param outcome the outcome
   * @param treatment what becomes of such rows
   */
  public Lookup when(Outcome outcome, Treatment treatment) {
    Objects.requireNonNull(outcome, "outcome");
    Objects.requireNonNull(treatment, "treatment");
    if (outcome == Outcome.AMBIGUOUS && treatment.action() == Treatment.Action.EXPECT) {
      throw new IllegalArgumentException("rows that disagree are never what is expected");
    }
    if (outcome == Outcome.NOT_ASKED) {
      throw new IllegalArgumentException("rows that are not asked for are left as they are");
    }
    if (outcome == Outcome.MATCHED && treatment.action() != Treatment.Action.LEAVE) {
      throw new IllegalArgumentException("matched rows are left; only their nulls can be filled");
    }
    return with(draft -> draft.treatments.put(outcome, treatment));
  }

  /** {@return the outcomes that are expected of some rows, and need nobody} */
  Set<Outcome> expected() {
    Set<Outcome> expected = EnumSet.noneOf(Outcome.class);
    treatments.forEach(
        (outcome, treatment) -> {
          if (treatment.action() == Treatment.Action.EXPECT) {
            expected.add(outcome);
          }
        });
    return expected;
  }

  /**
   * {@return the lookup with this treatment for unmatched rows}
   *
   * @param treatment what becomes of such rows
   */
  public Lookup whenUnmatched(Treatment treatment) {
    Objects.requireNonNull(treatment, "treatment");
    return when(Outcome.UNMATCHED, treatment);
  }

  /**
   * {@return the lookup with these values for the attributes of unmatched rows}
   *
   * @param fill the values to put in place of null
   */
  public Lookup whenUnmatched(Fill fill) {
    Objects.requireNonNull(fill, "fill");
    return when(Outcome.UNMATCHED, Treatment.filling(fill));
  }

  /**
   * {@return the lookup with these values for attributes that are null in the reference}
   *
   * @param fill the values to put in place of null
   */
  public Lookup whenEmpty(Fill fill) {
    Objects.requireNonNull(fill, "fill");
    return when(Outcome.MATCHED, Treatment.filling(fill));
  }

  /**
   * {@return the lookup with a column that holds the outcome of each row}
   *
   * @param column the name of the column that takes the outcome
   */
  public Lookup markAs(String column) {
    Objects.requireNonNull(column, "column");
    return with(draft -> draft.mark = column);
  }

  /**
   * {@return the lookup with a condition on the reference: rows that do not pass are left out
   * before anything else, and transactions that would have matched one are counted}
   *
   * @param condition a SQL condition over the columns of the reference
   * @throws org.abletwine.table.SettingException when it cannot be read
   */
  public Lookup where(String condition) {
    Objects.requireNonNull(condition, "condition");
    RowFilter read = RowFilter.parse(condition, reference);
    return with(draft -> draft.where = read);
  }

  /**
   * {@return the lookup for some of the rows only: it is not asked for the others, which are
   * neither matched nor unmatched} A row for which the condition is unknown, because a value it
   * compares is null, is not asked for either; such rows are counted.
   *
   * @param condition a SQL condition over the columns so far
   */
  public Lookup when(String condition) {
    Objects.requireNonNull(condition, "condition");
    return when(condition, Evaluation.STRICT);
  }

  /**
   * As {@link #when(String)}, evaluated as stated.
   *
   * @param condition a SQL condition over the columns so far
   * @param settings how it is evaluated
   * @return the lookup with that condition
   */
  public Lookup when(String condition, Evaluation settings) {
    Objects.requireNonNull(condition, "condition");
    Objects.requireNonNull(settings, "settings");
    return with(draft -> draft.asked = new Asked(condition, settings));
  }

  /**
   * {@return the lookup with a rule for keys that stand on several rows of the reference}
   *
   * @param rule the rule
   */
  public Lookup duplicates(Duplicates rule) {
    Objects.requireNonNull(rule, "rule");
    return with(draft -> draft.duplicates = rule);
  }

  /**
   * {@return the lookup with what becomes of reference rows whose cell cannot be read as what its
   * column is ordered by, such as one bad date: unless stated they end the run} For the column of a
   * {@code newest-by} that is what its declared type says; without one they end the run all the
   * same, since only all values together tell what they are.
   *
   * @param leaveOut whether they are left out, counted and listed
   */
  public Lookup unreadable(boolean leaveOut) {
    return with(draft -> draft.leavesOutUnreadable = leaveOut);
  }

  /**
   * {@return the lookup with one more to try, after those stated before, for rows that are
   * unmatched or have a blank key so far} It brings some or all of the attributes of this one,
   * under the same names; its treatments of rows and its mark are not used.
   *
   * @param other what to try: another reference, or another key
   */
  public Lookup otherwise(Lookup other) {
    Objects.requireNonNull(other, "other");
    return with(draft -> draft.otherwise.add(other));
  }

  /** What becomes of rows with an outcome. */
  Treatment treatment(Outcome outcome) {
    return Objects.requireNonNull(treatments.get(outcome), "each outcome has a treatment");
  }

  /** {@return the name} */
  public String name() {
    return name;
  }

  /** {@return the key parts, in order} */
  public List<KeyPart> keyParts() {
    return key;
  }

  /**
   * {@return the normalise steps of a part of the key, in their order}
   *
   * @param part one of the key's parts
   */
  public List<NormaliseStep> steps(KeyPart part) {
    Objects.requireNonNull(part, "part");
    return List.copyOf(KeyLayout.steps(this, part));
  }

  /** {@return the condition on the rows of the reference, or null} */
  public @Nullable String condition() {
    return where == null ? null : where.toString();
  }

  /** {@return the table to fetch from} */
  public Table reference() {
    return reference;
  }

  /**
   * Loads the reference, and those tried otherwise, for use one record at a time.
   *
   * @return the loaded lookup; safe to share between threads
   * @throws org.abletwine.table.SettingException when the settings do not fit, a key may give
   *     several rows (several: each), or it is for some rows only (when)
   * @throws org.abletwine.table.DataException when a reference cannot be read
   */
  public LoadedLookup load() {
    LookupCheck.loadable(this);
    List<LoadedReference> loaded = new ArrayList<>();
    loaded.add(ReferenceLoader.load(this, Progress.NONE, Workers.usual()));
    otherwise.forEach(
        other -> loaded.add(ReferenceLoader.load(other, Progress.NONE, Workers.usual())));
    return LoadedLookup.of(this, loaded);
  }

  /** Whether values of a column of theirs are shown nowhere but in rows that come out. */
  boolean hides(@Nullable String theirs) {
    return theirs != null && (hidden.contains(theirs) || reference.isPrivate(theirs));
  }

  /** Whether what is brought is private: counts alone are not. */
  boolean hides(Attribute attribute) {
    Aggregate aggregate = attribute.aggregate();
    return hides(attribute.source()) && (aggregate == null || !aggregate.counts());
  }

  /** Whether values of a part of the key are private, on either side. */
  boolean hides(KeyPart part) {
    return hides(part.theirs()) || hides(part.theirsTo());
  }

  /**
   * {@return the same lookup, which knows what of its reference is private because it is compared
   * with a private column of ours}
   *
   * @param columns the columns it is over
   */
  Lookup within(Columns columns) {
    return with(
        draft -> {
          reference.schema().names().stream()
              .filter(columns::keepsPrivate)
              .forEach(draft.hidden::add);
          for (KeyPart part : key) {
            if (columns.isPrivate(part.ours())) {
              draft.hidden.add(part.theirs());
              if (part.theirsTo() != null) {
                draft.hidden.add(part.theirsTo());
              }
            }
          }
          draft.otherwise.replaceAll(other -> other.within(columns));
        });
  }

  @Override
  public PreparedStep prepare(Columns columns, RunContext context) {
    return new LookupPreparation(within(columns), columns, context).prepared();
  }

  /**
   * {@return the same lookup in a part of its reference, which leaves all rows where they are: what
   * becomes of them is decided once all parts have been asked}
   *
   * @param part the part
   */
  Lookup quietIn(Table part) {
    return with(
        draft -> {
          draft.mark = null;
          draft.treatments.replaceAll(
              (outcome, treatment) ->
                  treatment.action() == Treatment.Action.DROP
                          || treatment.action() == Treatment.Action.FAIL
                      ? Treatment.leave()
                      : treatment);
        },
        part);
  }

  /**
   * {@return the same lookup in a part of its reference}
   *
   * @param part the part
   */
  Lookup over(Table part) {
    return with(draft -> {}, part);
  }

  /** {@return what becomes of rows by their outcome} */
  public Map<Outcome, Treatment> treatments() {
    return treatments;
  }

  @Override
  public @Nullable Exchanging exchanging() {
    return KeyLayout.of(this).equal().length == 0 ? null : new LookupExchange(this);
  }

  @Override
  public List<Table> references() {
    List<Table> all = new ArrayList<>(List.of(reference));
    otherwise.forEach(other -> all.addAll(other.references()));
    return all;
  }

  /** This lookup, and after it those tried otherwise. */
  List<Lookup> tried() {
    List<Lookup> all = new ArrayList<>();
    all.add(this);
    all.addAll(otherwise);
    return all;
  }

  @Override
  public String title() {
    return "lookup " + name;
  }

  @Override
  public void check(Columns columns) {
    LookupCheck.against(within(columns), columns);
  }

  @Override
  public String toString() {
    return "Lookup[" + name + " by " + key + "]";
  }
}
