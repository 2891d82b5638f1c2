package org.abletwine.cli;

import java.io.PrintWriter;
import java.io.StringWriter;
import java.util.List;
import org.abletwine.plan.tell.Words;
import org.abletwine.table.DataException;
import org.abletwine.table.ReaderGoneException;
import org.abletwine.table.SettingException;
import org.abletwine.table.output.OutputFile;
import picocli.CommandLine;
import picocli.CommandLine.ParameterException;

/** The executable {@code able-twine}. */
public final class Main implements Runnable {
  private static final List<String> COMMANDS =
      List.of(
          "demo",
          "draft",
          "enrich",
          "run",
          "check",
          "profile",
          "duplicates",
          "overlap",
          "find",
          "trace",
          "drift",
          "schema",
          "completion",
          "manual");
  private static final int DATA = 1;
  private static final int USAGE = 2;

  private final Usage usage =
      Usage.of(
              this,
              "able-twine",
              "Fetches attributes for transactions from reference tables, and shows what"
                  + " happened to every row.")
          .examples(
              "  able-twine demo",
              "  able-twine enrich tickets.csv --from growers.csv --key grower_code=grower_no --bring name",
              "",
              "Exit status: 0 done; 1 the data or a file stopped it; 2 wrong usage or plan;"
                  + " 3 a control did not hold, or more changed than is allowed.");
  private final Given<Boolean> debug =
      usage.flag("--debug", "Show technical detail with errors.").everywhere();

  private Main() {}

  /**
   * Runs a command and ends the process with its exit status.
   *
   * @param args the command and its arguments
   */
  public static void main(String[] args) {
    begin();
    System.exit(run(args));
  }

  /** What a process does once, before any command. */
  static void begin() {
    Streams.checked();
    Runtime.getRuntime().addShutdownHook(new Thread(OutputFile::abandonAll, "clear parts"));
  }

  /**
   * Runs a command.
   *
   * @param args the command and its arguments
   * @return the exit status
   */
  public static int run(String... args) {
    Main main = null;
    try (Streams streams = Streams.shown()) {
      try {
        if (args.length == 1 && args[0].equals("--version")) { // at once: nothing need be parsed
          System.out.println(Version.text());
          System.out.flush();
          return 0;
        }
        main = new Main();
        StringWriter help = new StringWriter();
        int status =
            main.line(wanted(args))
                .setUsageHelpAutoWidth(true)
                .setOut(new PrintWriter(help, true))
                .setErr(new PrintWriter(streams.err()))
                .setColorScheme(CommandLine.Help.defaultColorScheme(Ink.helpAnsi()))
                .setParameterExceptionHandler(new Misused())
                .setExecutionExceptionHandler(new Failed(main))
                .execute(args);
        streams.out().print(help);
        System.out.flush();
        return status;
      } catch (RuntimeException | Error e) {
        return failed(e, main != null && main.debug.get());
      }
    }
  }

  /** The command that is asked for, for a quick start; all of them where help may be needed. */
  private static List<String> wanted(String[] args) {
    return args.length > 0 && COMMANDS.contains(args[0]) ? List.of(args[0]) : COMMANDS;
  }

  private CommandLine line(List<String> commands) {
    for (String name : commands) {
      usage.with(command(name).usage());
    }
    return usage.version(new Version()).line();
  }

  private static Command command(String name) {
    return switch (name) {
      case "demo" -> new DemoCommand();
      case "draft" -> new DraftCommand();
      case "enrich" -> new EnrichCommand();
      case "run" -> new RunCommand();
      case "check" -> new CheckCommand();
      case "profile" -> new ProfileCommand();
      case "duplicates" -> new DuplicatesCommand();
      case "overlap" -> new OverlapCommand();
      case "find" -> new FindCommand();
      case "trace" -> new TraceCommand();
      case "drift" -> new DriftCommand();
      case "schema" -> new SchemaCommand();
      case "completion" -> new CompletionCommand();
      case "manual" -> new ManualCommand();
      default -> throw new IllegalArgumentException(name);
    };
  }

  /** All commands with their options, to tell of them. */
  static CommandLine whole() {
    return new Main().line(COMMANDS);
  }

  private static int misused(ParameterException error, String[] given) {
    Say.error(UsageMessage.of(error, given, COMMANDS));
    Say.note("see " + error.getCommandLine().getCommandSpec().qualifiedName() + " --help");
    return USAGE;
  }

  private static int failed(Throwable error, boolean debug) {
    if (debug) {
      Debug.print(error, System.err);
    }
    if (error instanceof ReaderGoneException) {
      return DATA; // such as head, which has all it wanted: there is nobody to tell
    }
    if (error instanceof OutOfMemoryError) {
      Say.error(
          "not enough memory: this run may take "
              + Words.bytes(Runtime.getRuntime().maxMemory())
              + "; give it more with ABLE_TWINE_JAVA_OPTIONS=-Xmx8g, bring fewer columns, or leave"
              + " out rows of the reference with where:");
      return DATA;
    }
    if (error instanceof StackOverflowError) {
      Say.error("something is nested too deeply to be gone through; divide it into several steps");
      return DATA;
    }
    if (error instanceof SettingException) {
      Say.error(error.getMessage());
      return USAGE;
    }
    if (error instanceof DataException) {
      Say.error(error.getMessage());
      return DATA;
    }
    Say.error(
        "something unforeseen went wrong ("
            + Debug.told(error)
            + ");"
            + " run again with --debug to see where");
    return DATA;
  }

  @Override
  public void run() {
    throw usage.wrong("a command is missing");
  }

  // Classes, not lambdas: they cost less at the start.

  /** Tells of arguments that cannot be. */
  private static final class Misused implements CommandLine.IParameterExceptionHandler {
    @Override
    public int handleParseException(ParameterException error, String[] given) {
      return misused(error, given);
    }
  }

  /** Tells of what stopped a command. */
  private static final class Failed implements CommandLine.IExecutionExceptionHandler {
    private final Main main;

    Failed(Main main) {
      this.main = main;
    }

    @Override
    public int handleExecutionException(
        Exception error, CommandLine command, CommandLine.ParseResult parsed) {
      return failed(error, main.debug.get());
    }
  }

  /** Says which version this is. */
  static final class Version implements CommandLine.IVersionProvider {
    @Override
    public String[] getVersion() {
      return new String[] {text()};
    }

    static String text() {
      String version = Main.class.getPackage().getImplementationVersion();
      return "able-twine " + (version == null ? "(unpackaged)" : version);
    }
  }
}
