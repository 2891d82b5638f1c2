package org.abletwine.plan;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;
import org.jspecify.annotations.Nullable;
import org.snakeyaml.engine.v2.api.LoadSettings;
import org.snakeyaml.engine.v2.composer.Composer;
import org.snakeyaml.engine.v2.exceptions.MarkedYamlEngineException;
import org.snakeyaml.engine.v2.exceptions.YamlEngineException;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.parser.ParserImpl;
import org.snakeyaml.engine.v2.scanner.StreamReader;

/** A plan file: reads it, checks it, and makes it ready to run. Stateless. */
public final class PlanFile {
  private static final int MOST_ALIASES = 20;

  private PlanFile() {}

  /**
   * Reads a plan and checks it against the heads of its tables, running nothing.
   *
   * @param file the plan file
   * @return every mistake in it with file, line and column; empty when there is none
   * @throws DataException when the file itself cannot be read
   */
  public static List<String> check(Path file) {
    return check(file, Map.of());
  }

  /**
   * Reads a plan and checks it against the heads of its tables, running nothing.
   *
   * @param file the plan file
   * @param set values of its parameters, by name
   * @return every mistake in it with file, line and column; empty when there is none
   * @throws SettingException when a value is given for a parameter that there is not
   * @throws DataException when the file itself cannot be read
   */
  public static List<String> check(Path file, Map<String, String> set) {
    Mistakes mistakes = new Mistakes(String.valueOf(file.getFileName()));
    PlannedRun run = compile(file, mistakes, set);
    if (run != null && !run.writes() && mistakes.none()) {
      mistakes.add(Optional.empty(), PlannedRun.WRITES_NOTHING);
    }
    return mistakes.list();
  }

  /**
   * Reads a plan, ready to run.
   *
   * @param file the plan file
   * @throws SettingException naming every mistake, a line each
   * @throws DataException when a file cannot be read
   */
  public static PlannedRun load(Path file) {
    return load(file, Map.of());
  }

  /**
   * Reads a plan, ready to run.
   *
   * @param file the plan file
   * @param set values of its parameters, by name
   * @throws SettingException naming every mistake, a line each
   * @throws DataException when a file cannot be read
   */
  public static PlannedRun load(Path file, Map<String, String> set) {
    return load(file, set, LocalDate.now(ZoneId.systemDefault()));
  }

  /**
   * Reads a plan, ready to run as on a certain day.
   *
   * @param today what the plan calls today
   */
  static PlannedRun load(Path file, Map<String, String> set, LocalDate today) {
    Mistakes mistakes = new Mistakes(String.valueOf(file.getFileName()));
    byte[] bytes = read(file, mistakes);
    PlannedRun run =
        bytes == null ? null : compile(file, bytes, text(file, bytes), mistakes, set, today);
    mistakes.throwIfAny();
    if (run == null) {
      throw new IllegalStateException("a plan without mistakes compiles");
    }
    return run;
  }

  /**
   * Makes a plan ready to run that is not saved yet.
   *
   * @param file where it will be saved
   * @param text what it says
   * @throws SettingException naming every mistake, a line each
   * @throws DataException when a table cannot be read
   */
  public static PlannedRun of(Path file, String text) {
    Mistakes mistakes = new Mistakes(String.valueOf(file.getFileName()));
    byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
    PlannedRun run = compile(file, bytes, text, mistakes, Map.of());
    mistakes.throwIfAny();
    if (run == null) {
      throw new IllegalStateException("a plan without mistakes compiles");
    }
    return run;
  }

  private static @Nullable PlannedRun compile(
      Path file, Mistakes mistakes, Map<String, String> set) {
    byte[] bytes = read(file, mistakes);
    return bytes == null ? null : compile(file, bytes, text(file, bytes), mistakes, set);
  }

  private static @Nullable PlannedRun compile(
      Path file, byte[] bytes, String text, Mistakes mistakes, Map<String, String> set) {
    return compile(file, bytes, text, mistakes, set, LocalDate.now(ZoneId.systemDefault()));
  }

  private static @Nullable PlannedRun compile(
      Path file,
      byte[] bytes,
      String text,
      Mistakes mistakes,
      Map<String, String> set,
      LocalDate today) {
    Node root = parse(text, mistakes);
    if (root == null) {
      return null;
    }
    PlanShape.check(root, mistakes);
    if (!mistakes.none()) {
      return null; // what follows goes through the plan as if it had no circles
    }
    Path parent = file.getParent();
    PlanReader reader = new PlanReader(parent == null ? Path.of("") : parent, today, mistakes);
    PlanNode plain = new PlanNode(root, "", mistakes, Parameters.NONE);
    PlanNode stated = plain.isMapping() ? plain.child("parameters") : null;
    Parameters parameters = Parameters.read(stated, set);
    if (!mistakes.none()) {
      return null; // what uses them would be wrong too
    }
    Plan plan = reader.read(new PlanNode(root, "", mistakes, parameters));
    RunAccount.PlanText written =
        new RunAccount.PlanText(String.valueOf(file.getFileName()), text, FileFacts.digest(bytes));
    return plan == null
        ? null
        : PlanCompiler.compile(
            plan, new PlannedRun.PlanSource(file, written, parameters.values()), mistakes);
  }

  private static byte @Nullable [] read(Path file, Mistakes mistakes) {
    try {
      if (Files.isRegularFile(file) && Files.size(file) > PlanShape.MOST_BYTES) {
        mistakes.add(
            Optional.empty(),
            "a plan of "
                + Files.size(file)
                + " bytes, more than "
                + PlanShape.MOST_BYTES
                + "; put lists of values into a table, such as one of corrections");
        return null;
      }
      return Files.readAllBytes(file);
    } catch (NoSuchFileException e) {
      throw new DataException("there is no plan file " + file + "; check the name", e);
    } catch (IOException e) {
      throw new DataException(
          Files.isDirectory(file)
              ? file + " is a folder; name the plan file in it"
              : "cannot read " + file + ": " + e.getMessage(),
          e);
    }
  }

  private static String text(Path file, byte[] bytes) {
    try {
      return StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(bytes)).toString();
    } catch (CharacterCodingException e) {
      throw new DataException(file + ": a plan file is UTF-8 text", e);
    }
  }

  private static @Nullable Node parse(String text, Mistakes mistakes) {
    LoadSettings settings =
        LoadSettings.builder()
            .setUseMarks(true)
            .setAllowDuplicateKeys(true) // noted by the reader, with all other mistakes
            .setMaxAliasesForCollections(MOST_ALIASES)
            .build();
    try {
      Optional<Node> root =
          new Composer(settings, new ParserImpl(settings, new StreamReader(settings, text)))
              .getSingleNode();
      if (root.isEmpty()) {
        mistakes.add(Optional.empty(), "the plan is empty; it begins with able-twine: 1");
      }
      return root.orElse(null);
    } catch (MarkedYamlEngineException e) {
      String problem = e.getProblem();
      mistakes.add(e.getProblemMark(), "not well-formed YAML: " + problem);
    } catch (YamlEngineException e) {
      mistakes.add(Optional.empty(), "not well-formed YAML: " + e.getMessage());
    } catch (StackOverflowError e) {
      mistakes.add(Optional.empty(), PlanShape.TOO_DEEP);
    }
    return null;
  }
}
