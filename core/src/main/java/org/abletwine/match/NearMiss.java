package org.abletwine.match;

/**
 * A reference key like the one asked for.
 *
 * @param key the reference key
 * @param similarity from 0 to 1
 */
public record NearMiss(String key, double similarity) {}
