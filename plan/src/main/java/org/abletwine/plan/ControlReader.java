package org.abletwine.plan;

import java.math.BigDecimal;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.abletwine.plan.Plan.Controls;
import org.jspecify.annotations.Nullable;

/** Reads what a run is expected to come to. */
final class ControlReader {
  private static final Set<String> CONTROLS =
      PlanReader.ordered("matched", "totals", "rows", "unique", "nulls", "that");
  private static final BigDecimal ALL = BigDecimal.valueOf(100);

  private ControlReader() {}

  static Controls read(@Nullable PlanNode node) {
    if (node == null) {
      return Controls.NOTHING;
    }
    Map<String, PlanNode> settings = node.entries(CONTROLS);
    PlanNode totals = settings.get("totals");
    PlanNode unique = settings.get("unique");
    PlanNode that = settings.get("that");
    return new Controls(
        shares(settings.get("matched")),
        totals == null ? List.of() : totals.texts(),
        rows(settings.get("rows")),
        unique == null ? List.of() : unique.texts(),
        shares(settings.get("nulls")),
        that == null ? List.of() : that.sqls(),
        node.mark());
  }

  private static @Nullable String rows(@Nullable PlanNode node) {
    String text = node == null ? null : node.text();
    if (node == null || text == null) {
      return null;
    }
    if (!text.equals("same") && !text.matches("\\d+")) {
      node.wrong("expected same, or a number of rows; found \"" + text + "\"");
      return null;
    }
    return text;
  }

  private static Map<String, BigDecimal> shares(@Nullable PlanNode node) {
    Map<String, BigDecimal> shares = new LinkedHashMap<>();
    if (node != null) {
      node.anyEntries()
          .forEach(
              (name, value) -> {
                BigDecimal share = share(value);
                if (share != null) {
                  shares.put(name, share);
                }
              });
    }
    return shares;
  }

  private static @Nullable BigDecimal share(PlanNode node) {
    String text = node.text();
    if (text == null) {
      return null;
    }
    try {
      BigDecimal share = new BigDecimal(text.strip().replaceAll("\\s*%$", ""));
      if (share.signum() >= 0 && share.compareTo(ALL) <= 0) {
        return share;
      }
    } catch (NumberFormatException e) {
      // told below, like a share out of range
    }
    node.wrong("expected a share such as 98%; found \"" + text + "\"");
    return null;
  }
}
