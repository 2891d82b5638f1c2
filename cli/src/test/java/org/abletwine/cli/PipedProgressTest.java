package org.abletwine.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.io.ByteArrayOutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import org.abletwine.table.Table;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A long load says now and then how far it is, where nobody sees a line change. */
class PipedProgressTest {
  @Test
  void aLineComesNowAndThenUntilTheEnd() throws InterruptedException {
    Table table = mock(Table.class);
    when(table.name()).thenReturn("growers.csv");
    when(table.sizeInBytes()).thenReturn(1_000L);
    PrintStream err = System.err;
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try {
      System.setErr(new PrintStream(bytes, true, StandardCharsets.UTF_8));
      Runnable ended = new PipedProgress(20).reading(table, () -> 250, () -> 1_200);
      while (bytes.toString(StandardCharsets.UTF_8).lines().count() < 2) {
        Thread.sleep(5);
      }
      ended.run();
    } finally {
      System.setErr(err);
    }
    assertThat(bytes.toString(StandardCharsets.UTF_8).lines())
        .allMatch("able-twine: growers.csv: 1,200 rows read, 25.0 % of it"::equals);
  }

  @Test
  void nothingIsSaidOfWhatIsReadAtOnce(@TempDir Path folder) {
    Cli.Gave gave = Cli.run("demo", folder.resolve("wendle-vale").toString());
    assertThat(gave.status()).isZero();
    assertThat(gave.err()).isEmpty();
  }
}
