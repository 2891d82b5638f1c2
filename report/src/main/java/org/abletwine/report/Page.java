package org.abletwine.report;

import java.util.List;

/**
 * A page, ready to be written down.
 *
 * @param title what the run is called
 * @param about what it was: table, rows, time
 * @param holds whether the controls hold, in words; empty when there are none
 * @param tone {@code good} or {@code bad}, for that
 * @param sections its sections, in order
 * @param style its style sheet
 * @param script its script
 * @param policy what a browser may do for it
 * @param maker who made it
 */
public record Page(
    String title,
    String about,
    String holds,
    String tone,
    List<Section> sections,
    String style,
    String script,
    String policy,
    String maker) {}
