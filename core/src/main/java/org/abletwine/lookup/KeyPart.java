package org.abletwine.lookup;

import java.util.List;
import org.abletwine.key.NormaliseStep;
import org.jspecify.annotations.Nullable;

/**
 * One part of a key.
 *
 * @param ours the column of the transactions, or one an earlier step added
 * @param theirs the column of the reference
 * @param normalise steps for this part alone, or null to use the lookup's
 */
public record KeyPart(String ours, String theirs, @Nullable List<NormaliseStep> normalise) {

  /** Copies the list. */
  public KeyPart {
    normalise = normalise == null ? null : List.copyOf(normalise);
  }

  /**
   * Reads {@code ours = theirs}, or one name for both. A name that is not a plain word may stand in
   * double quotes.
   *
   * @param text the part as a plan or option writes it
   * @throws org.abletwine.table.SettingException when it has neither form
   */
  public static KeyPart parse(String text) {
    NameReader names = new NameReader(text, "key");
    String ours = names.name();
    if (names.atEnd()) {
      return new KeyPart(ours, ours, null);
    }
    names.word("=");
    String theirs = names.name();
    names.requireEnd();
    return new KeyPart(ours, theirs, null);
  }

  @Override
  public String toString() {
    return ours.equals(theirs) ? ours : ours + " = " + theirs;
  }
}
