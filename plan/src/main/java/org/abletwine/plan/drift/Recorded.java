package org.abletwine.plan.drift;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.StreamReadConstraints;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
import org.abletwine.table.DataException;

/** A record of a run, read back. */
record Recorded(JsonNode root) {
  private static final ObjectMapper MAPPER =
      JsonMapper.builder().enable(DeserializationFeature.USE_BIG_DECIMAL_FOR_FLOATS).build();

  /**
   * Reads a record.
   *
   * @throws DataException when the file is none
   */
  static Recorded read(Path file) {
    try {
      JsonNode root = MAPPER.readTree(Files.readAllBytes(file));
      if (root == null || root.path("able_twine_record").asInt() != 1) {
        throw new DataException(
            file
                + " is no record of a run; name one that a plan wrote: outputs: { record: FILE.json"
                + " }");
      }
      return new Recorded(root);
    } catch (JsonProcessingException e) {
      throw new DataException(
          file
              + ": line "
              + e.getLocation().getLineNr()
              + " is not well-formed JSON; name the record of a run, as a plan wrote it",
          e);
    } catch (NoSuchFileException e) {
      throw new DataException("there is no file " + file + "; check the name", e);
    } catch (IOException e) {
      throw new DataException(
          Files.isDirectory(file)
              ? file + " is a folder; name the record in it"
              : "cannot read " + file + ": " + e.getMessage(),
          e);
    }
  }

  String text(String name) {
    return root.path(name).asText("");
  }

  long rowsIn() {
    return root.path("rows_in").asLong();
  }

  /** The entries of a list, by one of their fields; the first of each name. */
  Map<String, JsonNode> byName(String list, String name) {
    return byName(root, list, name);
  }

  static Map<String, JsonNode> byName(JsonNode node, String list, String name) {
    Map<String, JsonNode> entries = new LinkedHashMap<>();
    node.path(list).forEach(one -> entries.putIfAbsent(one.path(name).asText(""), one));
    return entries;
  }

  /** The names that are in either list, those of the second first. */
  static Set<String> names(Map<String, ?> before, Map<String, ?> after) {
    Set<String> names = new LinkedHashSet<>(after.keySet());
    names.addAll(before.keySet());
    return names;
  }

  static {
    // A record names at most ten thousand keys for each lookup, and holds a plan of a megabyte.
    MAPPER
        .getFactory()
        .setStreamReadConstraints(StreamReadConstraints.builder().maxStringLength(1 << 26).build());
  }
}
