package org.abletwine.examples;

import org.abletwine.key.NormaliseStep;

/**
 * A normalise step of one's own: takes off the name of the weighbridge, as in {@code KEL/000324R}.
 * Registered as a service, so that a plan can name it: {@code normalise: [bridge:without-name]}.
 */
public record WithoutBridge() implements NormaliseStep {
  private static final long serialVersionUID = 1L;

  @Override
  public String name() {
    return "bridge:without-name";
  }

  @Override
  public String apply(String value) {
    return value.substring(value.indexOf('/') + 1);
  }
}
