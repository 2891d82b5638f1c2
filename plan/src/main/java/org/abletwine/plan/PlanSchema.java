package org.abletwine.plan;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;

/** The JSON Schema of plan files (draft 2020-12), for editors. Stateless. */
public final class PlanSchema {
  private PlanSchema() {}

  /** {@return the schema, as JSON} */
  public static String text() {
    try (InputStream in = PlanSchema.class.getResourceAsStream("plan.schema.json")) {
      if (in == null) {
        throw new IllegalStateException("the schema is missing from this program");
      }
      return new String(in.readAllBytes(), StandardCharsets.UTF_8);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
