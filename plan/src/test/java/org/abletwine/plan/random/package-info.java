/**
 * Whole plans drawn at random, run through files and the engine, and held against an oracle that
 * knows nothing but rows and tries each reference row in turn. Start reading at {@link
 * org.abletwine.plan.random.RandomPlansTest}.
 */
package org.abletwine.plan.random;
