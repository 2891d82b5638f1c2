package org.abletwine.lookup;

import java.util.Locale;
import java.util.Objects;
import org.abletwine.lookup.Aggregate.Function;
import org.abletwine.table.SettingException;
import org.abletwine.table.text.NearestName;
import org.jspecify.annotations.Nullable;

/**
 * A column to fetch, or an aggregate over the rows a key fits.
 *
 * @param source the column of the reference; {@code *} for {@code count(*)}
 * @param as what it is called in the output
 * @param aggregate the aggregate, or null for the column's value
 */
public record Attribute(String source, String as, @Nullable Aggregate aggregate) {
  /** Holds that nothing is missing. */
  public Attribute {
    Objects.requireNonNull(source, "source");
    Objects.requireNonNull(as, "as");
  }

  /**
   * A column to fetch.
   *
   * @param source the column of the reference
   * @param as what it is called in the output
   */
  public Attribute(String source, String as) {
    this(source, as, null);
  }

  /**
   * Reads {@code name}, {@code name as other}, or {@code function(name) as other} with the ISO SQL
   * aggregates {@code sum}, {@code avg}, {@code min}, {@code max}, {@code count} and {@code
   * listagg(name, 'separator')}. A name that is not a plain word may stand in double quotes, a
   * double quote in it written twice.
   *
   * @param text the attribute as a plan or option writes it
   * @return the attribute
   * @throws org.abletwine.table.SettingException when it has none of these forms
   */
  public static Attribute parse(String text) {
    Objects.requireNonNull(text, "text");
    NameReader names = new NameReader(text, "bring");
    String word = names.function();
    if (word != null) {
      return aggregate(names, word, text);
    }
    String source = names.name();
    if (names.atEnd()) {
      return new Attribute(source, source);
    }
    names.word("as");
    String as = names.name();
    names.requireEnd();
    return new Attribute(source, as);
  }

  private static Attribute aggregate(NameReader names, String word, String text) {
    if (!Aggregate.words().contains(word.toLowerCase(Locale.ROOT))) {
      throw new SettingException(
          "bring: `"
              + text
              + "`: no aggregate is called \""
              + word
              + "\"; "
              + NearestName.hint(word, Aggregate.words()));
    }
    Function function = Function.valueOf(word.toUpperCase(Locale.ROOT));
    if (function == Function.COUNT && names.take("distinct")) {
      function = Function.COUNT_DISTINCT;
    }
    String source = names.argument();
    String separator = ", ";
    if (function == Function.LISTAGG && names.take(',')) {
      separator = names.literal();
    }
    names.word(")");
    if (source.equals("*") && function != Function.COUNT) {
      throw new SettingException("bring: `" + text + "`: only count takes *");
    }
    if (names.atEnd()) {
      throw new SettingException("bring: `" + text + "` needs a name; write " + text + " as NAME");
    }
    names.word("as");
    String as = names.name();
    names.requireEnd();
    return new Attribute(source, as, new Aggregate(function, separator));
  }

  /** Whether it is of rows themselves, as {@code count(*)}, and of none of their columns. */
  boolean ofRows() {
    return aggregate != null && source.equals("*");
  }

  @Override
  public String toString() {
    String what = aggregate == null ? source : aggregate.of(source);
    return what.equals(as) ? what : what + " as " + as;
  }
}
