package org.abletwine.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.abletwine.formats.database.DatabaseFormat;
import picocli.CommandLine;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.ParameterException;

/**
 * What a command is called, what it does, and the words it takes: each is stated where its value is
 * kept, in the order in which help tells of them. Told to the library that reads the command line
 * instead of found by it in annotations, which takes a third of a short run. Used by one thread.
 */
public final class Usage {
  static {
    // The library gets ready to read dates, addresses and more, none of which our commands take.
    System.setProperty("picocli.converters.excludes", "java[.].*");
  }

  private final CommandSpec spec;
  private final List<Given<?>> words = new ArrayList<>();
  private int places;

  private Usage(CommandSpec spec) {
    this.spec = spec;
  }

  /**
   * Begins with what every command takes: {@code --help} and {@code --version}.
   *
   * @param command what is run, a {@code Callable} of the exit status or a {@code Runnable}
   * @param name what it is called by
   * @param about what it does, a line each
   * @return the usage, to be told the command's words
   */
  public static Usage of(Object command, String name, String... about) {
    Usage usage = new Usage(CommandSpec.wrapWithoutInspection(command, new Gathering()).name(name));
    usage.spec.usageMessage().description(about);
    return usage;
  }

  /**
   * Has help tell of the options as they are stated, not by their names.
   *
   * @return this usage
   */
  public Usage asStated() {
    spec.usageMessage().sortOptions(false);
    return this;
  }

  /**
   * What help ends with.
   *
   * @param lines examples, a line each
   * @return this usage
   */
  public Usage examples(String... lines) {
    spec.usageMessage().footerHeading("%nExample%n").footer(lines);
    return this;
  }

  /**
   * A command that is stated behind this one's name.
   *
   * @param command its usage, to which nothing is added later
   * @return this usage
   */
  public Usage with(Usage command) {
    spec.usageMessage().synopsisSubcommandLabel("COMMAND");
    spec.addSubcommand(null, command.line());
    return this;
  }

  /**
   * A switch.
   *
   * @param name such as {@code --json}
   * @param text what it does
   * @return whether it was given
   */
  public Given<Boolean> flag(String name, String... text) {
    return stated(new Given<Boolean>(List.of(name), "", text, boolean.class)).otherwise(false);
  }

  /**
   * An option with a value that is taken as it is.
   *
   * @param name such as {@code --key}
   * @param label what stands for the value in help
   * @param text what it is for
   * @return its value, null when it was not given and nothing is stated for that
   */
  public Given<String> option(String name, String label, String... text) {
    return option(name, label, String.class, text);
  }

  /**
   * An option with a value.
   *
   * @param name such as {@code --out}
   * @param label what stands for the value in help
   * @param type of the value
   * @param text what it is for
   * @return its value, null when it was not given and nothing is stated for that
   */
  public <T> Given<T> option(String name, String label, Class<T> type, String... text) {
    return stated(new Given<T>(List.of(name), label, text, type));
  }

  /**
   * An option with a value that is taken as it is, and may be given several times.
   *
   * @param name such as {@code --nulls}
   * @param label what stands for a value in help
   * @param text what it is for
   * @return its values, none when it was not given
   */
  public Given<List<String>> options(String name, String label, String... text) {
    return options(name, label, String.class, text);
  }

  /**
   * An option that may be given several times.
   *
   * @param name such as {@code --driver-path}
   * @param label what stands for a value in help
   * @param type of a value
   * @param text what it is for
   * @return its values, none when it was not given
   */
  public <T> Given<List<T>> options(String name, String label, Class<T> type, String... text) {
    return stated(new Given<List<T>>(List.of(name), label, text, List.class, type))
        .otherwise(List.of());
  }

  /**
   * An option that takes pairs, and may be given several times.
   *
   * @param name such as {@code --set}
   * @param label what stands for a pair in help
   * @param text what it is for
   * @return the pairs in the order given, none when it was not given
   */
  public Given<Map<String, String>> pairs(String name, String label, String... text) {
    return stated(pairs(List.of(name), label, text));
  }

  /**
   * The next word that is no option, taken as it is; it has to be given.
   *
   * @param label what stands for it in help
   * @param text what it is
   * @return its value
   */
  public Given<String> argument(String label, String... text) {
    return argument(label, String.class, text);
  }

  /**
   * The next word that is no option; it has to be given unless something is stated for that.
   *
   * @param label what stands for it in help
   * @param type of the value
   * @param text what it is
   * @return its value
   */
  public <T> Given<T> argument(String label, Class<T> type, String... text) {
    int place = places++;
    return stated(new Given<T>(List.of(), label, text, type).at(Integer.toString(place), ""));
  }

  /**
   * All further words that are no options, of which there has to be one at least.
   *
   * @param label what stands for one of them in help
   * @param type of a value
   * @param text what they are
   * @return their values
   */
  public <T> Given<List<T>> arguments(String label, Class<T> type, String... text) {
    return stated(
        new Given<List<T>>(List.of(), label, text, List.class, type).at(places + "..*", "1..*"));
  }

  /**
   * All further words that are no options, pairs, if any.
   *
   * @param label what stands for one of them in help
   * @param text what they are
   * @return the pairs in the order given
   */
  public Given<Map<String, String>> argumentPairs(String label, String text) {
    return stated(pairs(List.of(), label, text).at(places + "..*", "0..*"));
  }

  private static Given<Map<String, String>> pairs(
      List<String> names, String label, String... text) {
    return new Given<Map<String, String>>(names, label, text, Map.class, String.class, String.class)
        .otherwise(new LinkedHashMap<>());
  }

  private <T> Given<T> stated(Given<T> word) {
    words.add(word);
    return word;
  }

  /**
   * Says which version this is.
   *
   * @param provider asked when that is wanted
   * @return this usage
   */
  Usage version(CommandLine.IVersionProvider provider) {
    spec.versionProvider(provider);
    return this;
  }

  /**
   * What is wrong with the command's words.
   *
   * @param message the reason
   * @return to be thrown
   */
  public ParameterException wrong(String message) {
    return new ParameterException(spec.commandLine(), message);
  }

  /**
   * What reads the words of this command.
   *
   * @return it, with all that was stated until now; called once
   */
  public CommandLine line() {
    // Options first: where both are missing both are told of.
    words.stream().filter(Given::isOption).forEach(word -> word.addTo(spec));
    words.stream().filter(word -> !word.isOption()).forEach(word -> word.addTo(spec));
    spec.addOption(
        OptionSpec.builder("-h", "--help")
            .type(boolean.class)
            .usageHelp(true)
            .description("Show this help message and exit.")
            .build());
    spec.addOption(
        OptionSpec.builder("-V", "--version")
            .type(boolean.class)
            .versionHelp(true)
            .description("Print version information and exit.")
            .build());
    return new CommandLine(spec, new Gathering())
        .registerConverter(Path.class, new Places())
        .setUsageHelpWidth(100);
  }

  // Classes, not lambdas: they cost less at the start.

  /** Files, and tables of databases. */
  private static final class Places implements CommandLine.ITypeConverter<Path> {
    @Override
    public Path convert(String text) {
      return DatabaseFormat.place(text);
    }
  }

  /** Makes what values are gathered in, all there is to be made; searches for no class. */
  private static final class Gathering implements CommandLine.IFactory {
    @Override
    public <K> K create(Class<K> type) {
      return type.cast(type == Map.class ? new LinkedHashMap<String, String>() : new ArrayList<>());
    }
  }
}
