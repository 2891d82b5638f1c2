package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.util.List;
import org.abletwine.ListSink;
import org.abletwine.MemoryTable;
import org.abletwine.enrich.Enrichment;
import org.abletwine.table.DataException;
import org.junit.jupiter.api.Test;

/**
 * Of several things that are wrong with the references of a lookup, that of the first reference is
 * told, whether they are in memory or on disk, and by whichever worker it is met.
 */
class WhichFailsFirstTest {
  private static final MemoryTable SALES =
      MemoryTable.of("sales", "crop,kg", "rye,5", "oats,6", "peas,8");

  private static final MemoryTable TWICE =
      MemoryTable.of("twice", "crop,price", "rye,4", "oats,3", "oats,5", "peas,2");

  private static final MemoryTable NO_NUMBER =
      MemoryTable.of("words", "crop,price", "rye,four", "oats,3", "peas,2");

  private static Lookup twice() {
    return Lookup.in(TWICE).key("crop").bring("price").duplicates(Duplicates.fail()).named("a");
  }

  private static Lookup sum() {
    return Lookup.in(NO_NUMBER).key("crop").bring("sum(price) as price").named("b");
  }

  private static String failure(Lookup lookup) {
    String message = null;
    for (int workers = 1; workers <= 2; workers++) {
      for (boolean onDisk : List.of(false, true)) {
        Enrichment.Builder run = Enrichment.of(SALES).lookup(lookup).workers(workers);
        Enrichment built = (onDisk ? run.memory(1, null) : run).build();
        DataException met =
            catchThrowableOfType(DataException.class, () -> built.writeTo(new ListSink()));
        assertThat(met).isNotNull();
        assertThat(message == null ? met.getMessage() : message).isEqualTo(met.getMessage());
        message = met.getMessage();
      }
    }
    return String.valueOf(message);
  }

  @Test
  void thatOfTheFirstReferenceIsTold() {
    String first = failure(twice());
    assertThat(first).contains("twice").contains("rows 2, 3");
    String second = failure(sum());
    assertThat(second).contains("words, row 1, column \"price\": \"four\" is not a number");
    assertThat(failure(twice().otherwise(sum()))).isEqualTo(first);
    assertThat(failure(sum().otherwise(twice()))).isEqualTo(second);
    Lookup fine = Lookup.in(SALES).key("crop").bring("kg as price").named("c");
    assertThat(failure(fine.otherwise(sum()).otherwise(twice()))).isEqualTo(second);
    assertThat(failure(fine.otherwise(twice()).otherwise(sum()))).isEqualTo(first);
  }
}
