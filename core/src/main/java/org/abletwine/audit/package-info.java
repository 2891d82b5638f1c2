/**
 * Looking before joining. In: tables. Out: where a key stands twice, how far two keys agree and
 * what would make them agree, what a table's columns hold. Start reading at {@link
 * org.abletwine.audit.OverlapAudit}.
 */
@NullMarked
package org.abletwine.audit;

import org.jspecify.annotations.NullMarked;
