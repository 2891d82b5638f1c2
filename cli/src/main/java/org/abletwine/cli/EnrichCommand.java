package org.abletwine.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeSet;
import org.abletwine.enrich.Enrichment;
import org.abletwine.figures.RunRecord;
import org.abletwine.key.Normalise;
import org.abletwine.lookup.Fill;
import org.abletwine.lookup.KeyPart;
import org.abletwine.lookup.Lookup;
import org.abletwine.lookup.Several;
import org.abletwine.lookup.Treatment;
import org.abletwine.plan.OutputPaths;
import org.abletwine.plan.tell.Closer;
import org.abletwine.step.Exceptions;
import org.abletwine.step.run.RunContext;
import org.abletwine.table.Destination;
import org.abletwine.table.OutputOptions;
import org.abletwine.table.SettingException;
import org.abletwine.table.Table;
import org.abletwine.table.Tables;
import org.abletwine.table.batch.BatchSink;
import org.abletwine.table.text.NearestName;

/** One lookup without a plan. */
final class EnrichCommand implements Command {
  private final Usage usage =
      Usage.of(
              this,
              "enrich",
              "Fetches attributes from one reference for every transaction, without a plan.")
          .asStated()
          .examples(
              "  able-twine enrich tickets.csv --from growers.csv --key grower_code=grower_no \\",
              "      --bring \"name as grower_name,district_code\" --fill \"grower_name=Unlisted\" --out enriched.csv");

  private final Given<Path> transactions =
      usage.argument("TRANSACTIONS", Path.class, "The table to enrich; - is standard input.");

  private final Given<Path> from =
      usage.option("--from", "REFERENCE", Path.class, "The table to fetch from.").needed();

  private final Given<String> key =
      usage
          .option(
              "--key",
              "OURS=THEIRS",
              "The key: a column of ours = one of theirs, one name for both, or OURS RULE THEIRS, such"
                  + " as day at-or-below effective_from, or pct between from_pct and to_pct; several"
                  + " parts parted by commas.")
          .needed();

  private final Given<String> bring =
      usage
          .option(
              "--bring",
              "A,B",
              "The attributes to fetch, each NAME, NAME as OTHER or an aggregate such as count(*) as"
                  + " OFFERS; or all.")
          .needed();

  private final Given<Path> out =
      usage
          .option("--out", "FILE", Path.class, "Where to write. Default: standard output.")
          .usually("-");

  private final Given<List<String>> normalise =
      usage
          .options(
              "--normalise",
              "STEPS",
              "Steps applied to both sides of the key for comparing. Default: trim; none"
                  + " turns it off.")
          .parted();

  private final Given<String> several =
      usage
          .option(
              "--several",
              "RULE",
              "For keys on several reference rows that disagree: flag, first, last, newest-by=COLUMN,"
                  + " longest (of patterns) or each (a row for each). Default: ${DEFAULT-VALUE}.")
          .usually("flag");

  private final Given<String> unmatched =
      usage
          .option(
              "--unmatched",
              "RULE",
              "For unmatched rows: leave, drop or fail. Default: ${DEFAULT-VALUE}.")
          .usually("leave");

  private final Given<Map<String, String>> fill =
      usage.pairs(
          "--fill",
          "ATTRIBUTE=VALUE",
          "A value for an attribute of unmatched rows; may be repeated.");

  private final Given<Map<String, String>> fillEmpty =
      usage.pairs(
          "--fill-empty",
          "ATTRIBUTE=VALUE",
          "A value for an attribute that matched but is null in the reference.");

  private final Given<String> mark =
      usage.option("--mark", "COLUMN", "Add a column with the outcome.");

  private final ReadingOptions reading = new ReadingOptions(usage);

  private final TheirOptions their = new TheirOptions(usage);

  private final WorkersOption workers = new WorkersOption(usage);

  private final MemoryOption memory = new MemoryOption(usage);

  private final FiguresOptions figures = new FiguresOptions(usage);

  private final Given<Boolean> json = usage.flag("--json", "Print the figures as JSON.");

