package org.abletwine.match;

/**
 * A reference key that a person might take for the one asked for.
 *
 * @param key the reference key
 * @param likeness from 0 to 1; 1 when only case, accents and punctuation differ
 * @param clear whether it stands out: it is very like, and far more so than the next. Of such ones
 *     at least 98 of 100 were right on lists with the truth known
 * @param weak whether it is so little like that it mostly is not the one meant
 */
public record NearMiss(String key, double likeness, boolean clear, boolean weak) {}
