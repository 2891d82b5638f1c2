package org.abletwine.examples;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.StringWriter;
import java.net.URL;
import java.net.URLClassLoader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javax.tools.JavaCompiler;
import javax.tools.StandardJavaFileManager;
import javax.tools.ToolProvider;
import org.abletwine.demo.WendleVale;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The lines with which each package of the front door opens: they compile, and run on the demo. */
class FirstLinesTest {
  private static final List<String> PACKAGES =
      List.of(
          "table", "key", "match", "step", "lookup", "correct", "derive", "enrich", "figures",
          "audit");

  @TempDir private Path folder;

  @ParameterizedTest
  @CsvSource({
    "table, Grange",
    "key, 000324R",
    "match, 248.7",
    "step, in row",
    "lookup, Unlisted",
    "correct, Corrected[",
    "derive, wheat",
    "enrich, 2739",
    "figures, able_twine_record",
    "audit, step=trim"
  })
  void compileAndRun(String name, String expected) throws Exception {
    WendleVale.layOut(folder);
    String code = lines(name).replace("Path.of(\"", "demo.resolve(\"");
    String imports =
        Stream.concat(
                PACKAGES.stream().map(one -> "org.abletwine." + one),
                Stream.of("java.nio.file", "java.util"))
            .map(one -> "import " + one + ".*;\n")
            .collect(Collectors.joining());
    Path source =
        Files.writeString(
            folder.resolve("Lines.java"),
            imports
                + "public class Lines {\n  public static void run(Path demo) throws Exception {\n"
                + code
                + "  }\n}\n");
    compile(source);
    assertThat(code.lines().count()).as("about ten lines").isBetween(7L, 12L);
    String printed = ExamplesTest.printed(() -> run(folder));
    assertThat(printed).contains(expected);
  }

  private static String lines(String name) throws IOException {
    String info =
        Files.readString(
            Path.of("..", "core/src/main/java/org/abletwine", name, "package-info.java"));
    Matcher block = Pattern.compile("(?s) \\* <pre>\\{@code\n(.*?) \\* \\}</pre>").matcher(info);
    assertThat(block.find()).isTrue();
    return block.group(1).replaceAll("(?m)^ \\* ?", "");
  }

  private void compile(Path source) throws IOException {
    JavaCompiler compiler = ToolProvider.getSystemJavaCompiler();
    StringWriter messages = new StringWriter();
    try (StandardJavaFileManager files = compiler.getStandardFileManager(null, null, null)) {
      boolean done =
          compiler
              .getTask(
                  messages,
                  files,
                  null,
                  List.of("-cp", System.getProperty("java.class.path"), "-d", folder.toString()),
                  null,
                  files.getJavaFileObjects(source))
              .call();
      assertThat(done).as(messages.toString()).isTrue();
    }
  }

  private static void run(Path classes) {
    try (URLClassLoader loader =
        new URLClassLoader(
            new URL[] {classes.toUri().toURL()}, FirstLinesTest.class.getClassLoader())) {
      loader.loadClass("Lines").getMethod("run", Path.class).invoke(null, classes);
    } catch (IOException | ReflectiveOperationException e) {
      throw new AssertionError(e.getCause() == null ? e : e.getCause());
    }
  }
}
