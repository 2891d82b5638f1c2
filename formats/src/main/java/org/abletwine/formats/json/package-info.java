/**
 * JSON: an array of objects, or an object a line. In: objects, one a row. Out: the same. Start
 * reading at {@link org.abletwine.formats.json.JsonTable}.
 */
@NullMarked
package org.abletwine.formats.json;

import org.jspecify.annotations.NullMarked;
