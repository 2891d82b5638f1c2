package org.abletwine.lookup;

import java.util.Map;
import java.util.Objects;
import org.abletwine.table.Destination;
import org.jspecify.annotations.Nullable;

/**
 * What to do with a row of a given outcome.
 *
 * @param action whether the row stays
 * @param fill values for its attributes; empty unless the row stays
 * @param apart where rows go that are left out; null for nowhere
 */
public record Treatment(Action action, Fill fill, @Nullable Destination apart) {
  /** Holds that nothing is missing. */
  public Treatment {
    Objects.requireNonNull(action, "action");
    Objects.requireNonNull(fill, "fill");
  }

  private static final Fill NOTHING = new Fill(Map.of());

  /** Whether a row stays. */
  public enum Action {
    /** The row stays, its attributes null or filled. */
    LEAVE,
    /**
     * The row stays, as with {@link #LEAVE}, and nobody is told of it: that there are such rows is
     * what whoever wrote the lookup expects. They are counted.
     */
    EXPECT,
    /** The row is left out of the output, and counted. */
    DROP,
    /** The run ends with an error. */
    FAIL
  }

  /** {@return the default: the row stays and its attributes are null} */
  public static Treatment leave() {
    return new Treatment(Action.LEAVE, NOTHING, null);
  }

  /**
   * Returns: the row stays, its attributes null, and is none that needs a person.
   *
   * @return the treatment
   */
  public static Treatment expected() {
    return new Treatment(Action.EXPECT, NOTHING, null);
  }

  /**
   * Returns: leave the row out, and count it.
   *
   * @return the treatment
   */
  public static Treatment drop() {
    return new Treatment(Action.DROP, NOTHING, null);
  }

  /**
   * Returns: leave the row out, count it, and write it, as it is before the lookup, to a place of
   * its own.
   *
   * @param place where to
   * @return the treatment
   */
  public static Treatment apart(Destination place) {
    Objects.requireNonNull(place, "place");
    return new Treatment(Action.DROP, NOTHING, place);
  }

  /**
   * Returns: end the run.
   *
   * @return the treatment
   */
  public static Treatment fail() {
    return new Treatment(Action.FAIL, NOTHING, null);
  }

  /**
   * Returns: the row stays and attributes get stated values.
   *
   * @param fill the values
   * @return the treatment
   */
  public static Treatment filling(Fill fill) {
    Objects.requireNonNull(fill, "fill");
    return new Treatment(Action.LEAVE, fill, null);
  }
}
