/**
 * The demo data: the made-up growers' co-operative Wendle Vale. In: a size and a seed. Out: a
 * folder of tables with every trouble the tool is for, and how often each was planted. Start
 * reading at {@link org.abletwine.demo.WendleVale}.
 */
@NullMarked
package org.abletwine.demo;

import org.jspecify.annotations.NullMarked;
