package org.abletwine.formats.database;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowable;

import io.zonky.test.db.postgres.embedded.EmbeddedPostgres;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import org.abletwine.enrich.Enrichment;
import org.abletwine.formats.OwnRows;
import org.abletwine.formats.database.Database.Mode;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.Rows;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.TableSink;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Tables of a server. */
class PostgresTest {
  private static final String SECRET = "hush-hush-17";

  @TempDir private static Path folder;

  private static EmbeddedPostgres server;
  private static Database database;

  @BeforeAll
  static void start() throws IOException, SQLException {
    Path data = folder.resolve("data");
    server = EmbeddedPostgres.builder().setDataDirectory(data).start();
    sql(
        "create role analyst login password '" + SECRET + "'",
        "grant all on schema public to analyst",
        "create schema other");
    Path rules = data.resolve("pg_hba.conf");
    Files.writeString(
        rules,
        "host all analyst 127.0.0.1/32 scram-sha-256\nhost all analyst ::1/128 scram-sha-256\n"
            + Files.readString(rules));
    sql("select pg_reload_conf()");
    Files.writeString(folder.resolve("user"), "analyst\n");
    Files.writeString(folder.resolve("password"), SECRET + "\n");
    database = at(folder.resolve("password"));
  }

  @AfterAll
  static void stop() throws IOException {
    server.close();
  }

  private static Database at(Path password) {
    return Database.at("jdbc:postgresql://localhost:" + server.getPort() + "/postgres")
        .as(Secret.file(folder.resolve("user")), Secret.file(password));
  }

  private static void sql(String... statements) throws SQLException {
    try (Connection connection = server.getPostgresDatabase().getConnection();
        Statement statement = connection.createStatement()) {
      for (String text : statements) {
        statement.execute(text);
      }
    }
  }

  private static long count(String query) throws SQLException {
    try (Connection connection = server.getPostgresDatabase().getConnection();
        Statement statement = connection.createStatement();
        ResultSet rows = statement.executeQuery(query)) {
      rows.next();
      return rows.getLong(1);
    }
  }

  private static void write(OwnRows rows, String table, Mode mode) {
    try (TableSink sink = database.into(table, mode).open(null)) {
      Enrichment.of(rows).build().writeTo(sink);
    }
  }

  @Test
  void valuesGoByTheTypesOfTheServer() throws SQLException {
    sql(
        "create table kinds(i int, n numeric, s numeric(12,2), f float8, r real, b boolean, d date,"
            + " t timestamp, z timestamptz, c text, x char(4), u uuid, j jsonb, a int[], m money,"
            + " k time)",
        "insert into kinds values(-7, 12345678901234567890.0123456789, 12.5, 0.1, 0.1, true,"
            + " '2026-08-01', '2026-08-01 14:30', '2026-08-01 14:30+02', '00123', 'ab',"
            + " 'a0eebc99-9c0b-4ef8-bb6d-6bb9bd380a11', '{\"a\": 1}', '{1,2}', 12.5, '14:30')",
        "insert into kinds values(null, 'NaN', null, 1e21, 'Infinity', false, '9999-12-31',"
            + " '1899-12-31 00:00:00.125', 'infinity', '', null, null, null, null, null, null)",
        "grant select on kinds to analyst");
    Table table = database.table("kinds");
    List<List<@Nullable String>> rows = OwnRows.of(table);
    assertThat(rows.get(0))
        .containsExactly(
            "-7",
            "12345678901234567890.0123456789",
            "12.50",
            "0.1",
            "0.1",
            "true",
            "2026-08-01",
            "2026-08-01T14:30:00",
            "2026-08-01T12:30:00Z",
            "00123",
            "ab  ",
            "a0eebc99-9c0b-4ef8-bb6d-6bb9bd380a11",
            "{\"a\": 1}",
            "{1,2}",
            "$12.50",
            "14:30:00");
    assertThat(rows.get(1).subList(0, 10))
        .containsExactly(
            null,
            "NaN",
            null,
            "1000000000000000000000",
            "Infinity",
            "false",
            "9999-12-31",
            "1899-12-31T00:00:00.125",
            "infinity",
            "");
    assertThat(table.type("i")).isEqualTo(ColumnType.of(ColumnType.Kind.INTEGER));
    assertThat(table.type("n")).isEqualTo(ColumnType.of(ColumnType.Kind.NUMBER));
    assertThat(table.type("d")).isEqualTo(ColumnType.of(ColumnType.Kind.DATE));
    assertThat(table.type("t")).isEqualTo(ColumnType.of(ColumnType.Kind.DATE_TIME));
    assertThat(table.type("b")).isEqualTo(ColumnType.of(ColumnType.Kind.BOOLEAN));
    assertThat(table.type("c")).isNull();
    assertThat(
            OwnRows.of(
                database.query(
                    "select i from kinds where i = ? and d > ?", List.of("-7", "2026-01-01"))))
        .containsExactly(List.of("-7"));
  }

