package org.abletwine.step;

/**
 * The definition of one step of an enrichment, such as a {@code Lookup} or a {@code Compute}: one
 * of those that this library has. Immutable and safe to share between threads.
 */
public interface Step {

  /** {@return the step as a plan begins it, such as {@code lookup growers}} */
  String title();
}
