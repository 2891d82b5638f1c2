/** Able Twine's command-line tool. */
module org.abletwine.cli {
  requires org.abletwine.core;
  requires org.abletwine.formats;
  requires org.abletwine.plan;
  requires info.picocli;
  requires org.jline.reader;
  requires org.jline.terminal;
  requires me.tongfei.progressbar;
}
