package org.abletwine.plan;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.ConcurrentHashMap;
import org.abletwine.step.Progress;
import org.abletwine.table.DataException;
import org.abletwine.table.Table;
import org.jspecify.annotations.Nullable;

/**
 * The tables a plan reads, and what each was when it was opened: to account for them once they have
 * been read. Told by the run how many rows it read of each.
 */
final class InputTables {
  private final List<Opened> tables = new ArrayList<>();
  private final Map<Table, Long> rows = new IdentityHashMap<>();

  /** A table, its files, and what these were like. */
  private record Opened(String name, Table table, List<State> files) {}

  /** A file as it was found; null attributes when it can be read only once. */
  private record State(Path file, @Nullable BasicFileAttributes before) {}

  /**
   * Notes a table before its rows are read.
   *
   * @param name {@code transactions}, or the name of the reference
   * @param table the table
   * @param files its files, none for a database
   */
  void opened(String name, Table table, List<Path> files) {
    List<State> states = new ArrayList<>();
    for (Path file : files) {
      states.add(new State(file, OutputPaths.readOnce(file) ? null : attributes(file)));
    }
    tables.add(new Opened(name, table, states));
  }

  private static @Nullable BasicFileAttributes attributes(Path file) {
    try {
      return Files.readAttributes(file, BasicFileAttributes.class);
    } catch (IOException e) {
      return null; // reading it says what is wrong
    }
  }

  /** The transactions. */
  Table transactions() {
    return tables.get(0).table();
  }

  /** The sizes of all other tables, in bytes, as far as they are known. */
  long sizeOfReferences() {
    return tables.stream().skip(1).mapToLong(one -> Math.max(0, one.table().sizeInBytes())).sum();
  }

  /** The files that were opened. */
  List<Path> files() {
    return tables.stream().flatMap(one -> one.files().stream()).map(State::file).toList();
  }

  /** The same progress, from which the rows read of each table are noted. */
  Progress noting(Progress progress) {
    return (table, bytes, count) -> {
      Runnable ended = progress.reading(table, bytes, count);
      return () -> {
        ended.run();
        note(table, count.getAsLong());
      };
    };
  }

  /** Notes how many rows a table has, as those have found who read it. */
  synchronized void note(Table table, long count) {
    rows.put(table, count);
  }

  /**
   * The tables with the checksums of their files, made by several threads.
   *
   * @param paths how paths are told
   * @throws DataException when a file was written to since it was opened
   */
  synchronized List<RunAccount.Input> account(PlanPaths paths) {
    Map<Path, State> files = new LinkedHashMap<>();
    tables.stream()
        .flatMap(table -> table.files().stream())
        .filter(state -> state.before() != null)
        .forEach(state -> files.putIfAbsent(state.file(), state)); // once, as first found
    Map<Path, FileFacts> facts = new ConcurrentHashMap<>();
    files.values().parallelStream().forEach(state -> facts.put(state.file(), facts(state, paths)));
    List<RunAccount.Input> inputs = new ArrayList<>();
    for (Opened one : tables) {
      inputs.add(
          new RunAccount.Input(
              one.name(),
              one.table().name(),
              rows.getOrDefault(one.table(), -1L),
              one.files().stream()
                  .map(
                      state ->
                          facts.getOrDefault(
                              state.file(), new FileFacts(paths.told(state.file()), -1, null)))
                  .toList()));
    }
    return inputs;
  }

  private static FileFacts facts(State state, PlanPaths paths) {
    FileFacts facts = FileFacts.of(paths.told(state.file()), state.file());
    BasicFileAttributes before = state.before();
    BasicFileAttributes now = attributes(state.file());
    if (before == null || now == null || !Objects.equals(before.fileKey(), now.fileKey())) {
      // what was read is not there any more
      return new FileFacts(facts.file(), before == null ? -1 : before.size(), null);
    }
    boolean file = before.isRegularFile(); // of a folder of parts the size says nothing
    if (file && before.size() != facts.bytes()
        || !before.lastModifiedTime().equals(now.lastModifiedTime())) {
      throw new DataException(
          state.file()
              + " was written to while the run read it; run again once nothing writes to it");
    }
    return facts;
  }
}
