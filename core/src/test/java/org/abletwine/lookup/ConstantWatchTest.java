package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.util.Arrays;
import java.util.List;
import org.abletwine.MemoryTable;
import org.abletwine.step.Progress;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.carry.Carrier;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

/** Attributes with one value on every matched row, whoever saw which of them. */
class ConstantWatchTest {
  private static final Lookup LOOKUP =
      Lookup.in(MemoryTable.of("sites", "code,name,open", "A,Mill,yes", "B,Dock,yes"))
          .key("code")
          .bring("name", "open as is_open");

  private static final byte MATCHED = (byte) Outcome.MATCHED.ordinal();
  private static final byte UNMATCHED = (byte) Outcome.UNMATCHED.ordinal();

  private static ConstantWatch watch() {
    return new ConstantWatch(LOOKUP, ReferenceLoader.load(LOOKUP, Progress.NONE, 1));
  }

  /** Has seen one matched row for each pair of values: of the first attribute and the second. */
  private static ConstantWatch seen(@Nullable String... pairs) {
    ConstantWatch watch = watch();
    look(watch, MATCHED, pairs);
    return watch;
  }

  private static void look(ConstantWatch watch, byte outcome, @Nullable String... pairs) {
    CellVector[] columns = {new CellVector(), new CellVector()};
    for (int i = 0; i < 2; i++) {
      columns[i].clear();
    }
    for (int i = 0; i < pairs.length; i++) {
      columns[i % 2].append(pairs[i]);
    }
    byte[] outcomes = new byte[pairs.length / 2];
    Arrays.fill(outcomes, outcome);
    watch.look(columns, outcomes, outcomes.length);
  }

  private static List<String> found(ConstantWatch watch) {
    return watch.found(5, 2, null);
  }

  @Test
  void oneValueOnAllMatchedRows() {
    assertThat(found(seen("Mill", "yes", "Dock", "yes"))).containsExactly("is_open = yes");
    assertThat(found(seen("Mill", "yes", "Mill", "yes")))
        .containsExactly("name = Mill", "is_open = yes");
    assertThat(found(seen("Mill", "yes", "Mill", "no"))).containsExactly("name = Mill");
    assertThat(found(seen("Mill", "yes", "Mill", "no", "Mill", "yes")))
        .as("a second value, then the first again")
        .containsExactly("name = Mill");
    assertThat(found(watch())).as("nothing seen").isEmpty();
  }

  @Test
  void nullIsAValueOfItsOwn() {
    assertThat(found(seen(null, "yes", "Mill", "yes"))).containsExactly("is_open = yes");
    assertThat(found(seen("Mill", "yes", null, "yes"))).containsExactly("is_open = yes");
    assertThat(found(seen(null, "yes", null, "yes"))).containsExactly("is_open = yes");
  }

  @Test
  void rowsThatDoNotMatchAreNotLookedAt() {
    ConstantWatch watch = seen("Mill", "yes");
    look(watch, UNMATCHED, "Dock", "no");
    assertThat(found(watch)).containsExactly("name = Mill", "is_open = yes");
    look(watch, MATCHED, "Mill", "no");
    assertThat(found(watch)).containsExactly("name = Mill");
  }

  @Test
  void ofOneRowNothingIsSaid() {
    ConstantWatch watch = seen("Mill", "yes", "Mill", "yes");
    assertThat(watch.found(1, 2, null)).isEmpty();
    assertThat(watch.found(2, 1, null)).isEmpty();
    assertThat(watch.found(2, 2, null)).hasSize(2);
  }

  @Test
  void whatTwoHaveSeenIsWhatOneWouldHave() {
    @Nullable String[][] shares = {
      {},
      {"Mill", "yes"},
      {"Mill", "no"},
      {null, "yes"},
      {"Mill", null},
      {"Dock", "yes", "Mill", "no"}
    };
    for (@Nullable String[] ours : shares) {
      for (@Nullable String[] theirs : shares) {
        ConstantWatch one = seen(ours);
        look(one, MATCHED, theirs);
        ConstantWatch first = carried(seen(ours));
        first.merge(carried(seen(theirs)));
        assertThat(found(first)).isEqualTo(found(one));
        look(one, MATCHED, "Mill", "yes");
        look(first, MATCHED, "Mill", "yes");
        assertThat(found(first)).as("and go on").isEqualTo(found(one));
      }
    }
  }

  private static ConstantWatch carried(ConstantWatch watch) {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    watch.carry(Carrier.to(new DataOutputStream(bytes)));
    ConstantWatch there = watch();
    there.carry(Carrier.from(new DataInputStream(new ByteArrayInputStream(bytes.toByteArray()))));
    return there;
  }
}
