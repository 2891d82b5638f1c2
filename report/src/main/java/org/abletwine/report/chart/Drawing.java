package org.abletwine.report.chart;

import java.awt.Shape;
import java.awt.geom.Path2D;
import java.awt.geom.PathIterator;
import org.apache.batik.svggen.SVGGeneratorContext;
import org.apache.batik.svggen.SVGGraphics2D;
import org.apache.batik.svggen.SVGShape;
import org.jspecify.annotations.Nullable;
import org.w3c.dom.Element;

/**
 * What a chart is painted on: an SVG document whose outlines are {@link PathData}. The library's
 * own way to write them took a fifth of a short run, nearly all of it for forming numbers.
 */
final class Drawing extends SVGGraphics2D {
  private static final String NAMESPACE = "http://www.w3.org/2000/svg";

  Drawing(SVGGeneratorContext context) {
    super(context, false);
    shapeConverter = new Outlines(context);
  }

  private static final class Outlines extends SVGShape {
    private final SVGGeneratorContext context;

    Outlines(SVGGeneratorContext context) {
      super(context);
      this.context = context;
    }

    @Override
    public @Nullable Element toSVG(Shape shape) {
      if (!(shape instanceof Path2D path)) {
        return super.toSVG(shape);
      }
      String data = PathData.of(path);
      if (data.isEmpty()) {
        return null;
      }
      Element element = context.getDOMFactory().createElementNS(NAMESPACE, "path");
      element.setAttributeNS(null, "d", data);
      if (path.getWindingRule() == PathIterator.WIND_EVEN_ODD) {
        element.setAttributeNS(null, "fill-rule", "evenodd");
      }
      return element;
    }
  }
}
