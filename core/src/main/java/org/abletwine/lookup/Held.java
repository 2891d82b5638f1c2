package org.abletwine.lookup;

/** A reference as a lookup has it: in memory, or in parts on disk where it does not fit. */
sealed interface Held permits LoadedReference, LargeReference {}
