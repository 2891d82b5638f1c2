package org.abletwine.lookup;

/**
 * A column to fetch.
 *
 * @param source the column of the reference
 * @param as what it is called in the output
 */
public record Attribute(String source, String as) {

  /**
   * Reads {@code name} or {@code name as other}. A name that is not a plain word may stand in
   * double quotes, a double quote in it written twice.
   *
   * @param text the attribute as a plan or option writes it
   * @throws org.abletwine.table.SettingException when it has neither form
   */
  public static Attribute parse(String text) {
    NameReader names = new NameReader(text, "bring");
    String source = names.name();
    if (names.atEnd()) {
      return new Attribute(source, source);
    }
    names.word("as");
    String as = names.name();
    names.requireEnd();
    return new Attribute(source, as);
  }

  @Override
  public String toString() {
    return source.equals(as) ? source : source + " as " + as;
  }
}
