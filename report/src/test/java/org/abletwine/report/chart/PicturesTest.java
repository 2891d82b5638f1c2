package org.abletwine.report.chart;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.Color;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import org.abletwine.figures.StepFigures;
import org.abletwine.report.Block;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.knowm.xchart.CategoryChart;
import org.knowm.xchart.CategoryChartBuilder;

/** Pictures are an addition: drawn where there is something to draw and a machine that can. */
class PicturesTest {

  private static StepFigures.RolledUp rollup(List<String> order, String[]... groups) {
    List<List<@Nullable String>> rows = new ArrayList<>();
    for (String[] group : groups) {
      rows.add(Arrays.asList(group));
    }
    return new StepFigures.RolledUp(
        "out.csv",
        List.of("region"),
        List.of("kg", "payable"),
        rows,
        rows.size(),
        order,
        List.of(),
        Map.of(),
        "out.csv",
        0,
        "",
        0);
  }

  private static String svg(String address) {
    assertThat(address).startsWith("data:image/svg+xml;base64,");
    return new String(
        Base64.getDecoder().decode(address.substring(address.indexOf(',') + 1)),
        StandardCharsets.UTF_8);
  }

  @Test
  void groupsAreDrawnInALightAndADarkForm() {
    Block.Picture picture =
        Pictures.groups(
            rollup(
                List.of("payable desc"),
                new String[] {"North", "5", "70"},
                new String[] {null, "6", "60"},
                new String[] {"A name that is much longer than any chart has room for", "7", "-5"},
                new String[] {"South", "8", null}));
    assertThat(picture).isNotNull();
    assertThat(picture.told()).startsWith("payable by region");
    String light = svg(picture.light());
    String dark = svg(picture.dark());
    assertThat(light).startsWith("<svg").contains("fill:white").doesNotContain("<script");
    assertThat(dark).contains("rgb(27,34,31)").doesNotContain("fill:white");
    assertThat(light.length()).isLessThan(300_000);
  }

  @Test
  void theDarkFormIsWhatDrawingItDarkGives() {
    String light = Svg.text(everyTone(Tones.LIGHT));
    String dark = Svg.text(everyTone(Tones.DARK));
    assertThat(Tones.darkened(light)).isEqualTo(dark).isNotEqualTo(light);
    for (String what : WHATS) {
      Color tone = Tones.DARK.of(what);
      assertThat(dark)
          .contains("rgb(" + tone.getRed() + "," + tone.getGreen() + "," + tone.getBlue() + ")");
    }
  }

  private static final List<String> WHATS =
      List.of("unmatched", "ambiguous", "blank key", "not asked", "total");

  private static CategoryChart everyTone(Tones tones) {
    CategoryChart chart = new CategoryChartBuilder().width(400).height(300).build();
    Pictures.styled(chart, tones);
    for (String what : WHATS) {
      chart.addSeries(what, List.of("a", "b"), List.of(3, 4)).setFillColor(tones.of(what));
    }
    return chart;
  }

  @Test
  void nothingIsDrawnOfNothing() {
    assertThat(Pictures.groups(rollup(List.of()))).isNull();
    assertThat(Pictures.groups(rollup(List.of(), new String[] {"North", "5", "70"}))).isNull();
    assertThat(
            Pictures.groups(
                rollup(
                    List.of(), new String[] {"North", "a", "b"}, new String[] {"South", null, ""})))
        .isNull();
  }

  @Test
  void aMachineThatCannotDrawHasNoPicture() {
    Block.Picture none =
        Pictures.drawn(
            "told",
            tones -> {
              throw new NoClassDefFoundError("no fonts");
            });
    assertThat(none).isNull();
    assertThat(
            Pictures.drawn(
                "told",
                tones -> {
                  throw new InternalError("no fonts");
                }))
        .isNull();
  }
}
