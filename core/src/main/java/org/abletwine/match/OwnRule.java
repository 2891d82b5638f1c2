package org.abletwine.match;

import java.io.Serializable;

/**
 * A rule of one's own for when a value of ours matches one of theirs, for what none of the
 * {@linkplain MatchRule.Kind kinds} here says. It is used by {@link
 * org.abletwine.lookup.KeyPart#fitting}, or registered as a service and then stated in plans by its
 * name. It must be immutable, safe to use by several threads, and give the same answer for the same
 * texts at all times. Each distinct value of ours is asked about once for each distinct value of
 * theirs that has the same {@link #common} text, among rows whose equal key parts agree.
 */
public interface OwnRule extends Serializable {
  /**
   * {@return the name by which a plan states the rule, with a colon in it, such as {@code
   * code:one-digit-off}: names without one are this product's}
   */
  String name();

  /**
   * Says how well two values match. Rows with the greatest likeness are those that match; several
   * that are equally like are several rows of one key.
   *
   * @param ours the value of the transactions, normalised, never null nor empty
   * @param theirs the value of the reference, normalised, never null
   * @return above 0, and the greater the better, where they match; else 0
   */
  double likeness(String ours, String theirs);

  /**
   * Says what values that match always have in common, so that only those need be compared: such as
   * their length, or their first letter. Unless it is overridden all are compared.
   *
   * @param value a value of either side, normalised
   * @return a text that is the same for any two values whose {@link #likeness} is above 0
   */
  default String common(String value) {
    return "";
  }
}
