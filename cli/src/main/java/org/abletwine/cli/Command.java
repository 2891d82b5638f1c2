package org.abletwine.cli;

import java.util.concurrent.Callable;

/** What is run by its name; gives the exit status. */
interface Command extends Callable<Integer> {
  /** Returns how it is used. */
  Usage usage();

  @Override
  Integer call();
}
