package org.abletwine.plan;

/**
 * One thing a plan does, in words.
 *
 * @param about what it is about: {@code transactions}, a lookup, a column, {@code controls}
 * @param text what is done, in a sentence or two
 * @param figures what came of it in a run; empty before one
 */
public record PlanSentence(String about, String text, String figures) {}
