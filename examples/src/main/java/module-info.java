/** Programs on Able Twine's public types: all they see is what is exported to everybody. */
module org.abletwine.examples {
  requires org.abletwine.core;
  requires org.abletwine.formats;

  provides org.abletwine.key.NormaliseStep with
      org.abletwine.examples.WithoutBridge;
  provides org.abletwine.match.OwnRule with
      org.abletwine.examples.OneDigitOff;
}
