package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.ObjectInputStream;
import java.io.ObjectOutputStream;
import java.math.BigDecimal;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.enrich.Enrichment;
import org.abletwine.figures.LookupFigures;
import org.abletwine.figures.RunRecord;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;
import org.junit.jupiter.api.Test;

class LookupTest {
  private final MemoryTable tickets =
      MemoryTable.of(
          "tickets.csv", "ticket,grower", "1,G1", "2, G2 ", "3,G9", "4,", "5,G3", "6,G4", "7,G1");
  private final MemoryTable growers =
      MemoryTable.of(
          "growers.csv",
          "grower_no,name,district",
          "G1,Thistle Bank,D1",
          "G2,Merrow Ford,",
          "G3,Osier Lane,D3",
          "G3,Osier Lane,D4",
          "G4,Calder Top,D4",
          "G4,Calder Top,D4",
          ",Nobody,D5");

  private Lookup lookup() {
    return Lookup.in(growers).key("grower", "grower_no").bring("name as grower_name", "district");
  }

  private RunRecord run(Lookup lookup, ListSink sink) {
    return Enrichment.of(tickets).lookup(lookup).build().writeTo(sink);
  }

  @Test
  void eachOutcomeIsToldApart() {
    ListSink sink = new ListSink();
    RunRecord record = run(lookup().markAs("outcome"), sink);

    assertThat(sink.names())
        .containsExactly("ticket", "grower", "grower_name", "district", "outcome");
    assertThat(sink.column("outcome"))
        .containsExactly(
            "matched", "matched", "unmatched", "blank-key", "ambiguous", "matched", "matched");
    assertThat(sink.column("district")).containsExactly("D1", null, null, null, null, "D4", "D1");
    assertThat(sink.column("grower")).as("untouched").contains(" G2 ");
    LookupFigures figures = record.lookups().get(0);
    assertThat(figures.attributes().get(1).empty()).isEqualTo(1);
    assertThat(figures.attributes().get(1).nulls()).isEqualTo(4);
    assertThat(figures.reference().severalKeys()).isEqualTo(2);
    assertThat(figures.reference().conflictingKeys()).isEqualTo(1);
    assertThat(figures.reference().blankKeys()).isEqualTo(1);
    assertThat(sink.committed()).isTrue();
  }

  @Test
  void figuresAreThoseOfTheRows() {
    MemoryTable ours =
        MemoryTable.of(
            "ours", "k,kg", "a,10", "b,20.5", "zz,5", ",7", "c,1", "a,", "d,2", "c,4", "yy,3");
    MemoryTable theirs =
        MemoryTable.of(
            "theirs", "k,v,w", "a,x,1", "b,x,", "c,x,2", "c,y,2", "zz,x,3", "e,z,4", "e,z,5");
    MemoryTable more = MemoryTable.of("more", "k,v", "d,x", "a,other");
    Lookup lookup =
        Lookup.in(theirs)
            .key("k")
            .bring("v", "w")
            .where("w IS NULL OR w <> '3'")
            .whenUnmatched(Fill.fill("w", "0"))
            .otherwise(Lookup.in(more).key("k").bring("v").named("more"))
            .markAs("outcome");
    ListSink sink = new ListSink();
    LookupFigures figures =
        Enrichment.of(ours).lookup(lookup).measure("kg").build().writeTo(sink).lookups().get(0);
    assertThat(sink.column("outcome"))
        .containsExactly(
            "matched",
            "matched",
            "unmatched",
            "blank-key",
            "ambiguous",
            "matched",
            "matched: more",
            "ambiguous",
            "unmatched");
    assertThat(sink.column("v")).containsExactly("x", "x", null, null, null, "x", "x", null, null);
    assertThat(sink.column("w")).containsExactly("1", null, "0", null, null, "1", null, null, "0");
    assertThat(figures.outcomes())
        .isEqualTo(
            new LookupFigures.Outcomes(
                9, 4, 2, 2, 1, 0, 0, 1, new LookupFigures.Firsts(3, 5, 4), List.of()));
    assertThat(figures.measures())
        .containsExactly(
            new BigDecimal("32.5"),
            new BigDecimal("8"),
            new BigDecimal("5"),
            new BigDecimal("7"),
            BigDecimal.ZERO);
    assertThat(figures.attributes())
        .containsExactly(
            new LookupFigures.Attribute("v", 2, 2, 1, 0, 0, 0),
            new LookupFigures.Attribute("w", 2, 2, 1, 0, 2, 2));
    assertThat(figures.constants()).containsExactly("v = x");
    assertThat(figures.reference().rows()).isEqualTo(7);
    assertThat(figures.reference().filteredOut()).isEqualTo(1);
    assertThat(figures.reference().keys()).isEqualTo(4);
  }

  @Test
  void howFarMatchesAreIsCountedOfThoseThatMatch() {
    MemoryTable ours = MemoryTable.of("ours", "kg", "3", "12", "", "27", "8", "x", "9999");
    MemoryTable theirs =
        MemoryTable.of("theirs", "from,band", "5,a", "10,b", "20,c", "9000,d")
            .typed("from", ColumnType.Kind.NUMBER);
    Lookup lookup = Lookup.in(theirs).key(KeyPart.atOrBelow("kg", "from")).bring("band");
    ListSink sink = new ListSink();
    LookupFigures figures =
        Enrichment.of(ours).lookup(lookup).build().writeTo(sink).lookups().get(0);
    assertThat(sink.column("band")).containsExactly(null, "b", null, "c", "a", null, "d");
    assertThat(figures.distances()).isEqualTo(new LookupFigures.Distances(4, "3", "999"));
    LookupFigures equal =
        Enrichment.of(ours)
            .lookup(Lookup.in(theirs).key("kg", "from").bring("band"))
            .build()
            .writeTo(new ListSink())
            .lookups()
            .get(0);
    assertThat(equal.distances()).isNull();
  }

