/**
 * Small programs on the public API and the demo data. Each takes the demo folder as its argument.
 * Start reading at {@link org.abletwine.examples.EnrichOneFile}.
 */
@NullMarked
package org.abletwine.examples;

import org.jspecify.annotations.NullMarked;
