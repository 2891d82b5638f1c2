package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.enrich.Enrichment;
import org.abletwine.key.Normalise;
import org.abletwine.match.MatchRule;
import org.abletwine.table.ColumnType;
import org.abletwine.table.Rows;
import org.abletwine.table.Schema;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.BatchSink;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** What is wrong with the settings of a lookup, all of it at once; and what its columns hold. */
class LookupCheckTest {
  private static final MemoryTable OURS = MemoryTable.of("ours", "k,n,day", "a,1,2");
  private static final MemoryTable THEIRS =
      MemoryTable.of("theirs", "k,n,to,v", "a,1,2,x").typed("n", ColumnType.Kind.NUMBER);

  private static Lookup keyed() {
    return Lookup.in(THEIRS).key("k").bring("v");
  }

  private static void run(Lookup lookup) {
    Enrichment.of(OURS).lookup(lookup).build().writeTo(new ListSink());
  }

  static Stream<Arguments> mistakes() {
    String theirs = "; the names are k, n, to, v";
    return Stream.of(
        Arguments.of(
            Lookup.in(THEIRS).bring("v"), "lookup theirs: no key; state it as ours = theirs"),
        Arguments.of(
            keyed().bring("zzz"), "lookup theirs, bring: theirs has no column \"zzz\"" + theirs),
        Arguments.of(
            keyed().bring("*"),
            "lookup theirs, bring: theirs has no column \"*\"; to bring all of its columns say all"
                + " in place of their names"),
        Arguments.of(
            keyed().bring("n as v"),
            "lookup theirs, bring: \"v\" stands twice; give one another name: n as OTHER"),
        Arguments.of(
            keyed().key("day", "zzz"), "lookup theirs, key: theirs has no column \"zzz\"" + theirs),
        Arguments.of(
            keyed().key(KeyPart.between("n", "n", "zzz")),
            "lookup theirs, key: theirs has no column \"zzz\"" + theirs),
        Arguments.of(
            keyed().key("zzz", "n"),
            "lookup theirs, key: ours has no column \"zzz\", nor has a step before added one; the"
                + " names are k, n, day"),
        Arguments.of(
            keyed().duplicates(Duplicates.newestBy("zzz")),
            "lookup theirs, duplicates: theirs has no column \"zzz\"" + theirs),
        Arguments.of(
            keyed().several(Several.newestBy("zzz")),
            "lookup theirs, several: theirs has no column \"zzz\"" + theirs),
        Arguments.of(
            keyed().whenEmpty(Fill.fill("zzz", "1")),
            "lookup theirs, empty: fill names \"zzz\", which the lookup does not bring; the names"
                + " are v"),
        Arguments.of(
            keyed().whenUnmatched(Fill.fill("zzz", "1")),
            "lookup theirs, unmatched: fill names \"zzz\", which the lookup does not bring; the"
                + " names are v"),
        Arguments.of(
            keyed().key(KeyPart.atOrBelow("n", "n")).key(KeyPart.nearest("day", "to")),
            "lookup theirs, key: \"n at-or-below n\" and \"day nearest to\" both match by a rule;"),
        Arguments.of(
            keyed().key(KeyPart.matching("n", MatchRule.Kind.BETWEEN, "n")),
            "lookup theirs, key: match: between needs two columns of theirs, the lower end and the"
                + " upper end"),
        Arguments.of(
            keyed().several(Several.longest()),
            "lookup theirs: several: longest chooses between patterns of theirs"),
        Arguments.of(
            keyed().bring("count(*) as c").several(Several.first()),
            "lookup theirs: an aggregate takes all rows a key fits, so several: first has nothing"
                + " to choose; leave one of them out"),
        Arguments.of(
            keyed().bring("count(*) as c").duplicates(Duplicates.last()),
            "lookup theirs: an aggregate takes all rows a key fits, but the reference's rule for"
                + " duplicates (last) leaves only one; leave one of them out"),
        Arguments.of(
            Lookup.in(THEIRS)
                .key(KeyPart.regex("k", "v"))
                .normalise(Normalise.ignorePunctuation())
                .bring("n"),
            "lookup theirs, key: ignore-punctuation cannot be applied to a regular expression"
                + " without changing what it means;"),
        Arguments.of(
            Lookup.in(THEIRS)
                .key(KeyPart.wildcard("k", "v"))
                .normalise(Normalise.first(2))
                .bring("n as n2"),
            "lookup theirs, key: first: 2 cannot be applied to a wildcard without"),
        Arguments.of(
            keyed().otherwise(Lookup.in(THEIRS).key("zzz", "k").bring("v").named("more")),
            "lookup theirs, otherwise more, key: ours has no column \"zzz\", nor has a step"),
        Arguments.of(
            keyed().otherwise(Lookup.in(THEIRS).key("k").bring("n as w").named("more")),
            "lookup theirs, otherwise more: brings \"w\", which the lookup itself does not; the"
                + " names are v"),
        Arguments.of(
            keyed().otherwise(Lookup.in(THEIRS).key("k").bring("v").when("n = '1'").named("more")),
            "lookup theirs, otherwise more: when: stands at the lookup itself;"),
        Arguments.of(
            keyed().bring("n"),
            "lookup theirs: there is a column \"n\" already, from ours; bring it under another name:"
                + " n as their_n"),
        Arguments.of(
            keyed().markAs("day"),
            "lookup theirs: there is a column \"day\" already, from ours; choose another name for mark"),
        Arguments.of(keyed().when("zzz = 1"), "lookup theirs"));
  }

