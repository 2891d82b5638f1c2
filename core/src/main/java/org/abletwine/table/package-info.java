/**
 * Tables, and where rows go. In: files, or tables of one's own. Out: rows of texts, and what each
 * column is. Start reading at {@link org.abletwine.table.Tables}.
 *
 * <pre>{@code
 * Table growers = Tables.file(Path.of("growers.csv"));
 * try (Rows rows = growers.rows()) {
 *   for (List<String> row = rows.next(); row != null; row = rows.next()) {
 *     System.out.println(row.get(growers.schema().indexOf("name")));
 *   }
 * }
 * Table ours = Tables.of(List.of("code", "name"), List.of(List.of("G1", "Moor")));
 * TableOptions options = TableOptions.builder().delimiter(';').nulls(List.of("n/a")).build();
 * }</pre>
 */
@NullMarked
package org.abletwine.table;

import org.jspecify.annotations.NullMarked;
