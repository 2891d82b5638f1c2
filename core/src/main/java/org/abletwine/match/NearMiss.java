package org.abletwine.match;

import java.math.BigDecimal;
import java.math.RoundingMode;

/**
 * A reference key that a person might take for the one asked for.
 *
 * @param key the reference key
 * @param likeness from 0 to 1; 1 when only case, accents and punctuation differ
 * @param clear whether it stands out: it is very like, and far more so than the next. Of such ones
 *     at least 98 of 100 were right on lists with the truth known
 * @param weak whether it is so little like that it mostly is not the one meant
 */
public record NearMiss(String key, double likeness, boolean clear, boolean weak) {
  /** {@return the likeness with two decimal places} */
  public String likenessText() {
    return BigDecimal.valueOf(likeness).setScale(2, RoundingMode.HALF_UP).toPlainString();
  }

  /** {@return the likeness, and whether it stands out or is hardly near, such as 0.93 clear} */
  public String judged() {
    return likenessText() + (clear ? " clear" : weak ? " weak" : "");
  }
}
