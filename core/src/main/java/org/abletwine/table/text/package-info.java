/**
 * What a text is: bytes, their hash and order, decimals and dates read from them. Each of these is
 * here once. Start reading at {@link org.abletwine.table.text.Utf8}.
 */
@NullMarked
package org.abletwine.table.text;

import org.jspecify.annotations.NullMarked;
