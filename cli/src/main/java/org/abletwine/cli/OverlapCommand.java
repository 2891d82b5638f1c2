package org.abletwine.cli;

import java.math.BigDecimal;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.abletwine.audit.OverlapAudit;
import org.abletwine.key.Normalise;
import org.abletwine.lookup.KeyPart;
import org.abletwine.plan.AuditJson;
import org.abletwine.plan.tell.Words;
import org.abletwine.table.Table;
import org.abletwine.table.Tables;
import org.abletwine.table.spill.Spill;
import org.jspecify.annotations.Nullable;

/** How far two keys agree. */
final class OverlapCommand implements Command {
  private final Usage usage =
      Usage.of(
              this,
              "overlap",
              "Shows how far the keys of two tables agree, both ways, which normalise steps"
                  + " would win how many rows, and the keys left with their near misses, which are"
                  + " looked for where the reference's keys fit in memory.")
          .asStated()
          .examples("  able-twine overlap tickets.csv growers.csv --key grower_code=grower_no");

  private final Given<Path> transactions =
      usage.argument("TRANSACTIONS", Path.class, "The transactions.");

  private final Given<Path> reference = usage.argument("REFERENCE", Path.class, "The reference.");

  private final Given<String> key =
      usage
          .option(
              "--key",
              "OURS=THEIRS",
              "The key: a column of ours = one of theirs, or one name for both; several"
                  + " parts parted by commas.")
          .needed();

  private final Given<Integer> show =
      usage
          .option(
              "--show",
              "N",
              Integer.class,
              "How many unmatched keys to show. Default: ${DEFAULT-VALUE}.")
          .usually("12");

  private final Given<String> measure =
      usage.option(
          "--measure",
          "COLUMN",
          "Total this column of the transactions by unmatched key, largest first.");

  private final Given<List<String>> normalise =
      usage
          .options(
              "--normalise",
              "STEP",
              "Apply these steps to both sides; what further ones would win is shown.")
          .parted();

  private final ReadingOptions reading = new ReadingOptions(usage);

  private final TheirOptions their = new TheirOptions(usage);

  private final MemoryOption memory = new MemoryOption(usage);

  private final Given<Boolean> json = usage.flag("--json", "Print the figures as JSON.");

  @Override
  public Usage usage() {
    return usage;
  }

  @Override
  public Integer call() {
    try (Spill spill = new Spill(memory.bytes(), memory.folder())) {
      return compare(spill);
    }
  }

  private int compare(Spill spill) {
    Table ours = Tables.file(transactions.get(), reading.of(transactions.get()));
    Table theirs = Tables.file(reference.get(), their.of(reading, reference.get()));
    reading.checkPrivate(ours, theirs);
    List<KeyPart> parts = NameLists.split(key.get()).stream().map(KeyPart::parse).toList();
    int[] ourColumns =
        parts.stream()
            .mapToInt(p -> ours.schema().require(p.ours(), "--key: " + ours.name()))
            .toArray();
    int[] theirColumns =
        parts.stream()
            .mapToInt(p -> theirs.schema().require(p.theirs(), "--key: " + theirs.name()))
            .toArray();
    List<String> fixed = normalise.get();
    Normalise.parse(fixed);
    OverlapAudit.Report report =
        OverlapAudit.compare(
            ours,
            ourColumns,
            theirs,
            theirColumns,
            measure.orNull() == null
                ? -1
                : ours.schema().require(measure.orNull(), "--measure: " + ours.name()),
            fixed,
            Math.max(0, show.get()),
            spill);
    if (json.get()) {
      System.out.println(Words.json(AuditJson.overlap(report)));
    } else {
      print(ours, theirs, report);
    }
    Say.remarks(ours, theirs);
    return 0;
  }

  private void print(Table ours, Table theirs, OverlapAudit.Report report) {
    boolean colour = Ink.colour();
    System.out.println(
        Ink.BOLD.on(ours.name() + " -> " + theirs.name(), colour) + "  key " + key.get());
    TextTable cover = new TextTable("lrrl");
    line(cover, "rows", report.rows(), report.rows(), "of " + ours.name());
    line(cover, "with a blank key", report.blankRows(), report.rows(), "can match nothing");
    line(
        cover,
        normalise.get().isEmpty() ? "matched as written" : "matched after the steps given",
        report.matchedRows(),
        report.rows(),
        "");
    line(cover, "matched after the steps below", report.bestMatchedRows(), report.rows(), "");
    line(
        cover,
        "still unmatched",
        report.rows() - report.blankRows() - report.bestMatchedRows(),
        report.rows(),
        Words.keys(report.unmatchedKeys()));
    line(
        cover,
        "reference keys never used",
        report.referenceKeys() - report.usedReferenceKeys(),
        report.referenceKeys(),
        "of " + Words.keys(report.referenceKeys()) + " in " + theirs.name());
    cover.render(colour).forEach(System.out::println);
    System.out.println();
    System.out.println(
        Ink.BOLD.on("Steps", colour) + ": what each would win alone, and the best few in turn");
    TextTable steps = new TextTable("lrrl");
    steps
        .cell("step", Ink.DIM)
        .cell("alone", Ink.DIM)
        .cell("in turn", Ink.DIM)
        .cell("", Ink.DIM)
        .end();
    for (OverlapAudit.Gain gain : report.alone()) {
      String inTurn =
          report.best().stream()
              .filter(b -> b.step().equals(gain.step()))
              .map(b -> "+" + Words.count(b.rows()))
              .findFirst()
              .orElse("");
      steps.cell(gain.step()).cell("+" + Words.count(gain.rows()), Ink.GOOD).cell(inTurn, Ink.GOOD);
      steps.cell(price(gain), Ink.WARN);
      steps.end();
    }
    for (OverlapAudit.Gain gain : report.best()) {
      if (report.alone().stream().noneMatch(one -> one.step().equals(gain.step()))) {
        steps.cell(gain.step()).cell("").cell("+" + Words.count(gain.rows()), Ink.GOOD);
        steps.cell("").end();
      }
    }
    if (report.alone().isEmpty()) {
      System.out.println("  no step would win anything");
    } else {
      steps.render(colour).forEach(System.out::println);
    }
    if (!report.best().isEmpty()) {
      System.out.println();
      System.out.println("  " + Ink.BOLD.on(pasteable(report), colour));
    }
    printUnmatched(report, measure.orNull(), hidden(ours, theirs), colour);
  }

