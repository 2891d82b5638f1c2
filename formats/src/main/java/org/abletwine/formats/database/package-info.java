/**
 * Databases through JDBC: a table or a query as a table, and a table to write to. What enters is a
 * {@link Database}, which says where it is and where its credentials come from, and never holds
 * them; what leaves are tables and destinations as all others.
 *
 * <pre>{@code
 * Database prices = Database.at("jdbc:sqlite:prices.db");
 * Table table = prices.table("prices");
 * Table some = prices.query("select * from prices where commodity = ?", List.of("wheat"));
 * Destination enriched = prices.into("enriched", Database.Mode.REPLACE);
 * }</pre>
 */
@org.jspecify.annotations.NullMarked
package org.abletwine.formats.database;
