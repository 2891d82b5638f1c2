/**
 * The command line, and the only place that prints. In: arguments. Out: results on standard output,
 * messages on standard error, an exit status. Start reading at {@link org.abletwine.cli.Main}.
 */
@NullMarked
package org.abletwine.cli;

import org.jspecify.annotations.NullMarked;
