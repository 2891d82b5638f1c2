package org.abletwine.lookup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.abletwine.table.SettingException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The short forms of keys, attributes and rules, as plans and options write them. */
class ShorthandTest {
  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      quoteCharacter = '`',
      value = {
        "code; code; code; equal",
        "code = no; code; no; equal",
        "code=no; code; no; equal",
        "\"Postal code\" = zip; Postal code; zip; equal",
        "\"say \"\"x\"\"\" = zip; say \"x\"; zip; equal",
        "day at-or-below effective_from; day; effective_from; at-or-below",
        "remark wildcard pattern; remark; pattern; wildcard",
        "\"Moist %\" between from_pct and \"to %\"; Moist %; from_pct; between",
        "`  \"Postal code\"   =   zip  `; Postal code; zip; equal",
        "`  \"Moist %\"   between   from_pct   and   \"to %\"  `; Moist %; from_pct; between"
      })
  void keyPartsAreRead(String text, String ours, String theirs, String rule) {
    KeyPart part = KeyPart.parse(text);
    assertThat(part.ours()).isEqualTo(ours);
    assertThat(part.theirs()).isEqualTo(theirs);
    assertThat(part.match().kind().word()).isEqualTo(rule);
    assertThat(part.theirsTo()).isEqualTo(rule.equals("between") ? "to %" : null);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      quoteCharacter = '`',
      value = {
        "code =; a column name is missing",
        "= no; a column name is missing",
        "\"code = no; the double quote is not closed",
        "\"code\" no; expected \"=\" after the first name",
        "pct between from_pct; write OURS between FROM and TO",
        "``; a column name is missing"
      })
  void keyPartsOfNoFormAreRefused(String text, String message) {
    assertThatThrownBy(() -> KeyPart.parse(text))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("key")
        .hasMessageContaining(message);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      quoteCharacter = '`',
      value = {
        "name; name; name; ",
        "name as grower_name; name; grower_name; ",
        "\"Full name\" as n; Full name; n; ",
        "sum(price) as total; price; total; SUM",
        "SUM( price ) AS total; price; total; SUM",
        "count(*) as offers; *; offers; COUNT",
        "count(distinct buyer) as buyers; buyer; buyers; COUNT_DISTINCT",
        "listagg(buyer, ' / ') as all_buyers; buyer; all_buyers; LISTAGG",
        "max(\"Net kg\") as most; Net kg; most; MAX",
        "` \"Full name\"   as   n `; Full name; n; ",
        "` sum(  price  )   as   total `; price; total; SUM",
        "` listagg(  \"All buyers\" ,  ' / '  )  as  b `; All buyers; b; LISTAGG",
        "listagg(buyer,'') as b; buyer; b; LISTAGG",
        "count(\"distinct buyer\") as n; distinct buyer; n; COUNT",
        "count(DISTINCT\"net kg\") as n; net kg; n; COUNT_DISTINCT",
        "count(distinction) as n; distinction; n; COUNT",
        "count(distinct) as n; distinct; n; COUNT"
      })
  void attributesAreRead(String text, String source, String as, String function) {
    Attribute attribute = Attribute.parse(text);
    assertThat(attribute.source()).isEqualTo(source);
    assertThat(attribute.as()).isEqualTo(as);
    Aggregate aggregate = attribute.aggregate();
    assertThat(aggregate == null ? null : aggregate.function().name()).isEqualTo(function);
    boolean plain = source.matches("\\w+|\\*");
    assertThat(plain ? Attribute.parse(attribute.toString()) : attribute).isEqualTo(attribute);
  }

  @Test
  void theSeparatorOfListaggIsKept() {
    Aggregate aggregate = Attribute.parse("listagg(buyer, ' / ') as b").aggregate();
    assertThat(aggregate).isNotNull();
    assertThat(aggregate.separator()).isEqualTo(" / ");
    assertThat(Attribute.parse("listagg(buyer) as b").aggregate())
        .extracting(Aggregate::separator)
        .isEqualTo(", ");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = ';',
      quoteCharacter = '`',
      value = {
        "sum(*) as n; only count takes *",
        "median(x) as m; no aggregate is called \"median\"",
        "sum(x); needs a name; write sum(x) as NAME",
        "\"name\" is other; expected \"as\" after the first name",
        "listagg(x, 1) as y; expected a text in single quotes",
        "sum(x as y; expected"
      })
  void attributesOfNoFormAreRefused(String text, String message) {
    assertThatThrownBy(() -> Attribute.parse(text))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("bring")
        .hasMessageContaining(message.split("; ")[0]);
  }

  @ParameterizedTest
  @CsvSource({
    "flag, FLAG, ",
    "first, FIRST, ",
    "last, LAST, ",
    "longest, LONGEST, ",
    "each, EACH, ",
    "'newest-by: seen', NEWEST_BY, seen",
    "'newest-by=last seen ', NEWEST_BY, last seen"
  })
  void rulesForSeveralAreRead(String text, Several.Rule rule, String column) {
    Several several = Several.parse(text);
    assertThat(several.rule()).isEqualTo(rule);
    assertThat(several.column()).isEqualTo(column);
    assertThat(Several.parse(several.toString())).isEqualTo(several);
  }

  @ParameterizedTest
  @CsvSource({
    "first, FIRST, ",
    "last, LAST, ",
    "fullest, FULLEST, ",
    "identical, IDENTICAL, ",
    "'newest-by = seen', NEWEST_BY, seen",
    "newest-by:seen, NEWEST_BY, seen"
  })
  void rulesForDuplicatesAreRead(String text, Duplicates.Rule rule, String column) {
    Duplicates duplicates = Duplicates.parse(text);
    assertThat(duplicates.rule()).isEqualTo(rule);
    assertThat(duplicates.column()).isEqualTo(column);
    assertThat(Duplicates.parse(duplicates.toString())).isEqualTo(duplicates);
  }

  @Test
  void rulesOfNoNameAreRefusedWithTheNearest() {
    for (String none : new String[] {"newest-by", "newest-by=", "newest-by: ", "keep", "fail"}) {
      assertThatThrownBy(() -> Duplicates.parse(none))
          .isInstanceOf(SettingException.class)
          .hasMessageStartingWith("no rule is called \"" + none.strip() + "\"; ");
    }
    assertThatThrownBy(() -> Duplicates.parse("newest"))
        .hasMessageEndingWith("did you mean \"newest-by=COLUMN\"?");
    assertThatThrownBy(() -> Several.parse("frist"))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("did you mean \"first\"?");
  }
}
