package org.abletwine.lookup;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import org.abletwine.compute.Total;
import org.abletwine.figures.LookupFigures;
import org.abletwine.figures.LookupFigures.Share;
import org.abletwine.match.index.RuleChain;
import org.abletwine.table.carry.Carrier;
import org.jspecify.annotations.Nullable;

/** What a lookup has counted, and its figures. The stages of the lookup count up the fields. */
final class LookupCounts {
  private static final Outcome[] OUTCOMES = Outcome.values();

  private final Lookup lookup;
  private final Source[] sources;
  private final boolean measures;

  /** Rows by outcome. */
  final long[] outcomes = new long[OUTCOMES.length];

  /** The first row of each outcome, 1-based; 0 for none. */
  final long[] firsts = new long[OUTCOMES.length];

  /** The measure's totals by outcome. */
  final Total[] measured = new Total[OUTCOMES.length];

  /** For each attribute, matched rows whose reference does not bring it. */
  final long[] notBrought;

  /** How far away the rows are that were found by a rule that measures it. */
  final DistanceCounts distances = new DistanceCounts();

  /** The sets of rows that a rule has found. */
  final SetsMet sets;

  /** Rows that reached the lookup. */
  long rows;

  /** Rows not asked for because the condition is unknown. */
  long unknown;

  /** Rows that would come out more if every key gave all its rows. */
  long adding;

  /** Rows that came out more. */
  long added;

  /** Unmatched rows that would match a reference row left out by its condition. */
  long wouldMatch;

  /** Matched rows for which one of several that disagree was taken. */
  long picked;

  /** Rows left out because of their outcome. */
  long dropped;

  private final long[] blankParts;

  LookupCounts(Lookup lookup, Source[] sources, boolean measures) {
    this.lookup = lookup;
    this.sources = sources.clone();
    this.measures = measures;
    this.sets = new SetsMet(sources[0].reference);
    this.notBrought = new long[lookup.bring.size()];
    this.blankParts = new long[lookup.key.size()];
    Arrays.setAll(measured, outcome -> new Total());
  }

  /** Counts the key parts that are blank in a row, a bit each. */
  void blankParts(int parts) {
    for (int part = 0; parts != 0 && part < blankParts.length; part++) {
      blankParts[part] += parts >>> part & 1;
    }
  }

  /** Adds what another worker has counted. */
  void merge(LookupCounts other) {
    add(outcomes, other.outcomes);
    for (int outcome = 0; outcome < firsts.length; outcome++) {
      firsts[outcome] = first(firsts[outcome], other.firsts[outcome]);
    }
    add(notBrought, other.notBrought);
    add(blankParts, other.blankParts);
    for (int outcome = 0; outcome < measured.length; outcome++) {
      measured[outcome].merge(other.measured[outcome]);
    }
    distances.merge(other.distances);
    sets.merge(other.sets);
    rows += other.rows;
    unknown += other.unknown;
    adding += other.adding;
    added += other.added;
    wouldMatch += other.wouldMatch;
    picked += other.picked;
    dropped += other.dropped;
  }

  /** Carries what was counted, or takes what another process has counted. */
  void carry(Carrier carrier) {
    carrier.numbers(outcomes);
    carrier.numbers(firsts);
    carrier.numbers(notBrought);
    carrier.numbers(blankParts);
    for (Total total : measured) {
      total.carry(carrier);
    }
    distances.carry(carrier);
    sets.carry(carrier);
    rows = carrier.number(rows);
    unknown = carrier.number(unknown);
    adding = carrier.number(adding);
    added = carrier.number(added);
    wouldMatch = carrier.number(wouldMatch);
    picked = carrier.number(picked);
    dropped = carrier.number(dropped);
  }

  private static long first(long one, long other) {
    return one == 0 || other == 0 ? one + other : Math.min(one, other);
  }

  private long first(Outcome outcome) {
    return firsts[outcome.ordinal()];
  }

  private static void add(long[] to, long[] more) {
    for (int i = 0; i < to.length; i++) {
      to[i] += more[i];
    }
  }

  private long of(Outcome outcome) {
    return outcomes[outcome.ordinal()];
  }

  /** The facts about the reference that these counts are of. */
  ReferenceFacts facts() {
    return ReferenceFacts.of(lookup, sources[0].reference);
  }

