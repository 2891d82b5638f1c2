package org.abletwine.table.text;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class UnforeseenTest {
  @TempDir private Path folder;

  private static Set<String> drawn(Path source) {
    Set<String> drawn = new HashSet<>();
    for (int i = 0; i < 100; i++) {
      byte[] bytes = Unforeseen.bytes(8, source);
      assertThat(bytes).hasSize(8);
      drawn.add(HexFormat.of().formatHex(bytes));
    }
    return drawn;
  }

  @Test
  void otherBytesEachTimeWhereverTheyComeFrom() throws IOException {
    assertThat(drawn(Path.of("/dev/urandom"))).hasSize(100);
    assertThat(drawn(folder.resolve("nothing there"))).hasSize(100);
    Path tooFew = Files.write(folder.resolve("too few"), new byte[7]);
    assertThat(drawn(tooFew)).hasSize(100);
  }

  @Test
  void theSystemIsAskedFirst() throws IOException {
    Path system = Files.write(folder.resolve("system"), new byte[] {1, 2, 3, 4, 5, 6, 7, 8, 9});
    assertThat(Unforeseen.bytes(8, system)).containsExactly(1, 2, 3, 4, 5, 6, 7, 8);
  }
}
