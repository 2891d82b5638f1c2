package org.abletwine.cli;

import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Model.ArgSpec;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Model.PositionalParamSpec;
import picocli.CommandLine.ScopeType;

/**
 * A word that a command takes, and its value once the command line was read. Used by one thread.
 *
 * @param <T> what the value is
 */
public final class Given<T> {
  private final List<String> names;
  private final String label;
  private final String[] text;
  private final Class<?> type;
  private final Class<?>[] parts;
  private @Nullable String alias;
  private @Nullable String usual;
  private @Nullable T otherwise;
  private @Nullable Iterable<String> choices;
  private boolean needed;
  private boolean parted;
  private boolean everywhere;
  private String index = "";
  private String count = "";
  private @Nullable ArgSpec known;

  /**
   * @param names what it is called by; none for what is known by its place
   * @param label what stands for the value in help
   * @param text what it is for
   * @param type of the value
   * @param parts the types of what it holds, where it holds several
   */
  Given(List<String> names, String label, String[] text, Class<?> type, Class<?>... parts) {
    this.names = names;
    this.label = label;
    this.text = text;
    this.type = type;
    this.parts = parts;
  }

  /** Where among the words that are no options it stands, and how many of them it takes. */
  Given<T> at(String place, String many) {
    index = place;
    count = many;
    needed = !many.startsWith("0");
    return this;
  }

  /** It has to be given. */
  Given<T> needed() {
    needed = true;
    return this;
  }

  /** It is called by another name too. */
  Given<T> orCalled(String name) {
    alias = name;
    return this;
  }

  /** Several values may stand in one word, parted by commas. */
  Given<T> parted() {
    parted = true;
    return this;
  }

  /** It may stand behind the name of any command as well. */
  Given<T> everywhere() {
    everywhere = true;
    return this;
  }

  /** What it is taken for when it is not given, as it would be written; help may tell of it. */
  Given<T> usually(String word) {
    usual = word;
    if (!index.isEmpty()) {
      needed = false;
      count = "0..1";
    }
    return this;
  }

  /**
   * What it is taken for when it is not given.
   *
   * @param value of which help does not know
   * @return this
   */
  public Given<T> otherwise(T value) {
    otherwise = value;
    return this;
  }

  /** The words it may be, for help and for shells. */
  Given<T> oneOf(Iterable<String> words) {
    choices = words;
    return this;
  }

  /** Returns whether it is known by its name, not by its place. */
  boolean isOption() {
    return !names.isEmpty();
  }

  /** Tells a command of it. */
  void addTo(CommandSpec command) {
    known = isOption() ? option() : place();
    command.add(known);
  }

  private OptionSpec option() {
    String[] called =
        alias == null ? new String[] {names.get(0)} : new String[] {names.get(0), alias};
    OptionSpec.Builder builder =
        OptionSpec.builder(called)
            .type(type)
            .auxiliaryTypes(parts)
            .paramLabel(label)
            .description(text)
            .required(needed)
            .defaultValue(usual)
            .completionCandidates(choices);
    if (everywhere) {
      builder.scopeType(ScopeType.INHERIT);
    }
    if (parted) {
      builder.splitRegex(",");
    }
    return otherwise == null ? builder.build() : builder.initialValue(otherwise).build();
  }

  private PositionalParamSpec place() {
    PositionalParamSpec.Builder builder =
        PositionalParamSpec.builder()
            .type(type)
            .auxiliaryTypes(parts)
            .index(index)
            .paramLabel(label)
            .description(text)
            .required(needed)
            .defaultValue(usual)
            .completionCandidates(choices);
    if (!count.isEmpty()) {
      builder.arity(count);
    }
    return otherwise == null ? builder.build() : builder.initialValue(otherwise).build();
  }

  /**
   * Its value, where it has one in any case.
   *
   * @return what was given, or what is stated for that it was not
   */
  public T get() {
    return Objects.requireNonNull(orNull(), label);
  }

  /**
   * Its value.
   *
   * @return what was given, or what is stated for that it was not; null when nothing is
   */
  public @Nullable T orNull() {
    return known == null ? otherwise : known.getValue();
  }
}
