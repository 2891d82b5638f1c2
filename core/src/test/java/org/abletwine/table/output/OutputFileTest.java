package org.abletwine.table.output;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.InputStream;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.AccessDeniedException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.abletwine.table.DataException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class OutputFileTest {
  @TempDir private Path folder;

  private static OutputFile written(Path target, String text) {
    OutputFile file = new OutputFile(target);
    byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
    file.write(bytes, bytes.length);
    return file;
  }

  private List<String> parts() throws IOException {
    try (var files = Files.list(folder)) {
      return files.map(f -> "" + f.getFileName()).filter(f -> f.endsWith(".part")).toList();
    }
  }

  @Test
  void theOldFileStandsUntilTheNewOneIsWhole() throws IOException {
    Path target = Files.writeString(folder.resolve("out.csv"), "old");
    try (OutputFile file = written(target, "new")) {
      assertThat(target).hasContent("old");
      file.complete();
      assertThat(target).as("complete, but not shown").hasContent("old");
      file.commit();
    }
    assertThat(target).hasContent("new");
    assertThat(parts()).isEmpty();
  }

  @Test
  void whatIsGivenUpLeavesNoTrace() {
    written(folder.resolve("out.csv"), "new").close();
    assertThat(folder).isEmptyDirectory();
  }

  /** Whoever writes a part holds a lock on it: one that can be had was left by a killed run. */
  @Test
  void onlyPartsThatNobodyWritesAreClearedAway() throws IOException {
    Path left = Files.writeString(folder.resolve(".out.csv.0123.part"), "half");
    Path other = Files.writeString(folder.resolve(".other.csv.0123.part"), "of another target");
    OutputFile alive = written(folder.resolve("out.csv"), "alive");
    assertThat(left).doesNotExist();
    new OutputFile(folder.resolve("out.csv")).close();
    alive.commit();
    assertThat(folder.resolve("out.csv")).hasContent("alive");
    assertThat(other).exists();
  }

  @Test
  void aPartOfAnotherProcessThatIsAliveStays() throws Exception {
    Path part = Files.writeString(folder.resolve(".out.csv.77.part"), "alive");
    Process locking = another(Holder.class, part.toString());
    try {
      assertThat(locking.getInputStream().read()).isEqualTo('!');
      new OutputFile(folder.resolve("out.csv")).close();
      assertThat(part).as("its lock is held").exists();
    } finally {
      locking.destroyForcibly().waitFor();
    }
    new OutputFile(folder.resolve("out.csv")).close();
    assertThat(part).as("its process has ended").doesNotExist();
  }

  @Test
  void aPartThatIsReadIsNotClearedByAnotherProcess() throws Exception {
    OutputFile file = written(folder.resolve("out.csv"), "half");
    Path part = file.beside();
    try (InputStream in = OutputFile.reading(part)) {
      assertThat(in.read()).isEqualTo('h');
      assertThat(in).hasContent("alf");
    }
    String unnamed = part.toString().replaceAll("-[0-9]+(?=-[0-9a-f]+\\.part$)", "-0");
    Path hidden = Files.createLink(Path.of(unnamed), part); // the lock alone keeps this one
    another(Clearer.class, folder.resolve("out.csv").toString()).waitFor();
    assertThat(hidden).as("its lock is held").exists();
    assertThat(part).exists();
    Files.delete(hidden);
    Files.readString(part); // whoever reads it otherwise: its process is alive
    another(Clearer.class, folder.resolve("out.csv").toString()).waitFor();
    assertThat(part).as("it names a process that is alive").exists();
    String later = part.toString().replaceAll("[0-9a-f]+(?=\\.part$)", "7fffffffff");
    Files.copy(part, Path.of(later));
    another(Clearer.class, folder.resolve("out.csv").toString()).waitFor();
    assertThat(Path.of(later)).as("another process got that number").doesNotExist();
    file.write(" and whole".getBytes(StandardCharsets.UTF_8), 10);
    file.commit();
    assertThat(folder.resolve("out.csv")).hasContent("half and whole");
  }

  private static Process another(Class<?> main, String argument) throws IOException {
    return new ProcessBuilder(
            Path.of(System.getProperty("java.home"), "bin", "java").toString(),
            "-cp",
            System.getProperty("java.class.path"),
            main.getName(),
            argument)
        .start();
  }

  /** Clears what it takes for leftovers. */
  static final class Clearer {
    public static void main(String[] args) {
      new OutputFile(Path.of(args[0])).close();
    }
  }

  /** Holds a lock until it is killed. */
  static final class Holder {
    public static void main(String[] args) throws Exception {
      try (FileChannel channel = FileChannel.open(Path.of(args[0]), StandardOpenOption.WRITE)) {
        channel.lock();
        System.out.print('!');
        System.out.flush();
        Thread.sleep(60_000);
      }
    }
  }

  @Test
  void eightThreadsOnOneTargetEachWriteItWhole() throws Exception {
    Path target = folder.resolve("out.csv");
    ExecutorService threads = Executors.newFixedThreadPool(8);
    try {
      List<Callable<Void>> runs = new ArrayList<>();
      for (int run = 0; run < 40; run++) {
        String text = ("run " + run + "\n").repeat(5_000);
        runs.add(
            () -> {
              try (OutputFile file = new OutputFile(target)) {
                byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
                for (int i = 0; i < 10; i++) {
                  file.write(bytes, bytes.length);
                }
                file.commit();
                return null;
              }
            });
      }
      for (Future<Void> run : threads.invokeAll(runs)) {
        run.get();
      }
    } finally {
      threads.shutdownNow();
    }
    List<String> lines = Files.readAllLines(target);
    assertThat(lines).hasSize(50_000);
    assertThat(lines.stream().distinct()).hasSize(1);
    assertThat(parts()).isEmpty();
  }

  @Test
  void aLinkIsFollowedAndStays() throws IOException {
    Path real = Files.writeString(folder.resolve("real.csv"), "old");
    Path link = Files.createSymbolicLink(folder.resolve("link.csv"), Path.of("real.csv"));
    written(link, "new").commit();
    assertThat(link).isSymbolicLink();
    assertThat(real).hasContent("new");
    Path dangling = Files.createSymbolicLink(folder.resolve("new.csv"), Path.of("sub/made.csv"));
    written(dangling, "made").commit();
    assertThat(folder.resolve("sub/made.csv")).hasContent("made");
  }

  @Test
  void aLinkLaidUnderAPartsNameIsNeitherFollowedNorCleared() throws IOException {
    Path precious = Files.writeString(folder.resolve("precious"), "precious");
    Path planted =
        Files.createSymbolicLink(folder.resolve(".out.csv.0123.part"), Path.of("precious"));
    written(folder.resolve("out.csv"), "new").commit();
    assertThat(precious).hasContent("precious");
    assertThat(planted).isSymbolicLink();
  }

  @Test
  void theModeOfAReplacedFileIsKept() throws IOException {
    Path target = Files.writeString(folder.resolve("out.csv"), "old");
    Files.setPosixFilePermissions(target, PosixFilePermissions.fromString("rw-r-----"));
    written(target, "new").commit();
    assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(target)))
        .isEqualTo("rw-r-----");
  }

  @Test
  void whatIsNoRegularFileIsWrittenStraightThrough() throws Exception {
    Path pipe = folder.resolve("pipe");
    assertThat(new ProcessBuilder("mkfifo", pipe.toString()).start().waitFor()).isZero();
    Process reader = new ProcessBuilder("cat", pipe.toString()).start();
    written(pipe, "through").commit();
    assertThat(reader.getInputStream()).hasContent("through");
    assertThat(Files.isRegularFile(pipe)).isFalse();
  }

  @Test
  void aMissingFolderIsMadeAndATargetThatIsAFolderRefused() throws IOException {
    written(folder.resolve("no/yet/out.csv"), "new").commit();
    assertThat(folder.resolve("no/yet/out.csv")).hasContent("new");
    assertThatThrownBy(() -> new OutputFile(folder)).hasMessageContaining("is a folder");
    Path file = Files.writeString(folder.resolve("file"), "x");
    assertThatThrownBy(() -> new OutputFile(file.resolve("out.csv")))
        .isInstanceOf(DataException.class)
        .hasMessageContaining("is not a folder");
  }

  @Test
  void partsAreDeletedWhenTheProgramIsEnded() throws IOException {
    Path target = Files.writeString(folder.resolve("out.csv"), "old");
    OutputFile file = written(target, "half");
    assertThat(file.beside()).isEqualTo(folder.resolve(parts().get(0))).hasContent("half");
    OutputFile.abandonAll();
    assertThat(parts()).isEmpty();
    assertThatThrownBy(() -> file.write(new byte[] {'x'}, 1))
        .isInstanceOf(DataException.class)
        .hasMessageStartingWith("cannot write " + target + ": ")
        .hasMessageEndingWith(
            "; nothing was changed. Make room or write elsewhere, then run again");
    assertThatThrownBy(file::commit).isInstanceOf(DataException.class);
    assertThat(target).hasContent("old");
  }

  @Test
  void theReasonIsThatOfTheSystem() {
    assertThat(OutputFile.reason(new AccessDeniedException("out.csv")))
        .isEqualTo("permission denied");
    assertThat(OutputFile.reason(new NoSuchFileException("no/such/out.csv")))
        .isEqualTo("the folder is not there");
    assertThat(OutputFile.reason(new NoSuchFileException(folder.resolve("out.csv").toString())))
        .isEqualTo("what was written was taken away by another program");
    assertThat(OutputFile.reason(new FileAlreadyExistsException("out")))
        .isEqualTo("out is not a folder");
    assertThat(OutputFile.reason(new FileSystemException("out", null, "no room")))
        .isEqualTo("no room");
    assertThat(OutputFile.reason(new FileSystemException("out"))).isEqualTo("out");
    assertThat(OutputFile.reason(new IOException("gone"))).isEqualTo("gone");
    assertThat(OutputFile.reason(new IOException())).isEqualTo("IOException");
  }

  @Test
  void aLinkThatLeadsRoundInACircleIsRefused() throws IOException {
    Path one = folder.resolve("one");
    Files.createSymbolicLink(one, Path.of("other"));
    Files.createSymbolicLink(folder.resolve("other"), Path.of("one"));
    assertThatThrownBy(() -> new OutputFile(one)).hasMessageContaining("round in a circle");
    Path last = Files.writeString(folder.resolve("link 0"), "old");
    for (int link = 1; link <= 40; link++) {
      last = Files.createSymbolicLink(folder.resolve("link " + link), last.getFileName());
    }
    written(last, "new").commit();
    assertThat(folder.resolve("link 0")).isRegularFile().hasContent("new");
  }

  @Test
  void whereEachOutputIsBeforeItIsMoved() throws IOException {
    Path one = folder.resolve("sub/../one.csv");
    Files.createDirectory(folder.resolve("sub"));
    Output shown =
        new Output() {
          @Override
          public void commit() {}

          @Override
          public void close() {}
        };
    try (OutputGroup group = new OutputGroup()) {
      OutputFile file = written(one, "new");
      group.add(List.of(shown, file));
      assertThat(group.complete())
          .containsExactly(Map.entry(folder.resolve("one.csv"), file.beside()));
      assertThat(group).hasToString("OutputGroup[2 outputs]");
      group.commit();
    }
    assertThat(folder.resolve("one.csv")).hasContent("new");
    assertThat(folder.resolve(".one.csv.moving")).doesNotExist();
  }

  @Test
  void outputsOfOneRunAreShownTogetherOrNotAtAll() throws IOException {
    Path one = Files.writeString(folder.resolve("one.csv"), "old");
    Path two = Files.writeString(folder.resolve("two.csv"), "old");
    try (OutputGroup group = new OutputGroup()) {
      OutputFile first = written(one, "new");
      Output broken =
          new Output() {
            @Override
            public void complete() {
              throw new DataException("the disk is full");
            }

            @Override
            public void commit() {
              throw new AssertionError("never reached");
            }

            @Override
            public void close() {}
          };
      group.add(List.of(first, written(two, "new"), broken));
      assertThatThrownBy(group::commit).hasMessage("the disk is full");
      assertThat(one).hasContent("old");
    }
    assertThat(two).hasContent("old");
    assertThat(parts()).isEmpty();
    assertThat(OutputGroup.interrupted(one)).isEmpty();
  }

  @Test
  void aRunEndedBetweenTwoMovesIsRecognised() throws IOException {
    Path one = Files.writeString(folder.resolve("one.csv"), "old");
    Path two = Files.writeString(folder.resolve("two.csv"), "old");
    try (OutputGroup group = new OutputGroup()) {
      Output dies =
          new Output() {
            @Override
            public void commit() {
              throw new DataException("killed here");
            }

            @Override
            public Path target() {
              return two;
            }

            @Override
            public void close() {}
          };
      group.add(List.of(written(one, "new"), dies));
      assertThatThrownBy(group::commit).hasMessage("killed here");
    }
    assertThat(one).hasContent("new");
    assertThat(OutputGroup.interrupted(one))
        .hasValueSatisfying(told -> assertThat(told).contains("there are one.csv, not two.csv"));
    try (OutputGroup group = new OutputGroup()) {
      group.add(List.of(written(one, "newer"), written(two, "newer")));
      group.commit();
    }
    assertThat(OutputGroup.interrupted(one)).as("put right by the next run").isEmpty();
    assertThat(folder).isDirectoryNotContaining("glob:**.moving");
  }
}
