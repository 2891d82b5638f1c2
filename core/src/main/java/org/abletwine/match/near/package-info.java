/**
 * Near misses: the reference keys that a person would take for the one meant. In go the keys of a
 * reference ({@link org.abletwine.match.near.NearKeys}), out comes for a key that did not match up
 * to three of them with their likeness. Start reading at {@code NearSearch}: {@code FoldedText}
 * leaves out what nobody compares by, {@code PieceIndex} finds the keys that share rare pieces,
 * {@code Likeness} compares words, and {@code Judgement} says which stand out.
 */
@NullMarked
package org.abletwine.match.near;

import org.jspecify.annotations.NullMarked;
