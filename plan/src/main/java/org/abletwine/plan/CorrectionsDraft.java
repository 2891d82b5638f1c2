package org.abletwine.plan;

import java.math.BigDecimal;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Stream;
import org.abletwine.figures.LookupFigures;
import org.abletwine.figures.RunRecord;
import org.abletwine.lookup.KeyPart;
import org.abletwine.lookup.Lookup;
import org.abletwine.match.NearMiss;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.Tables;
import org.abletwine.table.batch.BatchSink;
import org.abletwine.table.output.Output;
import org.abletwine.table.text.DecimalText;
import org.jspecify.annotations.Nullable;

/**
 * The draft of corrections a run proposes: every unmatched key of one part, with the reference key
 * that a person would take for the one meant, for them to accept or not. Those that stand out come
 * first, then the largest. Lines of an earlier draft that were decided are kept as they are, and
 * their keys are not proposed again; where the plan reads the draft, lines that stood out are kept
 * too once their key is unmatched no more, since they may be the reason.
 */
final class CorrectionsDraft {
  private static final String[] HEADER = {
    "column", "written", "meant", "likeness", "judged", "rows", "measure", "accept"
  };
  private static final List<@Nullable ColumnType> TYPES =
      Stream.of(HEADER).map(CorrectionsDraft::type).toList();
  private static final int WRITTEN = 1;
  private static final int MEANT = 2;
  private static final int JUDGED = 4;
  private static final int ROWS = 5;
  private static final int MEASURE = 6;
  private static final int ACCEPT = 7;
  private static final String CLEAR = "clear";

  private final @Nullable Path target;
  private final Map<String, Lookup> lookups;
  private final boolean used;
  private final Function<Lookup, ReferenceKeys> keysOf;
  private final AttentionKeys unmatched;

  /**
   * @param target the draft; null when it is written nowhere
   * @param lookups the lookups by name; those with keys of several parts or with a rule are passed
   *     over
   * @param used whether the plan reads the draft, so that a line may be why its key is found
   * @param unmatched the keys that were not found, all of them once the draft is written
   * @param keysOf gives the keys that a lookup can find
   */
  CorrectionsDraft(
      @Nullable Path target,
      Map<String, Lookup> lookups,
      boolean used,
      AttentionKeys unmatched,
      Function<Lookup, ReferenceKeys> keysOf) {
    this.used = used;
    this.unmatched = unmatched;
    this.keysOf = keysOf;
    this.target = target;
    this.lookups = new HashMap<>(lookups);
    // What is found by a pattern or within a band is not misspelt.
    this.lookups
        .values()
        .removeIf(lookup -> lookup.keyParts().size() != 1 || !lookup.keyParts().get(0).equal());
  }

  /**
   * Makes the draft of all that was found. Of a private column nothing is proposed, and nothing
   * told; lines of the draft before, which a person wrote, stay.
   *
   * @param figures the figures of the run
   */
  Draft draft(RunRecord figures) {
    figures.lookups().stream()
        .filter(LookupFigures::privateKey)
        .forEach(lookup -> lookups.remove(lookup.name()));
    Set<String> hidden = Set.copyOf(figures.privateColumns());
    List<String[]> proposed = new ArrayList<>();
    Doubtful doubtful = new Doubtful();
    List<String[]> before = before();
    Set<String> decided = new LinkedHashSet<>();
    before.stream().filter(CorrectionsDraft::decided).forEach(line -> decided.add(name(line)));
    for (Map.Entry<String, Lookup> one : lookups.entrySet()) {
      Map<String, Stake> keys = unmatched.unmatched(one.getKey());
      propose(one.getValue(), keys, decided, before, proposed, doubtful);
    }
    proposed.sort(CorrectionsDraft::clearestFirst);
    Set<String> again = new LinkedHashSet<>();
    proposed.forEach(line -> again.add(name(line)));
    List<String[]> kept =
        before.stream()
            .filter(
                line ->
                    decided(line)
                        || used && line[JUDGED].equals(CLEAR) && !again.contains(name(line)))
            .toList();
    long clear = proposed.stream().filter(line -> line[JUDGED].equals(CLEAR)).count();
    return new Draft(kept, proposed, clear, doubtful.told(), hidden);
  }

  private static @Nullable ColumnType type(String column) {
    boolean number = Set.of("likeness", "rows", "measure").contains(column);
    return number ? ColumnType.of(ColumnType.Kind.NUMBER) : null;
  }

  private static String name(String[] line) {
    return line[0] + "\n" + line[WRITTEN];
  }

  private static boolean decided(String[] line) {
    return !line[ACCEPT].isBlank();
  }

  private static int clearestFirst(String[] one, String[] other) {
    int clearer = Boolean.compare(other[JUDGED].equals(CLEAR), one[JUDGED].equals(CLEAR));
    int larger = clearer != 0 ? clearer : measure(other).compareTo(measure(one));
    return larger != 0
        ? larger
        : Long.compare(Long.parseLong(other[ROWS]), Long.parseLong(one[ROWS]));
  }