  /** What a step costs: keys that it makes equal, and what it leaves out. */
  private static String price(OverlapAudit.Gain gain) {
    String equal =
        gain.collisions() == 0
            ? ""
            : "makes "
                + Words.count(gain.collisions())
                + (gain.collisions() == 1 ? " reference key" : " reference keys")
                + " equal to others";
    return gain.lossy()
        ? "leaves characters out" + (equal.isEmpty() ? ": look before you use it" : ", " + equal)
        : equal;
  }

  private static void line(TextTable table, String what, long count, long whole, String note) {
    table.cell(what).cell(Words.count(count), Ink.BOLD).cell(Words.percent(count, whole));
    table.cell(note, Ink.DIM).end();
  }

  /** The line for a plan. */
  private static String pasteable(OverlapAudit.Report report) {
    List<String> names = new ArrayList<>();
    for (String step : report.steps()) {
      int at = step.indexOf('=');
      names.add(
          at < 0 ? step : "{ " + step.substring(0, at) + ": \"" + step.substring(at + 1) + "\" }");
    }
    return "normalise: [" + String.join(", ", names) + "]";
  }

  /** Whether a part of the key is private on either side. */
  private boolean hidden(Table ours, Table theirs) {
    return NameLists.split(key.get()).stream()
        .map(KeyPart::parse)
        .anyMatch(part -> ours.isPrivate(part.ours()) || theirs.isPrivate(part.theirs()));
  }

  private static void printUnmatched(
      OverlapAudit.Report report, @Nullable String measure, boolean hidden, boolean colour) {
    if (report.unmatchedKeys() == 0) {
      System.out.println();
      System.out.println(
          Ink.GOOD.on(
              report.blankRows() == 0 ? "All rows match" : "All rows with a key match", colour));
      return;
    }
    if (report.unmatched().isEmpty()) {
      return;
    }
    System.out.println();
    System.out.println(
        Ink.BOLD.on("Unmatched keys", colour)
            + (measure == null ? ", most rows first" : ", largest " + measure + " first")
            + (report.nearLeftOut() ? "" : ", and the reference keys most like them")
            + (report.notMeasured() == 0
                ? ""
                : " (" + Words.rows(report.notMeasured()) + " hold no number)"));
    TextTable table = new TextTable(measure == null ? "lrrl" : "lrrrl");
    table.cell("key", Ink.DIM).cell("rows", Ink.DIM);
    if (measure != null) {
      table.cell(measure, Ink.DIM);
    }
    table.cell("first row", Ink.DIM).cell("near misses", Ink.DIM).end();
    for (OverlapAudit.Unmatched unmatched : report.unmatched()) {
      table.cell(unmatched.key()).cell(Words.count(unmatched.rows()));
      BigDecimal total = unmatched.measure();
      if (measure != null) {
        table.cell(total == null ? "" : Words.number(total));
      }
      table.cell(Words.count(unmatched.firstRow()), Ink.DIM);
      table.cell(
          unmatched.near().isEmpty()
              ? report.nearLeftOut() ? "not looked for" : hidden ? "not shown" : "none"
              : String.join(
                  "   ",
                  NearText.worthTelling(unmatched.near()).stream().map(NearText::of).toList()),
          unmatched.near().isEmpty() ? Ink.DIM : Ink.PLAIN);
      table.end();
    }
    table.render(colour).forEach(System.out::println);
    if (report.nearLeftOut()) {
      System.out.println(
          "  what is near was not looked for: the "
              + Words.keys(report.referenceKeys())
              + " of the reference do not fit in memory; --memory gives more");
    }
    long more = report.unmatchedKeys() - report.unmatched().size();
    if (more > 0) {
      System.out.println("  and " + Words.keys(more) + " more; --show N shows more");
    }
  }
}
