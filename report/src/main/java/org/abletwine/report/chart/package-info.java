/**
 * The pictures of the report, drawn by a plotting library and written as SVG: figures go in, an
 * address that holds the picture comes out. Start with {@link org.abletwine.report.chart.Pictures}.
 */
@NullMarked
package org.abletwine.report.chart;

import org.jspecify.annotations.NullMarked;