  @ParameterizedTest
  @MethodSource("mistakes")
  void isNamed(Lookup lookup, String message) {
    assertThatThrownBy(() -> run(lookup))
        .isInstanceOf(SettingException.class)
        .hasMessageStartingWith(message);
  }

  @Test
  void allMistakesAreNamedAtOnce() {
    Lookup wrong =
        keyed()
            .bring("zzz", "yyy as v")
            .key("xxx", "www")
            .whenUnmatched(Fill.fill("uuu", "1"))
            .markAs("day");
    assertThatThrownBy(() -> run(wrong))
        .satisfies(e -> assertThat(String.valueOf(e.getMessage()).lines()).hasSize(7));
    assertThatThrownBy(wrong::load)
        .as("without the transactions")
        .satisfies(e -> assertThat(String.valueOf(e.getMessage()).lines()).hasSize(5));
  }

  @Test
  void oneRecordAtATimeIsAnsweredByOneRow() {
    assertThatThrownBy(() -> keyed().several(Several.each()).load())
        .isInstanceOf(SettingException.class)
        .hasMessageStartingWith("lookup theirs: several: each may give several rows for a key");
    assertThatThrownBy(() -> keyed().when("n = '1'").load())
        .hasMessageStartingWith("lookup theirs: when: is for runs;");
    assertThatThrownBy(
            () -> keyed().otherwise(keyed().named("more").several(Several.each())).load())
        .hasMessageStartingWith("lookup more: several: each");
  }

  @Test
  void aKeyHasThirtyOnePartsAtMost() {
    Lookup lookup = Lookup.in(THEIRS).bring("v");
    for (int part = 0; part < 31; part++) {
      lookup = lookup.key("k");
    }
    run(lookup);
    Lookup more = lookup.key("k");
    assertThatThrownBy(() -> run(more)).hasMessage("lookup theirs: more than 31 key parts");
  }

  /** A table whose column {@code v} is private. */
  private static Table hiding(String name) {
    return new Table() {
      @Override
      public String name() {
        return name;
      }

      @Override
      public Schema schema() {
        return THEIRS.schema();
      }

      @Override
      public boolean isPrivate(String column) {
        return column.equals("v");
      }

      @Override
      public Rows rows() {
        return THEIRS.rows();
      }
    };
  }

  /** What a sink is told of the columns. */
  private static final class Told implements BatchSink {
    private List<String> names = List.of();
    private List<@Nullable ColumnType> types = List.of();
    private List<String> hidden = List.of();

    @Override
    public void typed(List<@Nullable ColumnType> stated) {
      types = new ArrayList<>(stated);
    }

    @Override
    public void keepPrivate(List<String> columns) {
      hidden = columns;
    }

    @Override
    public void start(Table source, Schema columns) {
      names = columns.names();
    }

    @Override
    public void write(Batch batch, int[] columns) {}

    @Override
    public void commit() {}

    @Override
    public void close() {}

    @Nullable ColumnType type(String column) {
      return types.get(names.indexOf(column));
    }
  }

  private static Told told(Lookup lookup) {
    Told told = new Told();
    Enrichment.of(OURS).lookup(lookup).build().writeTo(told);
    return told;
  }

  @Test
  void columnsHaveTheTypesOfTheReference() {
    Told told = told(keyed().bring("n as kg", "count(*) as c", "max(n) as most", "to"));
    assertThat(told.type("kg")).isEqualTo(ColumnType.of(ColumnType.Kind.NUMBER));
    assertThat(told.type("most")).isEqualTo(ColumnType.of(ColumnType.Kind.NUMBER));
    assertThat(told.type("c")).isEqualTo(ColumnType.of(ColumnType.Kind.NUMBER));
    assertThat(told.type("to")).isNull();
    assertThat(told.hidden).isEmpty();
  }

  @Test
  void whatIsPrivateInAReferenceIsPrivateInWhatIsFetched() {
    assertThat(told(Lookup.in(hiding("t")).key("k").bring("v", "to")).hidden).containsExactly("v");
    assertThat(told(Lookup.in(hiding("t")).key("n", "v").bring("to")).hidden)
        .as("who knows the key knows the value")
        .containsExactly("n");
    Lookup further = Lookup.in(hiding("t")).key("k").bring("v as name", "to").named("more");
    assertThat(told(Lookup.in(THEIRS).key("k").bring("v as name", "to").otherwise(further)).hidden)
        .as("of one that is tried otherwise")
        .containsExactly("name");
    Lookup other = Lookup.in(hiding("t")).key("k").bring("k as name", "v as to").named("more");
    assertThat(told(Lookup.in(THEIRS).key("k").bring("v as name", "to").otherwise(other)).hidden)
        .containsExactly("to");
  }
}
