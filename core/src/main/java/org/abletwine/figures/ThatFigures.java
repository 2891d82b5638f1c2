package org.abletwine.figures;

/**
 * A condition over the whole output.
 *
 * @param name the condition as written
 * @param figure what its totals came to
 * @param holds whether it is true
 */
public record ThatFigures(String name, String figure, boolean holds) implements StepFigures {}
