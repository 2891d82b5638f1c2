package org.abletwine.lookup;

import org.abletwine.table.SettingException;
import org.jspecify.annotations.Nullable;

/**
 * Reads the short forms of keys and attributes: names, plain or in double quotes as in ISO SQL,
 * with a word or sign between them. A plain name may hold spaces, as long as it is not mistaken for
 * the word that follows.
 */
final class NameReader {
  private final String text;
  private final String setting;
  private int at;

  /**
   * @param text the short form
   * @param setting what it is for, for messages
   */
  NameReader(String text, String setting) {
    this.text = text.strip();
    this.setting = setting;
  }

  /** {@return whether all has been read} */
  boolean atEnd() {
    skipSpaces();
    return at == text.length();
  }

  /** Reads a name. */
  String name() {
    skipSpaces();
    if (at < text.length() && text.charAt(at) == '"') {
      return quotedName();
    }
    int start = at;
    while (at < text.length() && text.charAt(at) != '=' && !startsWithAs()) {
      at++;
    }
    String name = text.substring(start, at).strip();
    if (name.isEmpty()) {
      throw wrong("a column name is missing");
    }
    return name;
  }

  /** Reads a word that an opening bracket follows, and the bracket; null when there is none. */
  @Nullable String function() {
    skipSpaces();
    int end = at;
    while (end < text.length() && Character.isLetter(text.charAt(end))) {
      end++;
    }
    if (end == at || end == text.length() || text.charAt(end) != '(') {
      return null;
    }
    String word = text.substring(at, end);
    at = end + 1;
    return word;
  }

  /** Reads a name up to a comma or a closing bracket. */
  String argument() {
    skipSpaces();
    if (at < text.length() && text.charAt(at) == '"') {
      return quotedName();
    }
    int start = at;
    while (at < text.length() && text.charAt(at) != ',' && text.charAt(at) != ')') {
      at++;
    }
    String name = text.substring(start, at).strip();
    if (name.isEmpty()) {
      throw wrong("a column name is missing");
    }
    return name;
  }

  /** Takes a character when it comes next. */
  boolean take(char c) {
    skipSpaces();
    if (at < text.length() && text.charAt(at) == c) {
      at++;
      return true;
    }
    return false;
  }

  /** Takes a word when it comes next and something follows it that belongs to it. */
  boolean take(String word) {
    skipSpaces();
    int end = at + word.length();
    boolean there =
        text.regionMatches(true, at, word, 0, word.length())
            && end < text.length()
            && (Character.isWhitespace(text.charAt(end)) || text.charAt(end) == '"');
    if (there) {
      at = end;
    }
    return there;
  }

  /** Reads a text in single quotes, as in ISO SQL. */
  String literal() {
    skipSpaces();
    int end = at < text.length() && text.charAt(at) == '\'' ? text.indexOf('\'', at + 1) : -1;
    if (end < 0) {
      throw wrong("expected a text in single quotes");
    }
    String literal = text.substring(at + 1, end);
    at = end + 1;
    return literal;
  }

  private boolean startsWithAs() {
    return text.regionMatches(true, at, " as ", 0, 4);
  }

  private String quotedName() {
    StringBuilder name = new StringBuilder();
    for (int i = at + 1; i < text.length(); i++) {
      char c = text.charAt(i);
      if (c != '"') {
        name.append(c);
      } else if (i + 1 < text.length() && text.charAt(i + 1) == '"') {
        name.append('"');
        i++;
      } else {
        at = i + 1;
        return name.toString();
      }
    }
    throw wrong("the double quote is not closed");
  }

  /**
   * Reads a word or sign that must come next.
   *
   * @param word the word
   */
  void word(String word) {
    skipSpaces();
    if (!text.regionMatches(true, at, word, 0, word.length())) {
      throw wrong("expected \"" + word + "\" after the first name");
    }
    at += word.length();
  }

  /** Checks that nothing follows. */
  void requireEnd() {
    if (!atEnd()) {
      throw wrong("something follows that is not part of it: " + text.substring(at));
    }
  }

  private void skipSpaces() {
    while (at < text.length() && Character.isWhitespace(text.charAt(at))) {
      at++;
    }
  }

  private SettingException wrong(String what) {
    return new SettingException(setting + ": cannot read `" + text + "`: " + what);
  }
}
