package org.abletwine.step.run;

import java.util.List;
import java.util.Map;
import java.util.Set;
import org.abletwine.step.Progress;
import org.abletwine.table.DataException;
import org.abletwine.table.Table;
import org.abletwine.table.output.SpillFile;
import org.abletwine.table.spill.PartedRows;
import org.abletwine.table.spill.Stored;
import org.jspecify.annotations.Nullable;

/**
 * A step whose references several processes of one run can divide among them, where they fit in the
 * memory of none: rows of the references and keys of the transactions are divided by the hash of
 * the keys, each part is asked by one process, and the answers go back to those that have the rows
 * ({@link Exchange}). Immutable; each call is for one thread.
 */
public interface Exchanging {

  /** So many values of a part of a key are told apart; where there are more, none are told of. */
  int MOST_ASKED = 1_000_000;

  /** Returns the name of the step. */
  String name();

  /** Returns the references, in the order in which they are asked. */
  List<Table> references();

  /**
   * Whether a reference can be divided: a row's key is then in the same part of each.
   *
   * @param reference its number, 0-based; none can be when the first cannot
   */
  boolean divides(int reference);

  /** Returns whether the first reference is gone through once more for parts of keys. */
  boolean looksAgain();

  /**
   * Divides some rows of a reference.
   *
   * @param reference its number, 0-based
   * @param rows the rows
   * @param into where they go, part by part
   * @return what the values are that rules compare, for {@link Rows#part}
   * @throws DataException when a row cannot be read
   */
  byte[] divide(int reference, Table rows, PartedRows into, Progress progress, int workers);

  /**
   * Goes through some rows of the first reference for parts of keys.
   *
   * @param rows the rows
   * @param asked for each part of the key the values asked for
   * @return those that are there
   */
  List<Set<String>> known(Table rows, List<Set<String>> asked);

  /**
   * Prepares the step for asking.
   *
   * @param columns the columns as the steps before leave them
   * @param context with the rows before, and what may be in memory
   */
  Rows rows(Columns columns, RunContext context);

  /** The step after the steps before it. */
  interface Rows {

    /**
     * Divides the keys of the rows that reach the step.
     *
     * @param into where they go, part by part
     * @return what a row has met that ends the run; null when all were taken
     */
    @Nullable DataException keys(PartedRows into);

    /**
     * Loads one part of the references.
     *
     * @param rows the rows of those that are divided, by number
     * @param values for each reference what {@link Exchanging#divide} has returned for its rows
     */
    Part part(Map<Integer, Stored> rows, Map<Integer, List<byte[]>> values);
  }

  /** A part of the references. */
  interface Part {

    /** Returns what is wrong with references that are not divided, by number. */
    Map<Integer, DataException> unread();

    /** Returns what is wrong with the part; nothing can be asked then, if it ends the run. */
    byte[] refused();

    /** Returns whether the part can be asked. */
    boolean loaded();

    /**
     * Asks the part.
     *
     * @param keys the rows that ask, in their order
     * @param answers takes the answers
     */
    void ask(Stored keys, SpillFile answers);

    /** Returns for each part of the key the values asked for; null when there were too many. */
    @Nullable List<Set<String>> asked();

    /**
     * Returns what was found beside the answers, once all have asked.
     *
     * @param bytes how many were on disk for the part
     */
    byte[] found(long bytes);
  }
}
