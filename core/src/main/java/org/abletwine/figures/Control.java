package org.abletwine.figures;

/**
 * Something the plan expects of a run, judged.
 *
 * @param what what is expected to hold, such as {@code matched growers}
 * @param figure what it came to
 * @param limit what was expected
 * @param holds whether it holds
 */
public record Control(String what, String figure, String limit, boolean holds) {}
