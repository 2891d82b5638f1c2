/**
 * Parquet tables, in and out. In goes a file; {@link org.abletwine.parquet.ParquetFormat} is found
 * by the core and gives a table of it: {@code ParquetFile} reads the foot, {@code ChunkPages} the
 * pages of one column, {@code CellForm} makes text of its values. Out: {@code ParquetSink} keeps
 * the rows aside until their end tells what fits each column, then {@code FileWriter} writes them.
 * The encodings themselves are the standard's own library's.
 */
@NullMarked
package org.abletwine.parquet;

import org.jspecify.annotations.NullMarked;
