package org.abletwine.enrich;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.derive.ArrangeColumns;
import org.abletwine.derive.Coalesce;
import org.abletwine.derive.Compute;
import org.abletwine.derive.DropColumns;
import org.abletwine.figures.RunRecord;
import org.abletwine.lookup.Lookup;
import org.abletwine.step.Evaluation;
import org.abletwine.step.Exceptions;
import org.abletwine.table.SettingException;
import org.abletwine.table.text.Veil;
import org.junit.jupiter.api.Test;

/** What is private stays so through every step, and is the same digest wherever it is met. */
class PrivateColumnsTest {
  private final MemoryTable calls =
      MemoryTable.of(
          "calls", "no,phone,kg", "1,0770,5", "2,0771,6", "3,0799,7", "4,0799,8", "5,,9");
  private final MemoryTable growers =
      MemoryTable.of(
          "growers", "mobile,name,office", "0770,Ash,0140", "0771,Birch,0141", "0771,Beech,0142");

  private Enrichment.Builder enrichment(Set<String> hidden) {
    return Enrichment.of(calls)
        .keepPrivate(hidden)
        .lookup(
            Lookup.in(growers).key("phone", "mobile").bring("name", "office", "mobile as reach"))
        .step(new Coalesce("contact", List.of("office", "reach"), "none", null))
        .step(new Compute("start", "substring(contact from 1 for 2)", Evaluation.STRICT))
        .step(new ArrangeColumns(Map.of("contact", "call"), List.of()))
        .step(new DropColumns(List.of("office")));
  }

  @Test
  void whatIsMadeOfAPrivateColumnIsPrivate() {
    RunRecord run = enrichment(Set.of("office")).build().writeTo(new ListSink());
    assertThat(run.privateColumns()).containsExactly("office", "contact", "start", "call");
    assertThat(run.lookups().get(0).privateKey()).isFalse();
  }

  @Test
  void oneSideOfAKeyThatIsPrivateMakesTheOtherSo() {
    RunRecord ours = enrichment(Set.of("phone")).build().writeTo(new ListSink());
    assertThat(ours.privateColumns()).contains("phone", "reach", "call").doesNotContain("office");
    RunRecord theirs = enrichment(Set.of("mobile")).build().writeTo(new ListSink());
    assertThat(theirs.privateColumns()).contains("phone", "reach", "call");
    assertThat(theirs.lookups().get(0).privateKey()).isTrue();
    assertThat(theirs.lookups().get(0).reference().several().get(0).key())
        .isEqualTo(Veil.digest("0771"));
  }

  @Test
  void rowsThatComeOutHoldTheValues() {
    ListSink sink = new ListSink();
    enrichment(Set.of("phone", "office", "mobile")).build().writeTo(sink);
    assertThat(sink.rows().get(0)).contains("0770", "0140", "01");
  }

  /** Digests are drawn anew for each process, and may hold any digits by chance. */
  private static String withoutDigests(Object told) {
    return told.toString().replaceAll("private-[0-9a-f]{12}", "private");
  }

  @Test
  void whoeverIsToldOfRowsIsToldDigests() {
    for (int workers = 1; workers <= 3; workers++) {
      List<Exceptions.Found> found = new ArrayList<>();
      enrichment(Set.of("phone"))
          .carry(List.of("phone", "no"))
          .exceptions(found::add)
          .workers(workers)
          .build()
          .writeTo(new ListSink());
      String unknown = Veil.digest("0799");
      assertThat(found)
          .extracting(Exceptions.Found::key)
          .containsExactly(Veil.digest("0771"), unknown, unknown, "");
      assertThat(found.get(1).carried()).containsExactly(unknown, "3");
      assertThat(withoutDigests(found)).doesNotContain("077").doesNotContain("0799");
    }
  }

  @Test
  void aTraceShowsDigestsAlsoOfColumnsThatAreGoneAtTheEnd() {
    TracedRow row = enrichment(Set.of("phone", "office")).build().trace(1);
    assertThat(withoutDigests(row)).doesNotContain("0770").doesNotContain("0140");
    assertThat(row.toString())
        .contains(
            "phone=" + Veil.digest("0770"), "label=office =, detail=\"" + Veil.digest("0140"));
  }

  @Test
  void aMeasureMustNotBePrivate() {
    assertThatThrownBy(() -> enrichment(Set.of("kg")).measure("kg").build().writeTo(new ListSink()))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("\"kg\" is private");
  }

  @Test
  void aDigestIsTheSameForTheSameValueOnly() {
    assertThat(Veil.digest("0770")).matches("private-[0-9a-f]{12}").isEqualTo(Veil.digest("0770"));
    assertThat(Veil.digest("0770")).isNotEqualTo(Veil.digest("0771"));
    assertThat(Veil.over(true, null)).isNull();
    assertThat(Veil.over(true, "  ")).isEqualTo("  ");
    assertThat(Veil.over(false, "0770")).isEqualTo("0770");
  }
}