  @Test
  void bytesAreRefusedByName() throws SQLException {
    sql("create table photos(no int, photo bytea)", "grant select on photos to analyst");
    assertThatThrownBy(() -> database.table("photos").schema())
        .isInstanceOf(DataException.class)
        .hasMessageContaining("column photo holds bytes (bytea)")
        .hasMessageContaining("query:");
  }

  private static OwnRows values() {
    List<List<@Nullable String>> rows = new ArrayList<>();
    for (int i = 0; i < 2_500; i++) {
      rows.add(
          Arrays.asList(
              "0" + i,
              i % 7 == 0 ? null : i + ".10",
              i % 5 == 0 ? "" : "é\n\"" + i,
              "2026-08-01",
              "2026-08-01T14:30:00",
              i % 2 == 0 ? "true" : null));
    }
    OwnRows own = new OwnRows(List.of("code", "num", "te xt", "day", "at", "truth"), rows);
    own.types().put("num", ColumnType.of(ColumnType.Kind.NUMBER));
    own.types().put("day", ColumnType.of(ColumnType.Kind.DATE));
    own.types().put("at", ColumnType.of(ColumnType.Kind.DATE_TIME));
    own.types().put("truth", ColumnType.of(ColumnType.Kind.BOOLEAN));
    return own;
  }

  /** A server gives rows in any order. */
  private static void assertHolds(String table) {
    assertThat(OwnRows.of(database.table(table)))
        .containsExactlyInAnyOrderElementsOf(values().cells());
    assertThat(OwnRows.of(database.query("select * from " + table + " order by num", List.of())))
        .startsWith(values().cells().get(1));
  }

  @Test
  void whatIsWrittenIsRead() {
    write(values(), "out", Mode.CREATE);
    assertHolds("out");
    assertThatThrownBy(() -> write(values(), "out", Mode.CREATE))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("is there already");
    write(values(), "out", Mode.APPEND);
    write(values(), "public.out", Mode.APPEND);
    assertThat(OwnRows.of(database.table("public.out"))).hasSize(7_500);
    write(values(), "out", Mode.REPLACE);
    assertHolds("out");
  }

  /** Another schema's table of that name, or one that differs in case, is never written to. */
  @Test
  void onlyTheTableThatIsMeantIsWrittenTo() throws SQLException {
    sql(
        "create table other.aside(code text)",
        "insert into other.aside values('kept')",
        "create table \"Cased\"(code text)",
        "insert into \"Cased\" values('kept')",
        "create schema third",
        "create table third.aside(code text)",
        "grant usage, create on schema other, third to analyst",
        "grant all on other.aside, third.aside, \"Cased\" to analyst");
    assertThatThrownBy(() -> database.table("aside").schema())
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("several tables \"aside\"; state one of other.aside, third.aside");
    OwnRows rows = new OwnRows(List.of("code"), List.of(List.of("new")));
    write(rows, "aside", Mode.REPLACE);
    write(rows, "cased", Mode.REPLACE);
    assertThatThrownBy(() -> write(rows, "CASED", Mode.APPEND))
        .isInstanceOf(SettingException.class);
    assertThat(OwnRows.of(database.table("other.aside"))).containsExactly(List.of("kept"));
    assertThat(OwnRows.of(database.table("Cased"))).containsExactly(List.of("kept"));
    assertThat(OwnRows.of(database.table("aside"))).containsExactly(List.of("new"));
    write(rows, "third.aside", Mode.APPEND);
    assertThat(OwnRows.of(database.table("third.aside"))).containsExactly(List.of("new"));
  }

  @Test
  void aTableThatIsThereKeepsItsTypes() throws SQLException {
    sql(
        "create table typed(code varchar(3), num int, day date, id uuid)",
        "grant all on typed to analyst");
    OwnRows rows =
        new OwnRows(
            List.of("num", "code", "day", "id"),
            List.of(List.of("7", "abc", "2026-08-01", "a0eebc99-9c0b-4ef8-bb6d-6bb9bd380a11")));
    write(rows, "typed", Mode.APPEND);
    assertThat(OwnRows.of(database.query("select num, code, day, id from typed", List.of())))
        .isEqualTo(rows.cells());
    OwnRows longer =
        new OwnRows(List.of("num", "code"), List.of(List.of("8", "abc"), List.of("9", "abcd")));
    assertThatThrownBy(() -> write(longer, "typed", Mode.APPEND))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("one of rows 1 to 2 was refused, and none was kept")
        .hasMessageContaining("too long");
    OwnRows word = new OwnRows(List.of("day"), List.of(List.of("soon")));
    assertThatThrownBy(() -> write(word, "typed", Mode.APPEND))
        .hasMessageContaining("row 1, column day: found \"soon\", and the column takes a day");
    assertThat(count("select count(*) from typed")).isEqualTo(1);
  }

