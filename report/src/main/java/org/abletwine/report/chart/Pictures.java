package org.abletwine.report.chart;

import java.awt.Font;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.function.ToLongFunction;
import org.abletwine.figures.LookupFigures;
import org.abletwine.figures.RunRecord;
import org.abletwine.figures.StepFigures;
import org.abletwine.plan.tell.Words;
import org.abletwine.report.Block;
import org.abletwine.table.text.DecimalText;
import org.jspecify.annotations.Nullable;
import org.knowm.xchart.CategoryChart;
import org.knowm.xchart.CategoryChartBuilder;
import org.knowm.xchart.HorizontalBarChart;
import org.knowm.xchart.HorizontalBarChartBuilder;
import org.knowm.xchart.internal.chartpart.Chart;
import org.knowm.xchart.style.Styler;

/**
 * The pictures of a report. Each is an addition to a table that says the same: where this machine
 * cannot draw, such as one without fonts, there is none, and the report is whole without it.
 */
public final class Pictures {
  private static final int WIDTH = 960;
  private static final int MOST_BARS = 20;
  private static final int MOST_NAME = 28;

  static {
    System.setProperty("java.awt.headless", "true");
  }

  private Pictures() {}

  /** Loads what drawing needs, ahead of the first picture. */
  public static void warm() {
    CategoryChart chart = new CategoryChartBuilder().width(WIDTH).height(WIDTH).build();
    chart.addSeries("a", List.of("a"), List.of(1));
    drawn("", tones -> chart);
  }

  /**
   * Rows that each lookup left without a match, by reason, in the order of the steps.
   *
   * @param run the figures
   * @return null when all match, or nothing can be drawn
   */
  public static Block.@Nullable Picture withoutMatch(RunRecord run) {
    Map<String, ToLongFunction<LookupFigures>> reasons = new LinkedHashMap<>();
    reasons.put("unmatched", one -> unexpected(one, "unmatched", one.unmatched()));
    reasons.put("ambiguous", one -> unexpected(one, "ambiguous", one.ambiguous()));
    reasons.put("blank key", one -> unexpected(one, "blank-key", one.blankKey()));
    reasons.put("not asked", LookupFigures::notAsked);
    reasons.values().removeIf(of -> run.lookups().stream().mapToLong(of).sum() == 0);
    if (reasons.isEmpty()) {
      return null;
    }
    List<String> names = run.lookups().stream().map(one -> shortened(one.name())).toList();
    return drawn(
        "How many rows each lookup left without a match, in the order of the steps, by reason, those that are expected"
            + " left out: the table of the lookups has the same figures.",
        tones -> {
          CategoryChart chart =
              new CategoryChartBuilder()
                  .width(WIDTH)
                  .height(380)
                  .yAxisTitle("rows without a match")
                  .build();
          chart.getStyler().setStacked(true).setAvailableSpaceFill(0.6);
          chart.getStyler().setYAxisDecimalPattern("#,##0").setXAxisLabelRotation(30);
          chart.getStyler().setPlotGridVerticalLinesVisible(false);
          styled(chart, tones);
          reasons.forEach(
              (name, of) ->
                  chart
                      .addSeries(
                          name, unlike(names), run.lookups().stream().map(of::applyAsLong).toList())
                      .setFillColor(tones.of(name)));
          return chart;
        });
  }

  private static long unexpected(LookupFigures lookup, String outcome, long rows) {
    return lookup.outcomes().expected().contains(outcome) ? 0 : rows;
  }

  /** Categories must differ: one name stands once, whatever the lookups are called. */
  private static List<String> unlike(List<String> names) {
    List<String> unlike = new ArrayList<>();
    for (String name : names) {
      String next = name;
      while (unlike.contains(next)) {
        next += "\u200B";
      }
      unlike.add(next);
    }
    return unlike;
  }

