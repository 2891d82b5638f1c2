package org.abletwine.report.chart;

import java.awt.Dimension;
import java.awt.Font;
import java.io.IOException;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import org.apache.batik.svggen.SVGGeneratorContext;
import org.knowm.xchart.internal.chartpart.Chart;

/** Writes a chart as SVG. Stateless. */
final class Svg {
  private static final String NAMESPACE = "http://www.w3.org/2000/svg";

  private Svg() {}

  /** An address that holds the picture. */
  static String address(String svg) {
    return "data:image/svg+xml;base64,"
        + Base64.getEncoder().encodeToString(svg.getBytes(StandardCharsets.UTF_8));
  }

  static String text(Chart<?, ?> chart) {
    try {
      SVGGeneratorContext context =
          SVGGeneratorContext.createDefault(
              DocumentBuilderFactory.newDefaultInstance()
                  .newDocumentBuilder()
                  .getDOMImplementation()
                  .createDocument(NAMESPACE, "svg", null));
      // The library begins with a font that no machine has, and looks through all there are.
      SVGGeneratorContext.GraphicContextDefaults first =
          new SVGGeneratorContext.GraphicContextDefaults();
      first.setFont(new Font(Font.SANS_SERIF, Font.PLAIN, 12));
      context.setGraphicContextDefaults(first);
      context.setComment(null);
      context.setPrecision(2);
      Drawing into = new Drawing(context);
      into.setSVGCanvasSize(new Dimension(chart.getWidth(), chart.getHeight()));
      chart.paint(into, chart.getWidth(), chart.getHeight());
      StringWriter out = new StringWriter();
      into.stream(out, true);
      String text = out.toString();
      return text.substring(text.indexOf("<svg"));
    } catch (ParserConfigurationException | IOException e) {
      throw new IllegalStateException("a picture could not be written down", e);
    }
  }
}