  @Test
  void aWrongPasswordIsToldWithoutIt() throws IOException {
    Path wrong = Files.writeString(folder.resolve("wrong"), "wrong-secret-99\n");
    Throwable failure = catchThrowable(() -> at(wrong).table("t").schema());
    assertThat(failure)
        .isInstanceOf(DataException.class)
        .hasMessageContaining("cannot connect to jdbc:postgresql://localhost")
        .hasMessageContaining("check the user and the password")
        .hasMessageContaining("file " + folder.resolve("user"));
    StringWriter whole = new StringWriter();
    failure.printStackTrace(new PrintWriter(whole));
    assertThat(whole.toString()).doesNotContain("wrong-secret-99").doesNotContain(SECRET);
    assertThat(database + " " + database.table("t")).doesNotContain(SECRET);
    assertThatThrownBy(() -> at(folder.resolve("nowhere")).table("t").schema())
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("which holds a credential");
    assertThatThrownBy(
            () -> database.as(Secret.environment("NOT_SET_ANYWHERE"), null).table("t").schema())
        .hasMessageContaining("the environment variable NOT_SET_ANYWHERE is not set");
  }

  @Test
  void aServerThatIsNotThereIsTold() {
    assertThatThrownBy(() -> Database.at("jdbc:postgresql://localhost:1/x").table("t").schema())
        .isInstanceOf(DataException.class)
        .hasMessageContaining("check that the server runs and can be reached");
  }

  @Test
  void tablesThatAreNotThereAreToldWithTheNearest() throws SQLException {
    sql("create table growers(a int)", "grant select on growers to analyst");
    assertThatThrownBy(() -> database.table("grower").schema())
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("has no table \"grower\"; did you mean \"growers\"?");
    assertThatThrownBy(
            () -> OwnRows.of(database.query("delete from growers returning a", List.of())))
        .hasMessageContaining("read-only transaction");
  }

  private static void endOthers() throws SQLException {
    sql(
        "select pg_terminate_backend(pid) from pg_stat_activity where application_name ="
            + " 'able-twine'");
  }

  @Test
  void aConnectionLostWhileReadingIsAnError() throws SQLException {
    Table numbers = database.query("select n from generate_series(1, 200000) n", List.of());
    assertThatThrownBy(
            () -> {
              try (Rows rows = numbers.rows()) {
                rows.next();
                endOthers();
                while (rows.next() != null) {
                  // to the end, which is not reached
                }
              }
            })
        .isInstanceOf(DataException.class)
        .hasMessageContaining("query of jdbc:postgresql://localhost")
        .hasMessageContaining("cannot be read beyond row ")
        .hasMessageContaining("then run again");
  }

  @Test
  void aConnectionLostWhileWritingLeavesNothing() throws SQLException {
    write(values(), "lost", Mode.CREATE);
    try (TableSink sink = database.into("lost", Mode.REPLACE).open(null)) {
      sink.start(values(), values().schema());
      for (int i = 0; i < 3_000; i++) {
        sink.write(values().cells().get(1));
      }
      endOthers();
      assertThatThrownBy(sink::commit)
          .isInstanceOf(DataException.class)
          .hasMessageContaining("table lost of jdbc:postgresql://localhost");
    }
    assertHolds("lost");
  }

  @Test
  void nothingIsSeenBeforeTheEnd() throws SQLException {
    try (TableSink sink = database.into("unseen", Mode.CREATE).open(null)) {
      sink.start(values(), values().schema());
      sink.write(values().cells().get(1));
      ((DatabaseSink) sink).complete();
      assertThat(count("select count(*) from pg_tables where tablename = 'unseen'")).isZero();
    }
    assertThat(count("select count(*) from pg_tables where tablename = 'unseen'")).isZero();
  }

  @Test
  void aSlowQueryEndsWithTheProcess() throws Exception {
    Table slow = database.query("select 1 as one from pg_sleep(60)", List.of());
    slow.schema();
    CompletableFuture<Throwable> reading =
        CompletableFuture.supplyAsync(() -> catchThrowable(() -> OwnRows.of(slow)));
    String running =
        "select count(*) from pg_stat_activity where query like '%pg_sleep(60)%' and state ="
            + " 'active' and application_name = 'able-twine'";
    long until = System.nanoTime() + Duration.ofSeconds(20).toNanos();
    while (count(running) == 0 && System.nanoTime() < until) {
      TimeUnit.MILLISECONDS.sleep(20);
    }
    Session.cancelAll(); // what the end of the process calls
    assertThat(reading.get(20, TimeUnit.SECONDS))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("cannot be read");
    assertThat(count(running)).isZero();
  }
}
