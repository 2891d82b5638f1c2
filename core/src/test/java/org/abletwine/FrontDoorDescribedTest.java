package org.abletwine;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.lang.module.ModuleDescriptor;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javax.tools.Diagnostic;
import javax.tools.DiagnosticCollector;
import javax.tools.JavaCompiler;
import javax.tools.JavaFileObject;
import javax.tools.SimpleJavaFileObject;
import javax.tools.StandardJavaFileManager;
import javax.tools.ToolProvider;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Everything that others can call says what it is for, what it takes and what it returns: the
 * compiler's own check of documentation, of the packages that everybody may see. Only of a record's
 * constructor that merely checks or copies it does not ask for parameters: those of the record are
 * told above it.
 */
class FrontDoorDescribedTest {
  @TempDir Path folder;

  @Test
  void leavesNothingOut() throws IOException {
    Path sources = Path.of("src", "main", "java");
    String packages;
    try (var descriptor = Files.newInputStream(Path.of("target", "classes", "module-info.class"))) {
      packages =
          ModuleDescriptor.read(descriptor).exports().stream()
              .filter(export -> !export.isQualified())
              .map(ModuleDescriptor.Exports::source)
              .collect(Collectors.joining(","));
    }
    JavaCompiler compiler = ToolProvider.getSystemJavaCompiler();
    DiagnosticCollector<JavaFileObject> told = new DiagnosticCollector<>();
    try (Stream<Path> files = Files.walk(sources);
        StandardJavaFileManager manager =
            compiler.getStandardFileManager(told, Locale.ROOT, null)) {
      List<Path> all =
          files
              .filter(file -> file.toString().endsWith(".java"))
              .filter(file -> !file.endsWith("module-info.java"))
              .toList();
      List<JavaFileObject> compiled = new ArrayList<>(List.of(new Silent()));
      manager.getJavaFileObjectsFromPaths(all).forEach(compiled::add);
      compiler
          .getTask(
              null,
              manager,
              told,
              List.of(
                  "-proc:none",
                  "-implicit:none",
                  "-Xmaxwarns",
                  "10000",
                  "-Xdoclint:all/protected",
                  "-Xdoclint/package:" + packages,
                  "-cp",
                  System.getProperty("java.class.path"),
                  "-d",
                  folder.toString()),
              null,
              compiled)
          .call();
    }
    assertThat(told.getDiagnostics()).anyMatch(one -> one.getSource() instanceof Silent);
    assertThat(
            told.getDiagnostics().stream()
                .filter(one -> one.getSource() != null && !(one.getSource() instanceof Silent))
                .filter(one -> !checksARecord(one))
                .map(one -> one.getSource().getName() + ": " + one))
        .isEmpty();
  }

  /** Says nothing about itself: what is told of it shows that the check is made. */
  private static final class Silent extends SimpleJavaFileObject {
    Silent() {
      super(URI.create("memory:///org/abletwine/table/Silent.java"), Kind.SOURCE);
    }

    @Override
    public CharSequence getCharContent(boolean ignoreEncodingErrors) {
      return "package org.abletwine.table; public class Silent { public void nothing(int of) {} }";
    }
  }

  private static boolean checksARecord(Diagnostic<? extends JavaFileObject> one) {
    try {
      String text = one.getSource().getCharContent(true).toString();
      int start = text.lastIndexOf('\n', (int) one.getStartPosition()) + 1;
      String line = text.substring(start, text.indexOf('\n', start)).strip();
      return line.matches("public \\w+ \\{") && one.getMessage(Locale.ROOT).contains("@param");
    } catch (IOException e) {
      throw new IllegalStateException(e);
    }
  }
}
