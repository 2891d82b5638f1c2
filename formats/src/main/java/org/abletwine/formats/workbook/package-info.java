/**
 * Workbooks: sheets of {@code .xlsx} (ECMA-376) and {@code .ods} (OpenDocument) as tables, and
 * tables as sheets. A file enters as an archive of XML parts ({@code Archive}, {@code Xml}); a
 * {@code Workbook} finds its sheets, {@code SheetCells} goes through one row by row without holding
 * it, and {@code SheetReader} makes a table's rows of them. Start reading at {@code SheetTable}.
 */
@org.jspecify.annotations.NullMarked
package org.abletwine.formats.workbook;