  /**
   * The groups of a rollup by their first total: the first of those that were ordered, else the
   * largest.
   *
   * @param rollup the totals
   * @return null when there is nothing to be drawn, or it cannot be
   */
  public static Block.@Nullable Picture groups(StepFigures.RolledUp rollup) {
    int by = rollup.by().size();
    int total = totalDrawn(rollup);
    if (by == 0 || total < 0 || rollup.groups().size() < 2) {
      return null;
    }
    List<Bar> shown = new ArrayList<>();
    for (List<@Nullable String> group : rollup.foremost(total, MOST_BARS, true)) {
      BigDecimal number = DecimalText.read(String.valueOf(group.get(by + total)));
      if (number != null) {
        List<String> parts = new ArrayList<>();
        group.subList(0, by).forEach(part -> parts.add(part == null ? "(none)" : part));
        shown.add(new Bar(shortened(String.join(" / ", parts)), number));
      }
    }
    if (shown.size() < 2) {
      return null;
    }
    List<String> names = new ArrayList<>(unlike(shown.stream().map(Bar::name).toList()));
    List<BigDecimal> values = new ArrayList<>(shown.stream().map(Bar::value).toList());
    String what = rollup.totals().get(total);
    return drawn(
        what
            + " by "
            + String.join(", ", rollup.by())
            + (rollup.groups().size() > shown.size()
                ? ": " + shown.size() + " of " + Words.count(rollup.groups().size()) + " groups"
                : "")
            + ", as bars: the table below has the same figures.",
        tones -> {
          HorizontalBarChart chart =
              new HorizontalBarChartBuilder()
                  .width(WIDTH)
                  .height(110 + 22 * shown.size())
                  .xAxisTitle(what)
                  .build();
          chart.getStyler().setAvailableSpaceFill(0.7).setLegendVisible(false);
          chart.getStyler().setXAxisDecimalPattern("#,##0.##");
          chart.getStyler().setXAxisMaxLabelCount(shown.size() + 1); // else names are left out
          chart.getStyler().setPlotGridHorizontalLinesVisible(false);
          styled(chart, tones);
          chart.addSeries(what, values, names).setFillColor(tones.of("total"));
          return chart;
        });
  }

  private record Bar(String name, BigDecimal value) {}

  /** What the groups are ordered by, if it is a total; else the first total. */
  private static int totalDrawn(StepFigures.RolledUp rollup) {
    for (String order : rollup.order()) {
      int at = rollup.totals().indexOf(order.replaceFirst("(?i) (asc|desc)$", ""));
      if (at >= 0) {
        return at;
      }
    }
    return rollup.totals().isEmpty() ? -1 : 0;
  }

  private static String shortened(String name) {
    String shown = Words.shown(name).replace('\n', ' ');
    return shown.codePointCount(0, shown.length()) <= MOST_NAME
        ? shown
        : shown.substring(0, shown.offsetByCodePoints(0, MOST_NAME - 1)) + "\u2026";
  }

  static void styled(Chart<?, ?> chart, Tones tones) {
    Styler styler = chart.getStyler();
    styler.setChartBackgroundColor(tones.page);
    styler.setChartFontColor(tones.ink);
    styler.setLegendPosition(Styler.LegendPosition.OutsideS);
    styler.setLegendLayout(Styler.LegendLayout.Horizontal);
    styler.setLegendBackgroundColor(tones.page);
    styler.setLegendBorderColor(tones.page);
    styler.setPlotBackgroundColor(tones.page);
    styler.setPlotBorderVisible(false);
    styler.setChartTitleVisible(false);
    styler.setLegendFont(new Font(Font.SANS_SERIF, Font.PLAIN, 13));
    if (styler instanceof org.knowm.xchart.style.AxesChartStyler axes) {
      axes.setAxisTickLabelsFont(new Font(Font.SANS_SERIF, Font.PLAIN, 13));
      axes.setAxisTitleFont(new Font(Font.SANS_SERIF, Font.PLAIN, 13));
      axes.setAxisTickLabelsColor(tones.ink);
      axes.setAxisTickMarksColor(tones.line);
      axes.setPlotGridLinesColor(tones.line);
      axes.setXAxisTitleColor(tones.ink);
      axes.setYAxisTitleColor(tones.ink);
    }
  }

  /** The picture in both forms; null where this machine cannot draw. */
  static Block.@Nullable Picture drawn(String told, Function<Tones, Chart<?, ?>> draw) {
    try {
      Chart<?, ?> chart = draw.apply(Tones.LIGHT);
      String light = Svg.text(chart);
      return new Block.Picture(
          Svg.address(light),
          Svg.address(Tones.darkened(light)),
          Words.shown(told),
          chart.getWidth(),
          chart.getHeight());
    } catch (RuntimeException | LinkageError | InternalError e) {
      return null; // no fonts, or no library that draws, on this machine
    }
  }
}
