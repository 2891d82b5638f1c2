package org.abletwine.plan.draft;

import org.jspecify.annotations.Nullable;

/**
 * A cell in which a table made by hand differs from what the plan makes.
 *
 * @param row the transaction, 1-based, header not counted
 * @param key what tells the row from others, such as a ticket number; empty where nothing does
 * @param column the column, as the table made by hand calls it
 * @param byHand what stands there; null for nothing
 * @param byPlan what the plan makes; null for nothing
 * @param reason the likely reason, in words
 * @param follows whether it only follows from another cell of the row that differs
 */
public record Slip(
    long row,
    String key,
    String column,
    @Nullable String byHand,
    @Nullable String byPlan,
    String reason,
    boolean follows) {}
