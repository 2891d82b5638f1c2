package org.abletwine.table.spill;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;

/**
 * Pieces of bytes read as if they followed each other, from any place and in blocks of any size.
 */
class PiecedTest {

  @Test
  void piecesFollowEachOther() {
    for (int seed = 0; seed < 200; seed++) {
      Random random = new Random(seed);
      byte[] all = new byte[1 + random.nextInt(400)];
      random.nextBytes(all);
      MemoryBytes under = new MemoryBytes();
      under.append(all, all.length);
      Pieced pieced = new Pieced(under);
      ByteArrayOutputStream expected = new ByteArrayOutputStream();
      for (int pieces = random.nextInt(9); pieces > 0; pieces--) {
        int from = random.nextInt(all.length);
        int length = random.nextInt(all.length - from + 1);
        pieced.add(from, length);
        expected.write(all, from, length);
      }
      byte[] wanted = expected.toByteArray();
      assertThat(pieced.size()).isEqualTo(wanted.length);
      for (int at = 0; at <= wanted.length; at++) {
        byte[] into = new byte[random.nextInt(60)];
        int start = into.length == 0 ? 0 : random.nextInt(into.length);
        int read = pieced.read(at, into, start);
        assertThat(read).isEqualTo(Math.min(into.length - start, wanted.length - at));
        assertThat(Arrays.copyOfRange(into, start, start + read))
            .isEqualTo(Arrays.copyOfRange(wanted, at, at + read));
        assertThat(Arrays.copyOf(into, start)).isEqualTo(new byte[start]);
      }
    }
  }

  @Test
  void piecesAreOnlyRead() {
    assertThatThrownBy(() -> new Pieced(new MemoryBytes()).append(new byte[1], 1))
        .isInstanceOf(UnsupportedOperationException.class);
  }
}