  private static BigDecimal measure(String[] line) {
    BigDecimal measure = DecimalText.read(line[MEASURE]);
    return measure == null ? BigDecimal.ZERO : measure;
  }

  /**
   * A draft.
   *
   * @param kept lines of the draft before
   * @param proposed new lines
   * @param clear how many of them stand out
   * @param doubtful what is wrong with accepted lines, in words; empty for nothing
   * @param hidden columns that are private
   */
  record Draft(
      List<String[]> kept,
      List<String[]> proposed,
      long clear,
      String doubtful,
      Set<String> hidden) {

    /** Writes it beside its target; the caller commits it. */
    Output write(Path target) {
      ListedRows rows = new ListedRows(BatchSink.of(Tables.sink(target)), TYPES, List.of(HEADER));
      Stream.concat(kept.stream(), proposed.stream())
          .map(line -> Stream.of(line).map(ExceptionFile::cell).toArray(String[]::new))
          .forEach(rows::row);
      return rows.output();
    }

    /** What a report shows of it: proposals first, for a person to decide. */
    ReportMaterial.Corrections told(String file) {
      List<List<String>> lines = new ArrayList<>();
      proposed.forEach(line -> lines.add(List.of(line)));
      kept.stream()
          .filter(line -> !hidden.contains(line[0]))
          .forEach(line -> lines.add(List.of(line)));
      int most = Math.min(lines.size(), ReportMaterial.MOST_CORRECTIONS);
      return new ReportMaterial.Corrections(
          List.of(HEADER), lines.subList(0, most), lines.size(), file);
    }
  }

  /** Accepted lines that mean what the reference has not. */
  private static final class Doubtful {
    private long lines;
    private String first = "";

    void add(String[] line, Lookup lookup) {
      if (lines++ == 0) {
        first = "\"" + line[MEANT] + "\" of " + lookup.reference().name();
      }
    }

    String told() {
      return lines == 0
          ? ""
          : lines
              + (lines == 1 ? " accepted line means" : " accepted lines mean")
              + " what the reference has not, such as "
              + first;
    }
  }

  private void propose(
      Lookup lookup,
      Map<String, Stake> keys,
      Set<String> decided,
      List<String[]> before,
      List<String[]> proposed,
      Doubtful doubtful) {
    KeyPart part = lookup.keyParts().get(0);
    String column = part.ours();
    List<String> wanted =
        keys.keySet().stream().filter(key -> !decided.contains(column + "\n" + key)).toList();
    List<String[]> accepted =
        before.stream()
            .filter(line -> line[0].equals(column) && decided(line))
            .filter(line -> !line[ACCEPT].equalsIgnoreCase("no"))
            .toList();
    if (wanted.isEmpty() && accepted.isEmpty()) {
      return;
    }
    ReferenceKeys reference = keysOf.apply(lookup);
    accepted.stream()
        .filter(line -> !reference.has(line[MEANT]))
        .forEach(line -> doubtful.add(line, lookup));
    List<@Nullable NearMiss> near = wanted.isEmpty() ? List.of() : reference.nearest(wanted);
    for (int i = 0; i < wanted.size(); i++) {
      Stake stake = Objects.requireNonNull(keys.get(wanted.get(i)));
      BigDecimal total = stake.measure();
      NearMiss miss = near.get(i);
      proposed.add(
          new String[] {
            column,
            wanted.get(i),
            miss == null ? "" : miss.key(),
            miss == null ? "" : miss.likenessText(),
            ReferenceKeys.judged(miss),
            Long.toString(stake.rows()),
            total == null ? "" : total.toPlainString(),
            ""
          });
    }
  }

  /** Lines of an earlier draft that a person has decided, or that stand out. */
  private List<String[]> before() {
    List<String[]> lines = new ArrayList<>();
    if (target == null || !Files.exists(target)) {
      return lines;
    }
    Table before = Tables.file(target);
    int[] columns = new int[HEADER.length];
    for (int i = 0; i < HEADER.length; i++) {
      columns[i] = before.schema().indexOf(HEADER[i]);
      if (columns[i] < 0) {
        throw new SettingException(
            "outputs, corrections: "
                + target
                + " is there already and is no draft (it has no column "
                + HEADER[i]
                + "); name another file");
      }
    }
    ReferenceKeys.forEachRow(
        before,
        null,
        (batch, row) -> {
          String[] line = new String[HEADER.length];
          for (int i = 0; i < line.length; i++) {
            @Nullable String cell = batch.column(columns[i]).get(row);
            line[i] = cell == null ? "" : cell;
          }
          if (decided(line) || line[JUDGED].equals(CLEAR)) {
            lines.add(line);
          }
        });
    return lines;
  }

  /** Refuses early what would only fail at the end. */
  void check() {
    try {
      before();
    } catch (DataException e) {
      throw new SettingException("outputs, corrections: " + e.getMessage());
    }
  }
}