  @Override
  public Usage usage() {
    return usage;
  }

  @Override
  public Integer call() {
    List<Path> inputs = new ArrayList<>(Tables.matching(transactions.get()));
    inputs.addAll(Tables.matching(from.get()));
    String problem = OutputPaths.problem(out.get(), inputs, List.of());
    if (problem != null) {
      throw new SettingException("--out: " + problem);
    }
    Table ours = Tables.file(transactions.get(), reading.of(transactions.get()));
    Table theirs = Tables.file(from.get(), their.of(reading, from.get()));
    reading.checkPrivate(ours, theirs);
    Enrichment enrichment =
        Enrichment.of(ours)
            .lookup(lookup(theirs))
            .keepPrivate(reading.hidden())
            .workers(workers.count())
            .memory(memory.bytes(), memory.folder())
            .build();
    List<Enrichment.Mistake> mistakes = enrichment.check();
    if (!mistakes.isEmpty()) {
      throw new SettingException(mistakes.get(0).message());
    }
    Destination place = Tables.destination(out.get(), OutputOptions.NONE);
    try (BatchSink sink = BatchSink.of(place.open(null))) {
      RunRecord record =
          enrichment.writeTo(sink, new RunContext(TerminalProgress.create(), Exceptions.NONE));
      Results.print(
          record,
          place,
          sink.form(),
          sink.bytesWritten(),
          List.of(),
          new Results.Telling(figures.detail(), closer(), json.get()));
    }
    return 0;
  }

  /** How to look closer at rows: at how the keys agree, or at what stands there several times. */
  private Closer closer() {
    String theirs =
        String.join(
            ",",
            NameLists.split(key.get()).stream().map(KeyPart::parse).map(KeyPart::theirs).toList());
    String hidden =
        reading.hidden().isEmpty()
            ? ""
            : " --private " + String.join(",", new TreeSet<>(reading.hidden()));
    return (lookup, outcome) ->
        switch (outcome) {
          case UNMATCHED ->
              new Closer.Look(
                  "overlap "
                      + transactions.get()
                      + " "
                      + from.get()
                      + " --key \""
                      + key.get()
                      + "\""
                      + hidden,
                  true);
          case AMBIGUOUS ->
              new Closer.Look(
                  "duplicates " + from.get() + " --key \"" + theirs + "\"" + hidden, true);
          default -> Closer.Look.NONE;
        };
  }

  private Lookup lookup(Table reference) {
    Lookup lookup = Lookup.in(reference);
    for (String part : NameLists.split(key.get())) {
      lookup = lookup.key(KeyPart.parse(part));
    }
    if (!normalise.get().isEmpty()) {
      lookup = lookup.normalise(Normalise.parse(normalise.get()));
    }
    lookup =
        bring.get().strip().equals("all")
            ? lookup.bringAll()
            : lookup.bring(NameLists.split(bring.get()).toArray(String[]::new));
    lookup = lookup.several(Several.parse(several.get()));
    Treatment.Action action = choice("--unmatched", unmatched.get(), Treatment.Action.class);
    if (!fill.get().isEmpty() && action != Treatment.Action.LEAVE) {
      throw new SettingException(
          "--fill and --unmatched "
              + unmatched.get()
              + " do not go together: a row that is filled stays");
    }
    lookup = lookup.whenUnmatched(new Treatment(action, new Fill(fill.get()), null));
    if (!fillEmpty.get().isEmpty()) {
      lookup = lookup.whenEmpty(new Fill(fillEmpty.get()));
    }
    return mark.orNull() == null ? lookup : lookup.markAs(mark.orNull());
  }

  private static <E extends Enum<E>> E choice(String option, String word, Class<E> type) {
    List<String> words =
        java.util.Arrays.stream(type.getEnumConstants())
            .map(e -> e.name().toLowerCase(Locale.ROOT))
            .toList();
    int at = words.indexOf(word);
    if (at < 0) {
      throw new SettingException(
          option + ": no rule is called \"" + word + "\"; " + NearestName.hint(word, words));
    }
    return type.getEnumConstants()[at];
  }
}
