package org.abletwine.plan;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.PropertyNamingStrategies;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import org.abletwine.audit.DuplicateAudit;
import org.abletwine.audit.OverlapAudit;
import org.abletwine.audit.RecordFinder;
import org.abletwine.audit.TableProfile;
import org.abletwine.enrich.TracedRow;
import org.abletwine.match.BandReport;

/** The reports of the audit commands as JSON: the fields of the reports, in snake case. */
public final class AuditJson {
  private static final ObjectMapper MAPPER =
      new ObjectMapper()
          .setPropertyNamingStrategy(PropertyNamingStrategies.SNAKE_CASE)
          .enable(SerializationFeature.INDENT_OUTPUT);

  private AuditJson() {}

  /**
   * @param report what {@code duplicates} found
   * @return JSON, indented
   */
  public static String duplicates(DuplicateAudit.Report report) {
    return text(MAPPER.valueToTree(report));
  }

  /**
   * @param report what {@code overlap} found
   * @return JSON, indented
   */
  public static String overlap(OverlapAudit.Report report) {
    return text(MAPPER.valueToTree(report));
  }

  /**
   * @param profiles what {@code profile} found
   * @return JSON, indented
   */
  public static String profiles(List<TableProfile> profiles) {
    ObjectNode root = MAPPER.createObjectNode();
    root.set("tables", MAPPER.valueToTree(profiles));
    return text(root);
  }

  /**
   * @param found what {@code find} found
   * @return JSON, indented
   */
  public static String found(RecordFinder.Found found) {
    return text(MAPPER.valueToTree(found));
  }

  /**
   * @param traced what {@code trace} saw
   * @return JSON, indented
   */
  public static String trace(TracedRow traced) {
    return text(MAPPER.valueToTree(traced));
  }

  /**
   * @param report what {@code duplicates --bands} found
   * @return JSON, indented
   */
  public static String bands(BandReport report) {
    return text(MAPPER.valueToTree(report));
  }

  private static String text(JsonNode tree) {
    return tree.toPrettyString();
  }
}
