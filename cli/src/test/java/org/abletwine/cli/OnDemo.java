package org.abletwine.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;

/** Plans of a few lines beside the demo data, for tests that run them. */
abstract class OnDemo {
  @TempDir Path demo;

  @BeforeEach
  void layOut() throws IOException {
    OneDemo.into(demo);
  }

  String file(String name) {
    return demo.resolve(name).toString();
  }

  Path plan(String... lines) throws IOException {
    return Files.writeString(
        demo.resolve("p.plan.yaml"),
        "able-twine: 1\ntransactions: { file: t.csv }\n" + String.join("\n", lines) + "\n");
  }

  static JsonNode run(Path plan, int status) throws IOException {
    Cli.Gave gave = Cli.run("run", plan.toString(), "--json");
    assertThat(gave.status()).as(gave.err()).isEqualTo(status);
    return new ObjectMapper().readTree(gave.out());
  }
}
