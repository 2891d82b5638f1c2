package org.abletwine.table;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.abletwine.ListSink;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Files as tables: which format reads and writes them, and which files a name stands for. */
class TablesTest {
  @TempDir private Path folder;

  private Path notes(String name, String... lines) throws IOException {
    return Files.writeString(folder.resolve(name), String.join("\n", lines) + "\n");
  }

  private static List<List<@Nullable String>> rows(Table table) {
    List<List<@Nullable String>> all = new ArrayList<>();
    try (Rows rows = table.rows()) {
      for (List<@Nullable String> row = rows.next(); row != null; row = rows.next()) {
        all.add(row);
      }
    }
    return all;
  }

  @Test
  void aFileIsReadByTheFormatThatHandlesIt() throws IOException {
    Path may = notes("may.notes", "no kg", "1 2.000,5", "2 3");
    assertThat(rows(Tables.file(may))).containsExactly(List.of("1", "2.000,5"), List.of("2", "3"));
    TableOptions formed =
        TableOptions.builder()
            .types(Map.of("kg", new ColumnType(ColumnType.Kind.NUMBER, List.of("1.234,56"))))
            .build();
    assertThat(rows(Tables.file(may, formed)).get(0)).containsExactly("1", "2000.5");
    assertThatThrownBy(() -> Tables.file(folder.resolve("may.xyz")))
        .isInstanceOf(SettingException.class)
        .hasMessageEndingWith(
            "no reader for this kind of file; give a delimited text file such as .csv");
  }

  @Test
  void severalFilesAreOneTable() throws IOException {
    notes("b.notes", "no kg", "3 4");
    notes("a.notes", "no kg", "1 2");
    notes("c1.notes", "no kg", "5 6");
    Files.createDirectory(folder.resolve("d.notes"));
    Table all = Tables.file(folder.resolve("?.notes"));
    assertThat(all.name()).isEqualTo("?.notes");
    assertThat(rows(all)).containsExactly(List.of("1", "2"), List.of("3", "4"));
    TableOptions told = TableOptions.builder().source("file").build();
    assertThat(rows(Tables.file(folder.resolve("a.notes"), told)))
        .containsExactly(List.of("1", "2", "a.notes"));
    List<Path> named = List.of(folder.resolve("c*"), folder.resolve("a.notes"));
    Table both = Tables.files(named, TableOptions.NONE);
    assertThat(both.name()).isEqualTo("c1.notes and 1 more");
    assertThat(rows(both)).containsExactly(List.of("5", "6"), List.of("1", "2"));
    assertThat(rows(Tables.files(List.of(folder.resolve("b.notes")), TableOptions.NONE)))
        .hasSize(1);
    assertThatThrownBy(() -> Tables.files(List.of(), TableOptions.NONE))
        .hasMessage("no file is named; name at least one");
  }

  @Test
  void aNameStandsForAllFilesThatItFits() throws IOException {
    Path odd = notes("what?.notes", "no");
    Path other = notes("whatx.notes", "no");
    assertThat(Tables.matching(odd)).as("a file of that very name").containsExactly(odd);
    Files.delete(odd);
    assertThat(Tables.matching(odd)).containsExactly(other);
    Path brackets = notes("what[1].notes", "no");
    assertThat(Tables.matching(folder.resolve("*[1].notes"))).containsExactly(brackets);
    assertThat(Tables.matching(Path.of("jdbc:x?y*"))).containsExactly(Path.of("jdbc:x?y*"));
    assertThat(Tables.matching(Path.of("/"))).containsExactly(Path.of("/"));
    assertThatThrownBy(() -> Tables.matching(folder.resolve("none*")))
        .hasMessageEndingWith(
            "none* fits no file; check the name and the folder, and quote it for the shell");
    assertThatThrownBy(() -> Tables.matching(folder.resolve("none").resolve("*")))
        .hasMessageEndingWith("the folder cannot be read; check its name");
    assertThat(Tables.matching(Path.of("pom.x*"))).as("of the working folder").hasSize(1);
  }

  @Test
  void aSheetIsStatedOfWhatHasSheets() throws IOException {
    Path book = notes("book.notes", "no", "1");
    TableOptions sheet =
        TableOptions.builder().sheet(new TableOptions.Sheet("May", 0, null)).build();
    assertThat(Tables.file(book, sheet).name()).isEqualTo("book.notes sheet May");
    assertThat(Tables.hasSheets(book)).isTrue();
    assertThat(Tables.hasSheets(folder.resolve("may.notes"))).isFalse();
    assertThat(Tables.hasSheets(folder.resolve("book.xyz"))).isFalse();
    Path plain = notes("may.notes", "no", "1");
    assertThatThrownBy(() -> Tables.file(plain, sheet))
        .isInstanceOf(SettingException.class)
        .hasMessageEndingWith("is no workbook: leave out sheet, header-row and range, or name one");
    assertThatThrownBy(() -> Tables.files(List.of(book, plain), sheet))
        .hasMessageContaining("may.notes is no workbook");
  }

  @Test
  void textIsReadAsBytesSoThatSeparatorsAreAscii() {
    assertThatThrownBy(() -> TableOptions.builder().delimiter('\u00a7').build())
        .isInstanceOf(SettingException.class)
        .hasMessageStartingWith("delimiter: must be an ASCII character, such as the comma");
    assertThatThrownBy(() -> TableOptions.builder().quote('\u201c').build())
        .hasMessageStartingWith("quote: must be an ASCII character, such as \" or '");
    assertThat(TableOptions.builder().delimiter('~').quote('\'').build().quote()).isEqualTo('\'');
  }

  /** What a format that says nothing more than it must is taken to do. */
  @Test
  void aFormatWritesWhatItHandlesInOneWay() {
    TableFormat least =
        new TableFormat() {
          @Override
          public boolean handles(Path path) {
            return path.endsWith("a");
          }

          @Override
          public Table table(Path path, TableOptions options) {
            return Tables.of(List.of("no"), List.of());
          }

          @Override
          public TableSink sink(Path path, OutputOptions options, @Nullable TableSink beside) {
            return new ListSink();
          }
        };
    Path file = Path.of("a");
    assertThat(least.writes(file)).isTrue();
    assertThat(least.writes(Path.of("b"))).isFalse();
    assertThat(least.hasSheets(file)).isFalse();
    assertThat(least.inParts(file)).isFalse();
    least.check(file, OutputOptions.NONE);
    assertThatThrownBy(() -> least.check(file, OutputOptions.NONE.withSheet("May")))
        .isInstanceOf(SettingException.class)
        .hasMessage("a: files of this kind are written in one way; state the file alone");
  }

  @Test
  void aFileIsWrittenByTheFormatThatWritesIt() {
    Path target = folder.resolve("new.notes");
    assertThat(Tables.sink(target)).isInstanceOf(ListSink.class);
    Destination destination = Tables.destination(target, OutputOptions.NONE);
    assertThat(destination).hasToString(target.toString());
    assertThat(destination.shortName()).isEqualTo("new.notes");
    assertThat(destination.together()).isFalse();
    assertThat(destination.part(target)).as("not in parts").isNull();
    Path parts = folder.resolve("parts").resolve("new.notes");
    Destination inParts = Tables.destination(parts, OutputOptions.NONE);
    assertThat(inParts.part(target)).isEqualTo(destination).hasSameHashCodeAs(destination);
    assertThat(inParts).isNotEqualTo(destination);
    assertThatThrownBy(() -> Tables.sink(folder.resolve("old.notes")))
        .isInstanceOf(SettingException.class)
        .hasMessageContaining("old.notes: no table is written to a file of that ending; give one");
  }
}
