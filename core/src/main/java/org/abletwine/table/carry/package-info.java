/**
 * What workers have counted, on its way from one process to another. In goes what a worker holds
 * ({@link Carrier#to}), out comes the same in a worker of the other process ({@link Carrier#from}).
 */
@NullMarked
package org.abletwine.table.carry;

import org.jspecify.annotations.NullMarked;
