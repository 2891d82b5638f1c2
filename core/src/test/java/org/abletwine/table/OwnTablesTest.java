package org.abletwine.table;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Iterator;
import java.util.List;
import org.abletwine.audit.DuplicateAudit;
import org.abletwine.audit.TableProfile;
import org.abletwine.enrich.Enrichment;
import org.abletwine.key.Normalise;
import org.abletwine.key.NormaliseStep;
import org.abletwine.lookup.Lookup;
import org.abletwine.step.Step;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Tables, sinks and normalise steps as someone outside gives them: rows and texts. */
class OwnTablesTest {
  private int open;

  /** Rows in a list; how many are open is counted. */
  private Table table(String name, String header, List<List<@Nullable String>> rows) {
    return new Table() {
      @Override
      public String name() {
        return name;
      }

      @Override
      public Schema schema() {
        return new Schema(List.of(header.split(",")));
      }

      @Override
      public Rows rows() {
        open++;
        Iterator<List<@Nullable String>> left = rows.iterator();
        return new Rows() {
          @Override
          public @Nullable List<@Nullable String> next() {
            return left.hasNext() ? left.next() : null;
          }

          @Override
          public void close() {
            open--;
          }
        };
      }
    };
  }

  private static List<List<@Nullable String>> numbered(int rows, int distinct) {
    List<List<@Nullable String>> all = new ArrayList<>();
    for (int row = 0; row < rows; row++) {
      all.add(Arrays.asList("K" + row % distinct, row % 3 == 0 ? null : "v" + row));
    }
    return all;
  }

  private static final class Kept implements TableSink {
    private final List<List<@Nullable String>> rows = new ArrayList<>();
    private int committed;

    @Override
    public void start(Table source, Schema columns) {
      rows.add(new ArrayList<>(columns.names()));
    }

    @Override
    public void write(List<@Nullable String> row) {
      rows.add(new ArrayList<>(row));
    }

    @Override
    public void commit() {
      committed++;
    }

    @Override
    public void close() {}
  }

  @ParameterizedTest
  @ValueSource(ints = {1, 2, 5})
  void rowsComeOutAsTheyWentInAndInOrder(int workers) {
    Kept kept = new Kept();
    List<List<@Nullable String>> rows = numbered(4_321, 4_321);
    Enrichment.of(table("t", "k,v", rows)).workers(workers).build().writeTo(kept);
    assertThat(kept.rows.get(0)).containsExactly("k", "v");
    assertThat(kept.rows.subList(1, kept.rows.size())).isEqualTo(rows);
    assertThat(kept.committed).isEqualTo(1);
    assertThat(open).isZero();
  }

  @Test
  void aRowOfAnotherLengthIsToldWithItsNumber() {
    List<List<@Nullable String>> rows = numbered(3_000, 10);
    rows.set(2_345, List.of("alone"));
    assertThatThrownBy(
            () -> Enrichment.of(table("bridge", "k,v", rows)).build().writeTo(new Kept()))
        .isInstanceOf(DataException.class)
        .hasMessage(
            "bridge, row 2346: 1 cells, but there are 2 columns; give one cell for each, null where"
                + " there is no value");
    assertThat(open).isZero();
  }

  @Test
  void auditsReadThemToo() {
    Table table = table("t", "k,v", numbered(5_000, 2_500));
    DuplicateAudit.Report report =
        DuplicateAudit.of(table, new int[] {0}, List.of(Normalise.trim())).report(3);
    assertThat(report.duplicateKeys()).isEqualTo(2_500);
    assertThat(report.examples().get(0).rows()).containsExactly(1, 2_501);
    assertThat(TableProfile.of(table).columns().get(1).nulls()).isEqualTo(1_667);
    assertThat(open).isZero();
  }

  /** Takes off everything up to a slash. */
  private record AfterSlash(String name) implements NormaliseStep {
    private static final long serialVersionUID = 1L;

    @Override
    public String apply(String value) {
      return value.substring(value.indexOf('/') + 1);
    }
  }

  @Test
  void aStepOfOnesOwnIsCountedLikeTheOthers() {
    Table reference = table("r", "code,name", List.of(Arrays.asList("A1", "Ann")));
    Table ours =
        table(
            "o",
            "k",
            List.of(List.of("A1"), List.of("x/A1"), List.of("y/ A1"), List.of("z/"), List.of("é")));
    Kept kept = new Kept();
    Lookup lookup =
        Lookup.in(reference)
            .key("k", "code")
            .normalise(new AfterSlash("after-slash"), Normalise.trim())
            .bring("name");
    var figures = Enrichment.of(ours).lookup(lookup).build().writeTo(kept).lookups().get(0);
    assertThat(kept.rows.stream().skip(1).map(row -> row.get(1)))
        .containsExactly("Ann", "Ann", "Ann", null, null);
    assertThat(figures.blankKey()).as("nothing is left behind the slash").isEqualTo(1);
    assertThat(figures.matchedBy()).extracting(share -> share.rows()).containsExactly(1L, 1L, 1L);
    assertThat(lookup.load().find("w/A1").get("name")).isEqualTo("Ann");
  }

  @Test
  void aStepThatIsNoneOfOursIsRefused() {
    Step step = () -> "stir";
    Enrichment.Builder builder = Enrichment.of(table("t", "k", List.of()));
    assertThatThrownBy(() -> builder.step(step))
        .isInstanceOf(IllegalArgumentException.class)
        .hasMessageContaining("\"stir\"");
  }
}
