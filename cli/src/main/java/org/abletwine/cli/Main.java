package org.abletwine.cli;

import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Path;
import java.util.List;
import org.abletwine.formats.database.DatabaseFormat;
import org.abletwine.plan.tell.Words;
import org.abletwine.table.DataException;
import org.abletwine.table.ReaderGoneException;
import org.abletwine.table.SettingException;
import org.abletwine.table.output.OutputFile;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.ScopeType;
import picocli.CommandLine.Spec;

/** The executable {@code able-twine}. */
@Command(
    name = "able-twine",
    description =
        "Fetches attributes for transactions from reference tables, and shows what"
            + " happened to every row.",
    versionProvider = Main.Version.class,
    mixinStandardHelpOptions = true,
    synopsisSubcommandLabel = "COMMAND",
    footerHeading = "%nExample%n",
    footer = {
      "  able-twine demo",
      "  able-twine enrich tickets.csv --from growers.csv --key grower_code=grower_no --bring name",
      "",
      "Exit status: 0 done; 1 the data or a file stopped it; 2 wrong usage or plan;"
          + " 3 a control did not hold, or more changed than is allowed."
    })
public final class Main implements Runnable {
  private static final List<Class<?>> COMMANDS =
      List.of(
          DemoCommand.class,
          DraftCommand.class,
          EnrichCommand.class,
          RunCommand.class,
          CheckCommand.class,
          ProfileCommand.class,
          DuplicatesCommand.class,
          OverlapCommand.class,
          FindCommand.class,
          TraceCommand.class,
          DriftCommand.class,
          SchemaCommand.class,
          CompletionCommand.class,
          ManualCommand.class);
  private static final int DATA = 1;
  private static final int USAGE = 2;

  @Spec private CommandSpec spec;

  @Option(
      names = "--debug",
      scope = ScopeType.INHERIT,
      description = "Show technical detail with errors.")
  private boolean debug;

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
    Main main = new Main();
    try (Streams streams = Streams.shown()) {
      try {
        if (args.length == 1 && args[0].equals("--version")) { // at once: nothing need be parsed
          System.out.println(Version.text());
          System.out.flush();
          return 0;
        }
        CommandLine line = new CommandLine(main);
        StringWriter help = new StringWriter();
        addCommands(line, args);
        int status =
            line.registerConverter(Path.class, new Places())
                .setUsageHelpWidth(100)
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
        return failed(e, main.debug);
      }
    }
  }

  /**
   * Adds the command that is asked for, for a quick start; all of them where help may be needed.
   */
  private static void addCommands(CommandLine line, String[] args) {
    for (Class<?> command : COMMANDS) {
      String name = command.getAnnotation(Command.class).name();
      if (args.length > 0 && args[0].equals(name)) {
        line.addSubcommand(command);
        return;
      }
    }
    addAll(line);
  }

  private static void addAll(CommandLine line) {
    for (Class<?> command : COMMANDS) {
      line.addSubcommand(command);
    }
  }

  /** All commands with their options, to tell of them. */
  static CommandLine whole() {
    CommandLine line = new CommandLine(new Main());
    addAll(line);
    return line;
  }

  private static int usage(ParameterException error, String[] given) {
    Say.error(UsageMessage.of(error, given, commandNames()));
    Say.note("see " + error.getCommandLine().getCommandSpec().qualifiedName() + " --help");
    return USAGE;
  }

  private static List<String> commandNames() {
    return COMMANDS.stream().map(command -> command.getAnnotation(Command.class).name()).toList();
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
    throw new ParameterException(spec.commandLine(), "a command is missing");
  }

  // Classes, not lambdas: the library is compiled for so old a Java that the runtime cannot keep an
  // interface of it ready for later starts once a lambda stands for it, nor what else implements
  // it.

  /** Files and tables of databases. */
  private static final class Places implements CommandLine.ITypeConverter<Path> {
    @Override
    public Path convert(String text) {
      return DatabaseFormat.place(text);
    }
  }

  /** Tells of arguments that cannot be. */
  private static final class Misused implements CommandLine.IParameterExceptionHandler {
    @Override
    public int handleParseException(ParameterException error, String[] given) {
      return usage(error, given);
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
      return failed(error, main.debug);
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
