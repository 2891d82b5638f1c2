package org.abletwine.figures;

/**
 * What writing a column in a stated form counted.
 *
 * @param name the column
 * @param form the form, such as a date pattern
 * @param rows rows that reached the step
 * @param errors rows whose value could not be written so and became null
 * @param errorExample the first of them, in words; empty when there is none
 */
public record FormatFigures(String name, String form, long rows, long errors, String errorExample)
    implements StepFigures {}
