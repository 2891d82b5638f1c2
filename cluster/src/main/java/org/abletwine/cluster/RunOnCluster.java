package org.abletwine.cluster;

import java.nio.file.Path;
import java.security.SecureRandom;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.HexFormat;
import java.util.List;
import java.util.TreeMap;
import java.util.concurrent.Callable;
import org.abletwine.cli.FiguresOptions;
import org.abletwine.cli.Given;
import org.abletwine.cli.MemoryOption;
import org.abletwine.cli.PlanOptions;
import org.abletwine.cli.Usage;
import org.abletwine.plan.FarFiles;
import org.abletwine.plan.PlanInParts;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;
import org.abletwine.table.text.Veil;

/** Runs a plan on the cluster that the engine's client was told of. */
final class RunOnCluster implements Callable<Integer> {
  private static final int DATA = 1;
  private static final int USAGE = 2;

  private final Usage usage =
      Usage.of(
              this,
              "run",
              "Runs a plan on the cluster: writes its outputs, the rows in parts, and prints the"
                  + " figures.")
          .examples("  flink run -p 8 able-twine-cluster.jar run /data/harvest.plan.yaml");

  private final Given<String> plan =
      usage.argument(
          "PLAN",
          "The plan file, where all processes of the cluster can read it: a path, or an address of"
              + " the engine's file systems.");

  private final PlanOptions options = new PlanOptions(usage);

  private final MemoryOption memory = new MemoryOption(usage);

  private final FiguresOptions figures = new FiguresOptions(usage);

  private final Given<String> stretch =
      usage
          .option(
              "--stretch",
              "SIZE",
              "How large the stretches are into which the transactions are cut, such as 256m."
                  + " Default: 64m.")
          .otherwise("64m");

  private final Given<Integer> workers =
      usage
          .option(
              "--workers",
              "N",
              Integer.class,
              "How many threads take the rows that one slot has. Default: 1. Where references do"
                  + " not fit, give each TaskManager one slot, and as many threads as processors.")
          .otherwise(1);

  private final Given<Boolean> lenient =
      usage.flag("--lenient", "Only report controls that do not hold; the exit status stays 0.");

  private final Given<Boolean> json = usage.flag("--json", "Print the figures as JSON.");

  /** Returns how it is used. */
  Usage usage() {
    return usage;
  }

  @Override
  public Integer call() {
    if (workers.get() < 1) {
      throw usage.wrong("--workers takes a number from 1 on");
    }
    long bytes = MemoryOption.size(usage, "--stretch", stretch.get());
    try {
      Path file = FarFiles.resolve(Path.of(""), plan.get()).toAbsolutePath().normalize();
      List<String> refusals = PlanInParts.refusals(file, options.values());
      if (!refusals.isEmpty()) {
        return wrong(USAGE, String.join("\n", refusals));
      }
      return run(file, bytes);
    } catch (SettingException e) {
      return wrong(USAGE, String.valueOf(e.getMessage()));
    } catch (DataException e) {
      return wrong(DATA, String.valueOf(e.getMessage()));
    }
  }

  private int run(Path file, long bytes) {
    byte[] name = new byte[6];
    new SecureRandom().nextBytes(name);
    PlanInParts.Sharing sharing =
        new PlanInParts.Sharing(
            file.toString(),
            new TreeMap<>(options.values()),
            LocalDate.now(ZoneId.systemDefault()),
            Instant.now(),
            HexFormat.of().formatHex(name),
            Veil.draw(),
            memory.bytes(),
            workers.get(),
            memory.folder() == null ? null : memory.folder().toString());
    Finish.Shown shown =
        new Finish.Shown(plan.get(), figures.all(), figures.quiet(), json.get(), lenient.get());
    try (PlanInParts opened = PlanInParts.open(sharing)) {
      try {
        opened.begin();
        return told(Job.run(opened, sharing, bytes, shown));
      } catch (DataException | SettingException e) {
        throw e;
      } catch (Exception e) {
        return wrong(
            DATA,
            "the cluster has given up: "
                + root(e)
                + "; nothing was changed. Look at its processes, and run again");
      } finally {
        opened.discard();
      }
    }
  }

  private static int told(String told) {
    int space = told.indexOf(' ');
    int status = Integer.parseInt(told.substring(0, space));
    String text = told.substring(space + 1);
    if (status == DATA || status == USAGE) {
      return wrong(status, text);
    }
    System.out.println(text.stripTrailing());
    return status;
  }

  private static String root(Throwable met) {
    Throwable at = met;
    while (at.getCause() != null) {
      at = at.getCause();
    }
    return at.getMessage() == null ? at.getClass().getSimpleName() : at.getMessage();
  }

  private static int wrong(int status, String message) {
    for (String line : message.split("\n")) {
      System.err.println("able-twine: " + line);
    }
    return status;
  }
}
