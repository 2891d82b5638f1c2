package org.abletwine.table.text;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.abletwine.table.DataException;
import org.abletwine.table.Schema;
import org.abletwine.table.SettingException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Text as bytes, its numbers and hashes, against the library's strings and decimals. */
class TextTest {
  private static final String SIGNS = "0123456789012345678901234567890123456789.-+ eE\tx/:";

  /** As the plain reader sees it, with other bytes around; {@code null} when it is not plain. */
  private static BigDecimal plain(String text, int before, int after) {
    byte[] bytes = ("7".repeat(before) + text + "3".repeat(after)).getBytes(StandardCharsets.UTF_8);
    long plain = DecimalText.plain(bytes, before, bytes.length - after);
    return plain == DecimalText.NOT_PLAIN
        ? null
        : BigDecimal.valueOf(DecimalText.digits(plain), DecimalText.places(plain));
  }

  /** The plain way, on strings: digits with or without sign and point, spaces around left out. */
  private static BigDecimal oracle(String text) {
    int from = 0;
    int to = text.length();
    while (from < to && Character.isWhitespace(text.charAt(from))) {
      from++;
    }
    while (from < to && Character.isWhitespace(text.charAt(to - 1))) {
      to--;
    }
    String bare = text.substring(from, to);
    boolean plain = bare.matches("[+-]?([0-9]+\\.?[0-9]*|\\.[0-9]+)");
    long digits = bare.chars().filter(Character::isDigit).count();
    return plain && digits <= DecimalText.MOST_PLAIN_DIGITS ? new BigDecimal(bare) : null;
  }

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4})
  void plainNumbersAreReadAsTheLibraryDoes(long seed) {
    Random random = new Random(seed);
    for (int round = 0; round < 60_000; round++) {
      StringBuilder text = new StringBuilder();
      for (int i = random.nextInt(random.nextInt(4) == 0 ? 22 : 9); i >= 0; i--) {
        text.append(SIGNS.charAt(random.nextInt(SIGNS.length() - random.nextInt(11))));
      }
      int after = random.nextInt(12);
      assertThat(plain(text.toString(), random.nextInt(3), after))
          .as("[%s]", text)
          .isEqualTo(oracle(text.toString()));
    }
  }

  /** Else every number would be read digit by digit, and nobody would notice but by the clock. */
  @Test
  void upToEightDigitsAreReadAtOnce() {
    Random random = new Random(5);
    for (int round = 0; round < 20_000; round++) {
      int length = 1 + random.nextInt(8);
      int point = random.nextInt(2 * length);
      StringBuilder text = new StringBuilder();
      for (int i = 0; i < length; i++) {
        text.append(i == point && length > 1 ? '.' : (char) ('0' + random.nextInt(10)));
      }
      byte[] bytes = ("9" + text + "/:.-9999").getBytes(StandardCharsets.US_ASCII);
      long read = DecimalText.upToEight(bytes, 1, length);
      assertThat(BigDecimal.valueOf(DecimalText.digits(read), DecimalText.places(read)))
          .as("[%s]", text)
          .isEqualTo(oracle(text.toString()));
    }
    for (String text : List.of("-1", "/", ":", ".", "1.2.3", "1 ", "\u00e9", "1234567a")) {
      byte[] bytes = (text + "12345678").getBytes(StandardCharsets.UTF_8);
      assertThat(DecimalText.upToEight(bytes, 0, bytes.length - 8))
          .as(text)
          .isEqualTo(DecimalText.NOT_PLAIN);
    }
  }

  @ParameterizedTest
  @CsvSource({
    "1,1",
    "12345678,12345678",
    "1234567.8,1234567.8",
    ".5,0.5",
    "5.,5",
    "99999999999999999,99999999999999999",
    "-99999999999999999,-99999999999999999",
    "0.0000000000000001,0.0000000000000001",
    "00000000000000001,1",
    "100000000000000000,",
    ".,",
    "-,",
    "+.,",
    "1.2.3,",
    "--1,",
  })
  void theEdgesOfPlainNumbers(String text, String expected) {
    for (int after : new int[] {0, 1, 7, 8, 9}) {
      BigDecimal read = plain(text, 1, after);
      if (expected == null) {
        assertThat(read).isNull();
      } else {
        assertThat(read).isEqualByComparingTo(expected);
      }
    }
  }

  @Test
  void nothingIsNoNumber() {
    assertThat(plain("", 1, 9)).isNull();
    assertThat(plain("  ", 0, 0)).isNull();
  }

  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3})
  void numbersAreWrittenAsTheLibraryDoes(long seed) {
    Random random = new Random(seed);
    byte[] into = new byte[60];
    for (int round = 0; round < 60_000; round++) {
      long number = random.nextLong() >> random.nextInt(64);
      number = round == 0 ? Long.MIN_VALUE : round == 1 ? Long.MAX_VALUE : number;
      number = round % 7 == 3 ? DecimalText.power(random.nextInt(19)) - random.nextInt(2) : number;
      int places = random.nextInt(19);
      int from = random.nextInt(3);
      int end = DecimalText.write(number, places, into, from);
      assertThat(new String(into, from, end - from, StandardCharsets.US_ASCII))
          .isEqualTo(BigDecimal.valueOf(number, places).toPlainString());
    }
  }

  @Test
  void charactersWhereTheyLieAreText() {
    CharSlice slice = new CharSlice();
    CharSequence text = slice.over("<oats>".toCharArray(), 1, 4);
    assertThat(text).hasToString("oats").hasSize(4);
    assertThat(text.charAt(1)).isEqualTo('a');
    assertThat(text.subSequence(1, 3)).isEqualTo("at");
  }

  @Test
  void powersAndShorterNumbers() {
    for (int power = 0; power <= 18; power++) {
      long ten = DecimalText.power(power);
      assertThat(BigInteger.valueOf(ten)).isEqualTo(BigInteger.TEN.pow(power));
      for (long number : new long[] {0, 7, 1_234_567_890_123_456_789L, Long.MAX_VALUE, ten}) {
        assertThat(DecimalText.shorter(number, power)).isEqualTo(number / ten);
      }
    }
  }

  @Test
  void anyNumberIsReadWithinBounds() {
    assertThat(DecimalText.read(" 1e3 ")).isEqualByComparingTo("1000");
    assertThat(DecimalText.read("\u0661")).as("a digit of another script").isNull();
    assertThat(DecimalText.read("7\u0080")).isNull();
    assertThat(DecimalText.read("")).isNull();
    assertThat(DecimalText.read("seven")).isNull();
    assertThat(DecimalText.read("1e1000")).isEqualByComparingTo(BigDecimal.TEN.pow(1000));
    assertThat(DecimalText.read("1e1001")).isNull();
    assertThat(DecimalText.read("1e-1000")).isNotNull();
    assertThat(DecimalText.read("1e-1001")).isNull();
    assertThat(DecimalText.read("1e-2147483648")).isNull();
    assertThat(DecimalText.read("1".repeat(2_100))).isNotNull();
    assertThat(DecimalText.read("1".repeat(2_101))).isNull();
  }

  /** Every character there is, alone and beside others. */
  @Test
  void textIsWrittenAndReadAsTheLibraryDoes() {
    for (int c = 0; c <= Character.MAX_CODE_POINT; c += c < 0x11000 ? 1 : 97) {
      if (c >= Character.MIN_SURROGATE && c <= Character.MAX_SURROGATE) {
        continue;
      }
      String text = "a" + new String(Character.toChars(c)) + "é";
      byte[] expected = text.getBytes(StandardCharsets.UTF_8);
      byte[] into = new byte[20];
      int end = Utf8.write(text, into, 2);
      assertThat(end).isEqualTo(2 + expected.length);
      assertThat(java.util.Arrays.copyOfRange(into, 2, end)).isEqualTo(expected);
      assertThat(Utf8.text(into, 2, end)).isEqualTo(text);
      assertThat(Utf8.points(into, 2, end)).isEqualTo(3);
      assertThat(Utf8.points(into, 2, end - 2)).isEqualTo(2);
      assertThat(Utf8.ascii(into, 2, end)).isFalse();
      assertThat(Utf8.ascii(into, 2, end - 2)).isEqualTo(c < 0x80);
      assertThat(Utf8.leads(into[2 + 1])).isTrue();
      assertThat(Utf8.leads(into[end - 1])).isFalse();
      assertThat(Utf8.bytes(text)).isEqualTo(expected);
    }
    assertThat(Utf8.ascii(new byte[] {-1}, 0, 0)).as("nothing").isTrue();
  }

  @ParameterizedTest
  @ValueSource(strings = {"a\uD800", "\uDC00b", "\uD800\uD800", "x\uD83Cy"})
  void halfOfAPairIsRefused(String text) {
    assertThatThrownBy(() -> Utf8.bytes(text))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("half of a surrogate pair")
        .hasMessageContaining("at character " + (Character.isSurrogate(text.charAt(0)) ? 1 : 2));
  }

  @Test
  void equalBytesHaveEqualHashesWhateverSurroundsThem() {
    Random random = new Random(1);
    Map<String, Long> known = new HashMap<>();
    Set<Long> high = new HashSet<>();
    for (int round = 0; round < 20_000; round++) {
      byte[] bytes = new byte[40];
      random.nextBytes(bytes);
      int length = random.nextInt(25);
      String text = Integer.toString(random.nextInt(500), 2) + "x".repeat(length);
      text = text.substring(0, Math.min(text.length(), 24));
      int start = random.nextInt(8);
      byte[] of = text.getBytes(StandardCharsets.US_ASCII);
      System.arraycopy(of, 0, bytes, start, of.length);
      long hash = ByteHash.of(bytes, start, start + of.length);
      Long before = known.putIfAbsent(text, hash);
      assertThat(hash).isEqualTo(before == null ? hash : before);
      high.add(hash >>> 32);
    }
    assertThat(high.size()).as("hardly any two meet").isGreaterThan(known.size() - 3);
  }

  /** Beginning, adding and ending by hand is what the whole does. */
  @Test
  void aHashCanBePutTogether() {
    byte[] bytes = "0123456789abcdefghi-------".getBytes(StandardCharsets.US_ASCII);
    for (int length = 0; length <= 19; length++) {
      long hash = ByteHash.begin(length);
      for (int at = 0; at < length; at += 8) {
        long word = 0;
        for (int i = Math.min(7, length - at - 1); i >= 0; i--) {
          word = word << 8 | bytes[at + i];
        }
        assertThat(ByteHash.word(bytes, at, length)).isEqualTo(word);
        hash = ByteHash.add(hash, word);
      }
      assertThat(ByteHash.of(bytes, 0, length)).isEqualTo(ByteHash.end(hash));
    }
    assertThat(ByteHash.word(bytes, 5, 5)).isZero();
    assertThat(ByteHash.word(bytes, 6, 5)).isZero();
    long a = ByteHash.of(bytes, 0, 8);
    assertThat(a).isNotEqualTo(ByteHash.of(bytes, 1, 9)).isNotZero();
    // a good hash turns over about half of its high bits when one bit of the text changes
    int turned = 0;
    for (int bit = 0; bit < 64; bit++) {
      byte[] other = bytes.clone();
      other[bit >> 3] ^= (byte) (1 << (bit & 7));
      turned += Long.bitCount((a ^ ByteHash.of(other, 0, 8)) >>> 40);
    }
    assertThat(turned / 64.0).isBetween(9.0, 15.0);
  }

  @Test
  void fewBytesAreCopiedAndManyToo() {
    for (int length = 0; length <= 40; length++) {
      for (int spare = 0; spare <= 17; spare++) {
        byte[] source = new byte[1 + length + spare];
        new Random(length).nextBytes(source);
        byte[] target = new byte[80];
        ShortCopy.copy(source, 1, length, target, 3);
        assertThat(java.util.Arrays.copyOfRange(target, 3, 3 + length))
            .isEqualTo(java.util.Arrays.copyOfRange(source, 1, 1 + length));
        assertThat(target[2]).isZero();
        assertThat(target[3 + length + 16]).isZero();
      }
    }
  }

  @Test
  void columnsAreFoundByName() {
    Schema schema = new Schema(java.util.List.of("code", "name"));
    assertThat(schema.require("name", "growers.csv")).isEqualTo(1);
    assertThat(schema.require("code", "growers.csv")).isZero();
    assertThatThrownBy(() -> schema.require("nam", "growers.csv"))
        .isInstanceOf(SettingException.class)
        .hasMessage("growers.csv has no column \"nam\"; did you mean \"name\"?");
    assertThat(schema).hasToString("Schema[code, name]");
    java.util.List<String> many = new java.util.ArrayList<>();
    for (int i = 0; i < 21; i++) {
      many.add("c" + i);
    }
    assertThat(new Schema(many).toString()).endsWith("c19] and 1 more");
    assertThat(new Schema(many.subList(0, 20)).toString()).endsWith("c19]");
  }
}
