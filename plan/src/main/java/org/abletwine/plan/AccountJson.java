package org.abletwine.plan;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import org.jspecify.annotations.Nullable;

/** What the record tells beside the figures. */
final class AccountJson {
  private AccountJson() {}

  /** Adds what was read, told and written to the tree of the figures. */
  static ObjectNode tree(RunAccount account, ObjectNode root) {
    root.put("version", account.version());
    ObjectNode plan = root.putObject("plan");
    plan.put("file", account.plan().file());
    plan.put("sha256", account.plan().sha256());
    plan.put("text", account.plan().text());
    ArrayNode inputs = root.putArray("inputs");
    for (RunAccount.Input one : account.inputs()) {
      ObjectNode node = inputs.addObject();
      node.put("name", one.name());
      node.put("place", one.place());
      if (one.rows() >= 0) {
        node.put("rows", one.rows());
      }
      ArrayNode files = node.putArray("files");
      one.files().forEach(file -> facts(file, files.addObject()));
    }
    ArrayNode outputs = root.putArray("outputs");
    for (RunAccount.Written one : account.outputs()) {
      ObjectNode node = outputs.addObject();
      node.put("what", one.what());
      node.put("place", one.place());
      node.put("rows", one.rows());
      facts(one.file(), node);
    }
    for (JsonNode lookup : root.withArray("lookups")) {
      RunAccount.Unmatched unmatched = account.unmatched().get(lookup.path("name").asText());
      if (unmatched != null && lookup instanceof ObjectNode node) {
        keys(unmatched, node);
      }
    }
    return root;
  }

  private static void facts(@Nullable FileFacts facts, ObjectNode node) {
    if (facts == null) {
      return;
    }
    node.put("file", facts.file());
    if (facts.bytes() >= 0) {
      node.put("bytes", facts.bytes());
    }
    node.put("sha256", facts.sha256());
  }

  private static void keys(RunAccount.Unmatched unmatched, ObjectNode lookup) {
    lookup.put("distinct_unmatched_keys", unmatched.distinct());
    ArrayNode keys = lookup.putArray("unmatched_keys");
    for (RunAccount.UnmatchedKey one : unmatched.keys()) {
      ObjectNode node = keys.addObject();
      node.put("key", one.key());
      node.put("rows", one.rows());
      if (one.measure() != null) {
        node.put("measure", one.measure());
      }
    }
  }
}
