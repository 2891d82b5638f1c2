package org.abletwine.formats.json;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonToken;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.abletwine.enrich.Enrichment;
import org.abletwine.formats.OwnRows;
import org.abletwine.lookup.Lookup;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.Table;
import org.abletwine.table.TableOptions;
import org.abletwine.table.TableSink;
import org.abletwine.table.Tables;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Objects as rows, and rows as objects. */
class JsonTest {
  private static final TableOptions COLUMNS = TableOptions.builder().nested(true).build();

  @TempDir private Path folder;

  private Table table(String name, String text, TableOptions options) throws IOException {
    return Tables.file(Files.writeString(folder.resolve(name), text), options);
  }

  private Table lines(String... objects) throws IOException {
    return table("t.jsonl", String.join("\n", objects) + "\n", TableOptions.NONE);
  }

  @Test
  void membersAreColumnsInTheOrderTheyAreMet() throws IOException {
    Table table =
        lines("{\"b\":1,\"a\":\"x\"}", "{\"a\":null}", "{}", "{\"c\":\"\",\"a\":true,\"b\":2.50}");
    assertThat(table.schema().names()).containsExactly("b", "a", "c");
    assertThat(OwnRows.of(table))
        .containsExactly(
            Arrays.asList("1", "x", null),
            Arrays.asList(null, null, null),
            Arrays.asList(null, null, null),
            Arrays.asList("2.50", "true", ""));
    assertThat(table.type("b")).isEqualTo(ColumnType.of(ColumnType.Kind.NUMBER));
    assertThat(table.type("a")).as("texts beside true").isNull();
    assertThat(table.type("c")).isNull();
  }

  @Test
  void numbersKeepTheirDigits() throws IOException {
    List<String> numbers =
        List.of("0.10", "1e400", "-0", "12345678901234567890123", "1E-7", "0.1000000000000000055");
    Table table = lines(numbers.stream().map(n -> "{\"n\": " + n + "}").toArray(String[]::new));
    assertThat(OwnRows.of(table)).isEqualTo(numbers.stream().map(List::of).toList());
  }

  @Test
  void objectsWithinObjectsAreTextOrColumns() throws IOException {
    String text =
        "[{\"id\": 1, \"at\": {\"city\": \"Kelter\", \"geo\": {\"x\": 1.50}, \"tags\": [ 1, null ]}},"
            + " {\"id\": 2, \"at\": null}, {\"id\": 3, \"at\": {}}]";
    assertThat(OwnRows.of(table("t.json", text, TableOptions.NONE)))
        .containsExactly(
            List.of("1", "{\"city\":\"Kelter\",\"geo\":{\"x\":1.50},\"tags\":[1,null]}"),
            Arrays.asList("2", null),
            List.of("3", "{}"));
    Table apart = table("t.json", text, COLUMNS);
    assertThat(apart.schema().names()).containsExactly("id", "at.city", "at.geo", "at.tags", "at");
    assertThat(OwnRows.of(apart))
        .containsExactly(
            Arrays.asList("1", "Kelter", "{\"x\":1.50}", "[1,null]", null),
            Arrays.asList("2", null, null, null, null),
            Arrays.asList("3", null, null, null, null));
  }

  @Test
  void wordsThatStandForNull() throws IOException {
    TableOptions nulls = new TableOptions(null, null, null, null, List.of("n/a", "0"), false);
    assertThat(OwnRows.of(table("t.jsonl", "{\"a\":\"n/a\",\"b\":0,\"c\":\"\"}\n", nulls)))
        .containsExactly(Arrays.asList(null, null, ""));
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '~',
      value = {
        "{\"a\":1}|{\"a\":1,\"a\":2}~line 2, object 2: the member \"a\" stands twice",
        "{\"a\":1}|[1]~line 2, object 2: expected an object such as {\"code\": \"A1\"}, found an array",
        "{\"a\":1}||\"x\"~line 3, object 2: expected an object such as {\"code\": \"A1\"}, found a text",
        "null~line 1, object 1: expected an object such as {\"code\": \"A1\"}, found null",
        "{\"a\":1|~line 2, object 1, character 1: Unexpected end-of-input",
        "{\"a\":1}|{\"a\":x}~line 2, object 2, character 6: Unrecognized token 'x'",
        "[{\"a\":1}|,{\"a\":2}~line 2, object 2",
        "[{\"a\":1}]|{\"a\":2}~line 2, object 1: there is more behind the end of the array",
        "{\"a\":\"\\ud800\"}~line 1, object 1: a text holds U+D800, half of a surrogate pair",
        "[]~holds no object with members",
        "{}|{}~holds no object with members",
      })
  void errorsNameTheLineAndTheObject(String text, String message) throws IOException {
    Table table = table("t.jsonl", text.replace('|', '\n'), TableOptions.NONE);
    assertThatThrownBy(() -> OwnRows.of(table))
        .isInstanceOf(DataException.class)
        .hasMessageStartingWith("" + folder)
        .hasMessageContaining(message);
  }

  /** Nesting, names and numbers beyond what can be held are told, not met as a crash. */
  @ParameterizedTest
  @ValueSource(ints = {1, 2, 3})
  void hostileObjectsAreRefused(int kind) throws IOException {
    String value =
        switch (kind) {
          case 1 -> "[".repeat(200_000);
          case 2 -> "9".repeat(2_000_000);
          default -> "{\"a\":".repeat(200_000);
        };
    Table table = lines("{\"a\":1}", "{\"a\":" + value + "}");
    assertThatThrownBy(() -> OwnRows.of(table))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("line 2, object 2")
        .hasMessageNotContaining("Exception");
  }

