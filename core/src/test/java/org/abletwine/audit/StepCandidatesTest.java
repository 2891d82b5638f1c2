package org.abletwine.audit;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.abletwine.MemoryTable;
import org.abletwine.audit.OverlapAudit.Gain;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Steps that are found in the keys: ends, lengths, dates; what they win and what they cost. */
class StepCandidatesTest {
  private static OverlapAudit.Report report(String ours, String theirs, String... fixed) {
    return OverlapAudit.compare(
        table(ours), new int[] {0}, table(theirs), new int[] {0}, -1, List.of(fixed), 5);
  }

  private static MemoryTable table(String values) {
    return MemoryTable.of("t", "k,n", (values.replace(";", ",1;") + ",1").split(";"));
  }

  @ParameterizedTest
  @CsvSource({
    "GR12;GR13;14, 12;13;14, drop-prefix=GR, 2, 0",
    "12;13, GR-12;GR-13, drop-prefix=GR-, 2, 0",
    "12/W, 12;13, drop-suffix=/W, 1, 0",
    "12ha;13ha, 12;13, drop-suffix=ha, 2, 0",
    "1.7.2026;20.7.2026, 2026-07-01;2026-07-20, as-date=d.M.yyyy, 2, 0",
    "2026-07-01, 01/07/2026, as-date=d/M/yyyy, 1, 0",
    "20260701, 1 Jul 2026, as-date=yyyyMMdd | d MMM yyyy, 1, 0",
    "ABCD;ABCE, XB;XC, first=2, 0, 0",
    "ABxx;ACyy, AB;AC, first=2, 2, 0",
    "xxAB;yyAC, zAB;AB;AC, last=2, 2, 1",
    "0012;0013, 12;13, drop-leading-zeros, 2, 0"
  })
  void areFoundInTheKeys(String ours, String theirs, String step, long rows, long equal) {
    List<Gain> gains = report(ours, theirs).alone();
    if (rows == 0) {
      assertThat(gains).extracting(Gain::step).doesNotContain(step);
      return;
    }
    boolean lossy = step.startsWith("first") || step.startsWith("last");
    assertThat(gains).contains(new Gain(step, rows, equal, lossy));
  }

  /**
   * An end at a single key may be chance, unless a sign parts it; zeros have a step of their own.
   */
  @Test
  void chanceIsNotOffered() {
    assertThat(report("x12;20", "12;13").alone())
        .extracting(Gain::step)
        .containsExactly("digits-only");
    assertThat(report("0012;0013", "12;13").alone())
        .extracting(Gain::step)
        .noneMatch(step -> step.startsWith("drop-prefix"));
    assertThat(report("aa1;bb2;cc3", "ab1;bc2;ca3").alone())
        .as("that would make most keys of theirs equal to others")
        .extracting(Gain::step)
        .doesNotContain("first=1", "last=1");
  }

  @Test
  void givenStepsComeFirstAndFurtherOnesWinWhatIsLeft() {
    OverlapAudit.Report report =
        report("GR12;gr13;14", "12;13;14", "ignore-case", "drop-prefix=gr");
    assertThat(report.matchedRows()).isEqualTo(3);
    assertThat(report.unmatchedKeys()).isZero();
  }
}
