package org.abletwine.key;

import org.abletwine.key.encode.CellsStep;

/**
 * A step of this package: two are equal when they are of one class and one name. A step whose name
 * does not tell all of it says more.
 */
abstract class NamedStep implements CellsStep {
  private static final long serialVersionUID = 1L;

  private final String name;

  NamedStep(String name) {
    this.name = name;
  }

  @Override
  public final String name() {
    return name;
  }

  @Override
  public boolean equals(Object other) {
    return other != null && other.getClass() == getClass() && ((NamedStep) other).name.equals(name);
  }

  @Override
  public int hashCode() {
    return name.hashCode();
  }

  @Override
  public final String toString() {
    return name;
  }
}