  /**
   * @param facts what was found in the reference
   * @param left rows left out as they passed, beside those counted here
   * @param spilled how the reference was divided; null for one in memory
   * @param large that reference; null for one in memory
   */
  LookupFigures figures(
      LookupWorker.Tally tally,
      ReferenceFacts facts,
      long left,
      LookupFigures.@Nullable Spilled spilled,
      @Nullable LargeReference large) {
    boolean ruled = sources[0].reference.finder().rule() != null;
    return new LookupFigures(
        lookup.name,
        lookup.key.stream().map(KeyPart::toString).collect(Collectors.joining(", ")),
        (ruled ? sets.in(facts) : facts).figures(),
        new LookupFigures.Outcomes(
            rows,
            of(Outcome.MATCHED),
            of(Outcome.UNMATCHED),
            of(Outcome.AMBIGUOUS),
            of(Outcome.BLANK_KEY),
            of(Outcome.NOT_ASKED),
            dropped + left,
            wouldMatch,
            new LookupFigures.Firsts(
                first(Outcome.UNMATCHED), first(Outcome.AMBIGUOUS), first(Outcome.BLANK_KEY)),
            lookup.expected().stream().map(Outcome::label).toList()),
        asked(),
        new LookupFigures.Fits(
            ruled,
            lookup.bring.stream().anyMatch(attribute -> attribute.aggregate() != null),
            picked,
            rows + adding,
            added),
        matchedBy(tally.gains()),
        blankShares(),
        tally.misses().figures(),
        distances(),
        tally.watch().found(of(Outcome.MATCHED), facts.read(), large),
        measures(),
        attributes(tally.fills()),
        lookup.key.stream().anyMatch(lookup::hides),
        spilled);
  }

  private LookupFigures.@Nullable Asked asked() {
    return lookup.asked == null ? null : new LookupFigures.Asked(lookup.asked.condition(), unknown);
  }

  private LookupFigures.@Nullable Distances distances() {
    RuleChain rule = sources[0].reference.finder().rule();
    boolean hidden = lookup.key.stream().anyMatch(part -> !part.equal() && lookup.hides(part));
    return rule == null || hidden || distances.rows() == 0
        ? null
        : new LookupFigures.Distances(
            distances.rows(),
            rule.distance(distances.median()),
            rule.distance(distances.greatest()));
  }

  private List<Share> matchedBy(StepGains gains) {
    List<Share> shares = new ArrayList<>(gains.shares());
    for (int further = 1; further < sources.length; further++) {
      shares.add(new Share("otherwise " + sources[further].lookup.name, sources[further].matched));
    }
    return shares;
  }

  private List<Share> blankShares() {
    List<Share> shares = new ArrayList<>();
    for (int part = 0; part < blankParts.length; part++) {
      shares.add(new Share(lookup.key.get(part).ours(), blankParts[part]));
    }
    return shares;
  }

  private List<BigDecimal> measures() {
    List<BigDecimal> totals = new ArrayList<>();
    for (Total total : measured) {
      if (measures) {
        totals.add(total.value());
      }
    }
    return totals;
  }

  private List<LookupFigures.Attribute> attributes(LookupFills fills) {
    int matched = Outcome.MATCHED.ordinal();
    long[] empties = notBrought.clone();
    for (Source from : sources) {
      for (int cell = 0; cell < from.attributeOf.length; cell++) {
        empties[from.attributeOf[cell]] += from.empties[cell];
      }
    }
    List<LookupFigures.Attribute> figures = new ArrayList<>();
    for (int a = 0; a < empties.length; a++) {
      long filled = fills.of(matched, a) == null ? 0 : empties[a];
      for (Outcome outcome : OUTCOMES) {
        if (outcome != Outcome.MATCHED && fills.of(outcome.ordinal(), a) != null) {
          filled += of(outcome);
        }
      }
      figures.add(
          new LookupFigures.Attribute(
              lookup.bring.get(a).as(),
              of(Outcome.UNMATCHED),
              of(Outcome.AMBIGUOUS),
              of(Outcome.BLANK_KEY),
              of(Outcome.NOT_ASKED),
              empties[a],
              filled));
    }
    return figures;
  }
}
