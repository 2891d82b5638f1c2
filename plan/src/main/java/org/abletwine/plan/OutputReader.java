package org.abletwine.plan;

import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.abletwine.plan.Plan.ExceptionSpec;
import org.abletwine.plan.Plan.FormatSpec;
import org.abletwine.plan.Plan.Outputs;
import org.abletwine.plan.Plan.RollupSpec;
import org.abletwine.table.Destination;
import org.abletwine.table.OutputOptions;
import org.abletwine.table.SettingException;
import org.abletwine.table.Tables;
import org.jspecify.annotations.Nullable;

/** Reads where results go, and how the output's columns are arranged. */
final class OutputReader {
  private static final Set<String> OUTPUTS =
      PlanReader.ordered(
          "enriched",
          "exceptions",
          "corrections",
          "report",
          "record",
          "rollups",
          "formats",
          "formulas",
          "drop-columns",
          "order-columns",
          "rename");
  private static final Set<String> ROLLUP =
      PlanReader.ordered(
          "by", "totals", "having", "order", "top", "grand-total", "formats", "file");

  private static final Set<String> TOTALS =
      PlanReader.ordered("by", "totals", "having", "order", "top");

  private static final Set<String> FORMAT =
      PlanReader.ordered("date", "decimals", "number", "percent");

  private static final List<String> EXCEPTIONS = List.of("carry", "by");

  private final Path folder;

  /**
   * @param folder what relative paths are relative to
   */
  OutputReader(Path folder) {
    this.folder = folder;
  }

  Outputs read(@Nullable PlanNode node) {
    if (node == null) {
      return new Outputs(
          null,
          null,
          null,
          null,
          null,
          List.of(),
          List.of(),
          Map.of(),
          List.of(),
          List.of(),
          false,
          Optional.empty());
    }
    Map<String, PlanNode> settings = node.entries(OUTPUTS);
    PlanNode drop = settings.get("drop-columns");
    PlanNode order = settings.get("order-columns");
    PlanNode formulas = settings.get("formulas");
    return new Outputs(
        PlaceReader.read(folder, settings.get("enriched")),
        exceptions(settings.get("exceptions")),
        tablePath(folder, settings.get("corrections")),
        path(folder, settings.get("report")),
        path(folder, settings.get("record")),
        drop == null ? List.of() : drop.texts(),
        order == null ? List.of() : order.texts(),
        rename(settings.get("rename")),
        rollups(settings.get("rollups")),
        formats(settings.get("formats")),
        formulas != null && "guard".equals(formulas.oneOf(List.of("keep", "guard"))),
        node.mark());
  }

  /** The file of a table, whose kind its name says. */
  private static @Nullable Path tablePath(Path folder, @Nullable PlanNode node) {
    Path file = path(folder, node);
    if (file == null || node == null) {
      return null;
    }
    try {
      Tables.destination(file, OutputOptions.NONE);
    } catch (SettingException e) {
      node.wrong(String.valueOf(e.getMessage()));
    }
    return file;
  }

  private @Nullable ExceptionSpec exceptions(@Nullable PlanNode node) {
    Destination place = PlaceReader.read(folder, node, EXCEPTIONS);
    if (node == null || place == null) {
      return null;
    }
    Map<String, PlanNode> settings = node.isMapping() ? node.anyEntries() : Map.of();
    PlanNode carry = settings.get("carry");
    PlanNode by = settings.get("by");
    return new ExceptionSpec(
        place,
        carry == null ? List.of() : carry.texts(),
        by != null && "key".equals(by.oneOf(List.of("row", "key"))));
  }

  private static Map<String, String> rename(@Nullable PlanNode node) {
    Map<String, String> names = new LinkedHashMap<>();
    if (node != null) {
      node.anyEntries()
          .forEach(
              (from, to) -> {
                String name = to.text();
                if (name != null) {
                  names.put(from, name);
                }
              });
    }
    return names;
  }

  private static List<FormatSpec> formats(@Nullable PlanNode node) {
    List<FormatSpec> formats = new ArrayList<>();
    if (node != null) {
      node.anyEntries().forEach((column, form) -> format(column, form, formats));
    }
    return formats;
  }