  @Test
  void rowsThatAgreeOnWhatIsBroughtCountAsOne() {
    ListSink sink = new ListSink();
    run(Lookup.in(growers).key("grower", "grower_no").bring("name").markAs("m"), sink);
    assertThat(sink.cell(4, "m")).as("G3 differs only in its district").isEqualTo("matched");
  }

  @Test
  void theFirstOfSeveralIsTakenOnlyWhenAskedForAndCounted() {
    ListSink sink = new ListSink();
    RunRecord record = run(lookup().several(Several.last()), sink);
    assertThat(sink.cell(4, "district")).isEqualTo("D4");
    assertThat(record.lookups().get(0).fits().picked()).isEqualTo(1);
    assertThat(record.lookups().get(0).ambiguous()).isZero();
  }

  @Test
  void unmatchedRowsCanBeDroppedAndAreCounted() {
    ListSink sink = new ListSink();
    RunRecord record = run(lookup().whenUnmatched(Treatment.drop()), sink);
    assertThat(sink.column("ticket")).containsExactly("1", "2", "4", "5", "6", "7");
    assertThat(record.rowsOut()).isEqualTo(6);
    assertThat(record.lookups().get(0).outcomes().dropped()).isEqualTo(1);
  }

  @Test
  void unmatchedCanEndTheRunNamingTheRow() {
    ListSink sink = new ListSink();
    assertThatThrownBy(() -> run(lookup().whenUnmatched(Treatment.fail()), sink))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("row 3")
        .hasMessageContaining("\"G9\"");
    assertThat(sink.committed()).isFalse();
  }

  @Test
  void aChainUsesAnAttributeFetchedBefore() {
    MemoryTable districts =
        MemoryTable.of("districts.csv", "district,region", "D1,North", "D4,South");
    ListSink sink = new ListSink();
    Enrichment.of(tickets)
        .lookup(lookup())
        .lookup(Lookup.in(districts).key("district").bring("region"))
        .build()
        .writeTo(sink);
    assertThat(sink.column("region"))
        .containsExactly("North", null, null, null, null, "South", "North");
  }

  @Test
  void compositeKeysCompareePartByPart() {
    MemoryTable ours = MemoryTable.of("o", "p,q", "ab,c", "a,bc");
    MemoryTable theirs = MemoryTable.of("t", "p,q,v", "a,bc,right");
    ListSink sink = new ListSink();
    Enrichment.of(ours)
        .lookup(Lookup.in(theirs).key("p").key("q").bring("v"))
        .build()
        .writeTo(sink);
    assertThat(sink.column("v")).containsExactly(null, "right");
  }

  @Test
  void wrongNamesAreRefusedWithTheNearest() {
    assertThatThrownBy(
            () -> run(Lookup.in(growers).key("grower", "grower_nr").bring("name"), new ListSink()))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("did you mean \"grower_no\"?");
    assertThatThrownBy(
            () -> run(Lookup.in(growers).key("growers", "grower_no").bring("name"), new ListSink()))
        .hasMessageContaining("did you mean \"grower\"?");
    assertThatThrownBy(() -> run(lookup().bring("grower_no as ticket"), new ListSink()))
        .hasMessageContaining("already")
        .hasMessageContaining("grower_no as grower_ticket");
    assertThatThrownBy(() -> run(lookup().whenUnmatched(Fill.fill("name", "x")), new ListSink()))
        .hasMessageContaining("did you mean \"grower_name\"?");
    assertThatThrownBy(() -> Enrichment.of(tickets).lookup(lookup()).lookup(lookup()).build())
        .hasMessageContaining("two lookups are called");
  }

  @Test
  void oneRecordAtATimeAlsoAfterSerialising() throws Exception {
    LoadedLookup loaded = lookup().whenUnmatched(Fill.fill("grower_name", "Unlisted")).load();
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (ObjectOutputStream out = new ObjectOutputStream(bytes)) {
      out.writeObject(loaded);
    }
    LoadedLookup again;
    try (ObjectInputStream in =
        new ObjectInputStream(new ByteArrayInputStream(bytes.toByteArray()))) {
      again = (LoadedLookup) in.readObject();
    }
    for (LoadedLookup one : new LoadedLookup[] {loaded, again}) {
      assertThat(one.find("G4").outcome()).isEqualTo(Outcome.MATCHED);
      assertThat(one.find("G4").referenceRow()).isEqualTo(5);
      assertThat(one.find("G1").referenceRow()).isEqualTo(1);
      assertThat(one.find("G3").outcome()).isEqualTo(Outcome.AMBIGUOUS);
      assertThat(one.find((String) null).outcome()).isEqualTo(Outcome.BLANK_KEY);
      assertThat(one.find("G7").get("grower_name")).isEqualTo("Unlisted");
      assertThat(
              Stream.of(Map.of("grower", " G2")).map(one::apply).toList().get(0).get("grower_name"))
          .isEqualTo("Merrow Ford");
    }
  }
}
