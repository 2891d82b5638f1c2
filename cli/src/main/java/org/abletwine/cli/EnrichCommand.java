package org.abletwine.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeSet;
import java.util.concurrent.Callable;
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
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** One lookup without a plan. */
@Command(
    name = "enrich",
    mixinStandardHelpOptions = true,
    sortOptions = false,
    description = "Fetches attributes from one reference for every transaction, without a plan.",
    footerHeading = "%nExample%n",
    footer = {
      "  able-twine enrich tickets.csv --from growers.csv --key grower_code=grower_no \\",
      "      --bring \"name as grower_name,district_code\" --fill \"grower_name=Unlisted\" --out enriched.csv"
    })
final class EnrichCommand implements Callable<Integer> {
  @Parameters(
      paramLabel = "TRANSACTIONS",
      description = "The table to enrich; - is standard input.")
  private Path transactions;

  @Option(
      names = "--from",
      required = true,
      paramLabel = "REFERENCE",
      description = "The table to fetch from.")
  private Path from;

  @Option(
      names = "--key",
      required = true,
      paramLabel = "OURS=THEIRS",
      description =
          "The key: a column of ours = one of theirs, one name for both, or OURS RULE THEIRS, such"
              + " as day at-or-below effective_from, or pct between from_pct and to_pct; several"
              + " parts parted by commas.")
  private String key;

  @Option(
      names = "--bring",
      required = true,
      paramLabel = "A,B",
      description =
          "The attributes to fetch, each NAME, NAME as OTHER or an aggregate such as count(*) as"
              + " OFFERS; or all.")
  private String bring;

  @Option(
      names = "--out",
      paramLabel = "FILE",
      defaultValue = "-",
      description = "Where to write. Default: standard output.")
  private Path out;

  @Option(
      names = "--normalise",
      paramLabel = "STEPS",
      split = ",",
      description =
          "Steps applied to both sides of the key for comparing. Default: trim; none"
              + " turns it off.")
  private List<String> normalise;

  @Option(
      names = "--several",
      paramLabel = "RULE",
      defaultValue = "flag",
      description =
          "For keys on several reference rows that disagree: flag, first, last, newest-by=COLUMN,"
              + " longest (of patterns) or each (a row for each). Default: ${DEFAULT-VALUE}.")
  private String several;

  @Option(
      names = "--unmatched",
      paramLabel = "RULE",
      defaultValue = "leave",
      description = "For unmatched rows: leave, drop or fail. Default: ${DEFAULT-VALUE}.")
  private String unmatched;

  @Option(
      names = "--fill",
      paramLabel = "ATTRIBUTE=VALUE",
      description = "A value for an attribute of unmatched rows; may be repeated.")
  private Map<String, String> fill = new LinkedHashMap<>();

  @Option(
      names = "--fill-empty",
      paramLabel = "ATTRIBUTE=VALUE",
      description = "A value for an attribute that matched but is null in the reference.")
  private Map<String, String> fillEmpty = new LinkedHashMap<>();

  @Option(names = "--mark", paramLabel = "COLUMN", description = "Add a column with the outcome.")
  private String mark;

  @Mixin private ReadingOptions reading;

  @Mixin private TheirOptions their;

  @Mixin private WorkersOption workers;

  @Mixin private MemoryOption memory;

  @Mixin private FiguresOptions figures;

  @Option(names = "--json", description = "Print the figures as JSON.")
  private boolean json;

  @Override
  public Integer call() {
    List<Path> inputs = new ArrayList<>(Tables.matching(transactions));
    inputs.addAll(Tables.matching(from));
    String problem = OutputPaths.problem(out, inputs, List.of());
    if (problem != null) {
      throw new SettingException("--out: " + problem);
    }
    Table ours = Tables.file(transactions, reading.of(transactions));
    Table theirs = Tables.file(from, their.of(reading, from));
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
    Destination place = Tables.destination(out, OutputOptions.NONE);
    try (BatchSink sink = BatchSink.of(place.open(null))) {
      RunRecord record =
          enrichment.writeTo(sink, new RunContext(TerminalProgress.create(), Exceptions.NONE));
      Results.print(
          record,
          place,
          sink.form(),
          sink.bytesWritten(),
          List.of(),
          new Results.Telling(figures.detail(), closer(), json));
    }
    return 0;
  }

  /** How to look closer at rows: at how the keys agree, or at what stands there several times. */
  private Closer closer() {
    String theirs =
        String.join(
            ",", NameLists.split(key).stream().map(KeyPart::parse).map(KeyPart::theirs).toList());
    String hidden =
        reading.hidden().isEmpty()
            ? ""
            : " --private " + String.join(",", new TreeSet<>(reading.hidden()));
    return (lookup, outcome) ->
        switch (outcome) {
          case UNMATCHED ->
              new Closer.Look(
                  "overlap " + transactions + " " + from + " --key \"" + key + "\"" + hidden, true);
          case AMBIGUOUS ->
              new Closer.Look("duplicates " + from + " --key \"" + theirs + "\"" + hidden, true);
          default -> Closer.Look.NONE;
        };
  }

  private Lookup lookup(Table reference) {
    Lookup lookup = Lookup.in(reference);
    for (String part : NameLists.split(key)) {
      lookup = lookup.key(KeyPart.parse(part));
    }
    if (normalise != null) {
      lookup = lookup.normalise(Normalise.parse(normalise));
    }
    lookup =
        bring.strip().equals("all")
            ? lookup.bringAll()
            : lookup.bring(NameLists.split(bring).toArray(String[]::new));
    lookup = lookup.several(Several.parse(several));
    Treatment.Action action = choice("--unmatched", unmatched, Treatment.Action.class);
    if (!fill.isEmpty() && action != Treatment.Action.LEAVE) {
      throw new SettingException(
          "--fill and --unmatched "
              + unmatched
              + " do not go together: a row that is filled stays");
    }
    lookup = lookup.whenUnmatched(new Treatment(action, new Fill(fill), null));
    if (!fillEmpty.isEmpty()) {
      lookup = lookup.whenEmpty(new Fill(fillEmpty));
    }
    return mark == null ? lookup : lookup.markAs(mark);
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
