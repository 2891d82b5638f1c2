/** Able Twine's report: one page of HTML about one run. */
module org.abletwine.report {
  requires org.abletwine.core;
  requires org.abletwine.plan;
  requires java.desktop;
  requires static java.compiler; // for an annotation of the generated templates
  requires java.xml;
  requires gg.jte.runtime;
  requires xchart;
  requires org.apache.xmlgraphics.batik.svggen;

  provides org.abletwine.plan.ReportMaker with
      org.abletwine.report.HtmlReport;
}