  private static void format(String column, PlanNode form, List<FormatSpec> formats) {
    Map<String, PlanNode> settings = form.isMapping() ? form.entries(FORMAT) : Map.of();
    PlanNode decimals = settings.get("decimals");
    PlanNode date = settings.get("date");
    PlanNode number = settings.get("number");
    PlanNode percent = settings.get("percent");
    if (settings.size() != 1) {
      form.wrong(
          "state a form as { date: dd.MM.yyyy }, { decimals: 2 }, { number: \"$1,234.56\" } or"
              + " { percent: 1 }");
    } else if (number != null) {
      String example = number.text();
      if (example != null) {
        formats.add(new FormatSpec(column, null, 0, example, form.mark()));
      }
    } else if (percent != null) {
      String count = percent.text();
      if (count != null && count.matches("\\d|1[0-8]")) {
        int places = Integer.parseInt(count);
        String example = places == 0 ? "1 %" : "1,234." + "5".repeat(places) + " %";
        formats.add(new FormatSpec(column, null, 0, example, form.mark()));
      } else {
        percent.wrong("expected a number of decimal places from 0 to 18; found " + count);
      }
    } else if (date != null) {
      formats.add(new FormatSpec(column, date.text(), 0, null, form.mark()));
    } else if (decimals != null) {
      String count = decimals.text();
      if (count != null && count.matches("\\d{1,2}")) {
        formats.add(new FormatSpec(column, null, Integer.parseInt(count), null, form.mark()));
      } else {
        decimals.wrong("expected a number of decimal places from 0 to 18; found " + count);
      }
    }
  }

  private List<RollupSpec> rollups(@Nullable PlanNode node) {
    List<RollupSpec> rollups = new ArrayList<>();
    if (node == null) {
      return rollups;
    }
    for (PlanNode item : node.items()) {
      Map<String, PlanNode> settings = item.entries(ROLLUP);
      RollupSpec rollup = rollup(item, settings);
      if (rollup != null) {
        rollups.add(rollup);
      }
    }
    return rollups;
  }

  /** Totals that another step of the plan fetches from. */
  @Nullable RollupSpec totals(PlanNode node) {
    return rollup(node, node.entries(TOTALS));
  }

  private @Nullable RollupSpec rollup(PlanNode item, Map<String, PlanNode> settings) {
    PlanNode by = settings.get("by");
    PlanNode totals = settings.get("totals");
    PlanNode grand = settings.get("grand-total");
    PlanNode having = settings.get("having");
    PlanNode order = settings.get("order");
    PlanNode top = settings.get("top");
    if (by == null || totals == null) {
      item.wrong("state a rollup as { by: [COLUMN], totals: [COLUMN], file: FILE.csv }");
      return null;
    }
    return new RollupSpec(
        by.textsOrNone(),
        totals.texts(),
        grand != null && Boolean.TRUE.equals(grand.yesOrNo()),
        order == null ? List.of() : order.texts(),
        top == null ? 0 : most(top),
        having == null ? null : having.sql(),
        formats(settings.get("formats")),
        PlaceReader.read(folder, settings.get("file")),
        item.mark());
  }

  private static int most(PlanNode top) {
    String text = top.text();
    if (text == null || !text.matches("[1-9][0-9]{0,8}")) {
      top.wrong("expected how many groups are wanted, 1 or more, found " + text);
      return 0;
    }
    return Integer.parseInt(text);
  }

  static @Nullable Path path(Path folder, @Nullable PlanNode node) {
    String text = node == null ? null : node.text();
    if (node == null || text == null) {
      return null;
    }
    try {
      return text.equals("-") ? Path.of("-") : FarFiles.resolve(folder, text);
    } catch (SettingException e) {
      node.wrong(String.valueOf(e.getMessage()));
      return null;
    } catch (InvalidPathException e) {
      node.wrong("cannot be the name of a file here: " + e.getReason());
      return null;
    }
  }
}
