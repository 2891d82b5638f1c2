/**
 * The report: what a run came to, as one page that needs nothing else. {@link
 * org.abletwine.report.HtmlReport} is where to start reading; the account of a run goes in,
 * sections of blocks are made of it, and templates write them down.
 */
@NullMarked
package org.abletwine.report;

import org.jspecify.annotations.NullMarked;
