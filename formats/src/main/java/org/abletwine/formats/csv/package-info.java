/**
 * Delimited text. In: bytes of a file and what is stated about its form. Out: batches of slices;
 * and back again to bytes. Start reading at {@link org.abletwine.formats.csv.CsvTable}.
 */
@NullMarked
package org.abletwine.formats.csv;

import org.jspecify.annotations.NullMarked;
