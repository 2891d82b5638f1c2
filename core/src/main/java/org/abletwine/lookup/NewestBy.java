package org.abletwine.lookup;

import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** The one rule with a column, as options write it. */
final class NewestBy {
  /** The rule, for messages. */
  static final String FORM = "newest-by=COLUMN";

  /** An option has an equals sign; a plan, and what a rule is shown as, have a colon. */
  private static final Pattern WRITTEN = Pattern.compile("newest-by\\s*[=:]\\s*(\\S.*)");

  private NewestBy() {}

  /** The column of a rule; null when it is not this one. */
  static @Nullable String column(String rule) {
    Matcher written = WRITTEN.matcher(rule.strip());
    return written.matches() ? written.group(1) : null;
  }
}
