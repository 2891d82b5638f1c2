/** Somebody else's module. */
module outsider {
  requires org.abletwine.core;
  requires org.abletwine.formats; // opens files, though no name of it is used

  opens outsider to
      org.abletwine.core; // whose records become rows
}
