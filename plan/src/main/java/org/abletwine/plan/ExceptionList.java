package org.abletwine.plan;

import java.util.Set;
import org.abletwine.step.Exceptions;
import org.abletwine.table.output.Output;

/** Writes what needs attention to a file. Used by one thread at a time. */
interface ExceptionList extends Exceptions {

  /**
   * All has been told: writes what is still to be written.
   *
   * @param hidden the lookups whose key is private, by name: nothing that is near to it is told
   */
  void finish(Set<String> hidden);

  /** {@return what there is in the file, in words} */
  String told();

  /** {@return how many lines are written} */
  long rows();

  /** {@return the file, to be moved into place with others} */
  Output output();
}
