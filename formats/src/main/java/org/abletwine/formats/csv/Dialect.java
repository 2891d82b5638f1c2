package org.abletwine.formats.csv;

import java.util.List;

/**
 * The form of one delimited text file.
 *
 * @param encoding its encoding
 * @param delimiter the character between cells
 * @param quote the quote character
 * @param header whether the first record holds the names
 * @param lineEnd what ends a line
 * @param firstRecord the cells of the first record; empty for an empty file
 */
record Dialect(
    Encodings encoding,
    char delimiter,
    char quote,
    boolean header,
    String lineEnd,
    List<String> firstRecord) {}