  @Test
  void whatIsKnownToBeANumberLeavesAsOne() throws IOException {
    OwnRows own =
        new OwnRows(
            List.of("code", "kg", "ok"),
            List.of(
                Arrays.asList("01", "7.50", "true"),
                Arrays.asList("02", "007", "yes"),
                Arrays.asList("03", null, "false"),
                Arrays.asList("04", "x\ty", null)));
    own.types().put("kg", ColumnType.of(ColumnType.Kind.NUMBER));
    own.types().put("ok", ColumnType.of(ColumnType.Kind.BOOLEAN));
    Path array = folder.resolve("out.json");
    Path perLine = folder.resolve("out.jsonl");
    for (Path out : List.of(array, perLine)) {
      try (TableSink sink = Tables.sink(out)) {
        Enrichment.of(own).build().writeTo(sink);
      }
    }
    List<String> objects =
        List.of(
            "{\"code\": \"01\", \"kg\": 7.50, \"ok\": true}",
            "{\"code\": \"02\", \"kg\": \"007\", \"ok\": \"yes\"}",
            "{\"code\": \"03\", \"kg\": null, \"ok\": false}",
            "{\"code\": \"04\", \"kg\": \"x\\ty\", \"ok\": null}");
    assertThat(perLine).content().isEqualTo(String.join("\n", objects) + "\n");
    assertThat(array).content().isEqualTo("[\n" + String.join(",\n", objects) + "\n]\n");
  }

  @Test
  void anArrayOfNoRowsIsOne() {
    Path out = folder.resolve("none.json");
    try (TableSink sink = Tables.sink(out)) {
      Enrichment.of(new OwnRows(List.of("a"), List.of())).build().writeTo(sink);
    }
    assertThat(out).content().isEqualTo("[\n]\n");
  }

  /** Whatever counts as a number here is one for the parser, and the other way round. */
  @Test
  void numbersAreThoseOfTheParser() throws IOException {
    Random random = new Random(1);
    String signs = "0123456789.-+eE x";
    for (int round = 0; round < 200_000; round++) {
      StringBuilder text = new StringBuilder();
      for (int i = random.nextInt(7); i >= 0; i--) {
        text.append(signs.charAt(random.nextInt(signs.length())));
      }
      byte[] bytes = text.toString().getBytes(StandardCharsets.US_ASCII);
      assertThat(JsonEncoder.number(bytes, 0, bytes.length)).as("%s", text).isEqualTo(parsed(text));
    }
  }

  private static boolean parsed(CharSequence text) {
    if (!text.toString().equals(text.toString().strip())) {
      return false;
    }
    try (JsonParser parser = new JsonFactory().createParser(text.toString())) {
      JsonToken token = parser.nextToken();
      return token != null
          && token.isNumeric()
          && parser.getText().contentEquals(text)
          && parser.nextToken() == null;
    } catch (IOException e) {
      return false;
    }
  }

  /** A file changed anywhere: a clear error, or a table. */
  @Test
  void mutatedFilesAreErrorsOrTables() throws IOException {
    byte[] whole =
        ("[{\"id\": 1, \"t\": \"a\\u00e9\\n\", \"n\": -1.5e3, \"o\": {\"x\": [true, null]}},\n"
                + "{\"id\": 2, \"t\": \"\uD83C\uDF3E\", \"n\": 0, \"o\": {}}]\n")
            .getBytes(StandardCharsets.UTF_8);
    Random random = new Random(2);
    int errors = 0;
    for (int round = 0; round < 5_000; round++) {
      byte[] mutated = Arrays.copyOf(whole, whole.length - random.nextInt(3));
      for (int i = random.nextInt(3); i >= 0; i--) {
        mutated[random.nextInt(mutated.length)] =
            (byte)
                (random.nextBoolean()
                    ? "{}[],:\"\\ \n01e-".charAt(random.nextInt(14))
                    : random.nextInt(256));
      }
      Path file = Files.write(folder.resolve("m.json"), mutated);
      try {
        OwnRows.of(Tables.file(file, random.nextBoolean() ? COLUMNS : TableOptions.NONE));
      } catch (DataException e) {
        errors++;
        assertThat(e.getMessage()).startsWith("" + file).doesNotContain("Exception", "(Source");
      }
    }
    assertThat(errors).isGreaterThan(2_000);
  }

  @Test
  void objectsAreReferencesToo() throws IOException {
    Table growers =
        lines("{\"code\":\"G1\",\"name\":\"Ann\"}", "{\"name\":\"Ben\",\"code\":\"G2\"}");
    OwnRows tickets = new OwnRows(List.of("g"), List.of(List.of("G2"), List.of("G3")));
    Path out = folder.resolve("out.csv");
    try (TableSink sink = Tables.sink(out)) {
      Enrichment.of(tickets)
          .lookup(Lookup.in(growers).key("g", "code").bring("name"))
          .build()
          .writeTo(sink);
    }
    assertThat(out).content().isEqualTo("g,name\nG2,Ben\nG3,\n");
  }
}
