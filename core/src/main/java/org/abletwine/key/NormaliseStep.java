package org.abletwine.key;

import java.io.Serializable;

/**
 * One step that makes keys agree which two systems write differently. It changes what is compared,
 * never what is written out. Give one of your own by its name and what it makes of a text.
 * Implementations are immutable and safe to share between threads.
 */
public interface NormaliseStep extends Serializable {

  /** {@return the step as a plan states it, such as {@code trim}} */
  String name();

  /**
   * What the step makes of a value.
   *
   * @param value a key part, not null
   * @return what is to be compared in its place; empty counts as a blank key
   */
  String apply(String value);
}
