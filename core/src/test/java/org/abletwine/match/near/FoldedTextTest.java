package org.abletwine.match.near;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What nobody compares by is gone; words stay parted, codes stay whole. */
class FoldedTextTest {
  @ParameterizedTest
  @CsvSource({
    "'  Ol\u00e9  O\u2019Neil-Smith. ', ole oneil smith",
    "Stra\u00dfe, strasse",
    "\u00c6r\u00f8 \u0141\u00f3d\u017a, aero lodz",
    "Larkfield & Fenwick, larkfield and fenwick",
    "A+B, a and b",
    "WV-100/20 4, wv 100 20 4",
    "WV-100/204, wv100204",
    "' 12-34 ', 1234",
    "\uff21\uff22\uff11, ab1",
    "'', ''",
    "'...', ''",
    "a\u200bb, ab"
  })
  void textsAreFolded(String text, String folded) {
    assertThat(FoldedText.of(text)).isEqualTo(folded);
  }
}
