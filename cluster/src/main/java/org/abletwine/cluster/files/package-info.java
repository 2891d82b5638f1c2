/**
 * Files that the engine reaches, such as those of an object store, as files of Java: so that
 * reading and writing are the same wherever they lie. In goes an address ({@link
 * org.abletwine.cluster.files.EngineFiles}), out comes a path.
 */
@NullMarked
package org.abletwine.cluster.files;

import org.jspecify.annotations.NullMarked;
