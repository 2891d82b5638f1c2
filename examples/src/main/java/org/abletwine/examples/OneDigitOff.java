package org.abletwine.examples;

import org.abletwine.match.OwnRule;

/**
 * A match rule of one's own: a code with one wrong character, as hands on a weighbridge's keyboard
 * make them, matches the code that was meant; one without a mistake matches better. Registered as a
 * service, so that a plan can name it: {@code match: code:one-digit-off}.
 */
public record OneDigitOff() implements OwnRule {
  private static final long serialVersionUID = 1L;

  @Override
  public String name() {
    return "code:one-digit-off";
  }

  @Override
  public double likeness(String ours, String theirs) {
    int wrong = ours.length() == theirs.length() ? 0 : 2;
    for (int at = 0; at < ours.length() && wrong < 2; at++) {
      wrong += ours.charAt(at) == theirs.charAt(at) ? 0 : 1;
    }
    return wrong == 0 ? 1 : wrong == 1 ? 0.5 : 0;
  }

  /** Only codes of one length are compared. */
  @Override
  public String common(String value) {
    return Integer.toString(value.length());
  }
}
