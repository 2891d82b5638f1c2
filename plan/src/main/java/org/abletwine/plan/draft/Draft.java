package org.abletwine.plan.draft;

import java.nio.file.Path;
import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.abletwine.figures.RunRecord;
import org.abletwine.plan.PlanFile;
import org.abletwine.step.Progress;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;
import org.abletwine.table.TableOptions;
import org.abletwine.table.text.NearestName;
import org.jspecify.annotations.Nullable;

/**
 * A plan drafted from tables. Immutable.
 *
 * @param text the plan, which {@code check} passes, with its evidence as comments
 * @param figures what a run of it counted, though nothing was written; null when the data stopped
 *     it
 * @param problem what stopped it, in words; empty for nothing
 * @param unused references that joined nothing
 */
public record Draft(String text, @Nullable RunRecord figures, String problem, List<String> unused) {
  /** Transactions that are looked at to find what joins; all of them are counted afterwards. */
  static final int MOST_ROWS = 50_000;

  /** Reference rows that are looked at. */
  static final int MOST_REFERENCE_ROWS = 200_000;

  /** Copies the list. */
  public Draft {
    unused = List.copyOf(unused);
  }

  /**
   * Drafts a plan.
   *
   * @param transactions the transactions
   * @param references the references, each a file, or {@code FILE:SHEET}
   * @param plan where the plan will be saved: paths in it are relative to its folder
   * @param options how to read all of them
   * @param progress told about the tables that are counted
   * @throws SettingException when no format reads a file, or two references have one name
   * @throws DataException when a table cannot be read
   */
  public static Draft of(
      Path transactions,
      List<Path> references,
      Path plan,
      TableOptions options,
      Progress progress) {
    Found found = find(transactions, references, plan, options);
    DraftText text = found.text(found.steps(), LikeDraft.Ending.NONE);
    RunRecord figures = null;
    String problem = "";
    try {
      figures = PlanFile.of(plan, text.plain()).count(progress);
    } catch (DataException e) { // beyond the rows that were looked at: the plan is of use even so
      problem = String.valueOf(e.getMessage());
    }
    return new Draft(text.told(figures, problem), figures, problem, found.unused());
  }

  /**
   * What was found in the tables.
   *
   * @param transactions the transactions
   * @param rows rows of them
   * @param files the references by name
   * @param tables rows of the references
   * @param steps the steps
   * @param unused references that joined nothing
   * @param plan where the plan will be saved
   */
  record Found(
      Source transactions,
      SampleTable rows,
      Map<String, Source> files,
      Map<String, SampleTable> tables,
      List<DraftedStep> steps,
      List<String> unused,
      Path plan) {

    DraftText text(List<DraftedStep> wanted, LikeDraft.Ending ending) {
      Map<String, Source> used = new LinkedHashMap<>(files);
      if (ending != LikeDraft.Ending.NONE) {
        Set<String> names = new HashSet<>();
        for (DraftedStep step : wanted) {
          names.add(step.reference());
          if (step.otherwise() != null) {
            names.add(step.otherwise().reference());
          }
        }
        used.keySet().retainAll(names);
      }
      List<String> open = unused.stream().filter(used::containsKey).toList();
      return new DraftText(transactions, rows, used, tables, wanted, open, ending, plan);
    }
  }

  /** Looks at the tables. */
  static Found find(Path transactions, List<Path> references, Path plan, TableOptions options) {
    Source.Opened ours = Source.of(transactions, options).sample(MOST_ROWS);
    SampleTable rows = ours.rows();
    Map<String, Source> files = new LinkedHashMap<>();
    Map<String, SampleTable> tables = new LinkedHashMap<>();
    for (Path file : references) {
      Source.Opened reference = Source.of(file, options).sample(MOST_REFERENCE_ROWS);
      String name = name(reference.source());
      if (files.putIfAbsent(name, reference.source()) != null) {
        throw new SettingException(
            "two references would be called \"" + name + "\"; rename one of the files");
      }
      tables.put(name, reference.rows());
    }
    if (rows.count() == 0) {
      throw new DataException(transactions + " has no rows; there is nothing to draft from");
    }
    checkPrivate(options.hidden(), rows, tables.values());
    Drafter drafter = new Drafter(rows, tables);
    List<DraftedStep> steps = drafter.steps();
    if (steps.isEmpty()) {
      throw new DataException(
          "no reference joins "
              + transactions
              + ": no column of it shares values with one of "
              + String.join(", ", references.stream().map(Path::toString).toList())
              + ". Name other files, or look at two columns with able-twine overlap");
    }
    return new Found(
        ours.source(), rows, files, tables, steps, List.copyOf(drafter.unused()), plan);
  }

  private static void checkPrivate(
      Set<String> hidden, SampleTable transactions, Collection<SampleTable> references) {
    Set<String> known = new LinkedHashSet<>(transactions.schema().names());
    references.forEach(table -> known.addAll(table.schema().names()));
    for (String name : hidden) {
      if (!known.contains(name)) {
        throw new SettingException(
            "--private: there is no column \"" + name + "\"; " + NearestName.hint(name, known));
      }
    }
  }

  /** The name of a reference: that of its file, as a plain word. */
  private static String name(Source source) {
    String plain = source.name().replaceAll("[^\\p{L}\\p{N}]+", "_");
    return plain.matches("[0-9].*") || plain.isEmpty() || Set.of("transactions").contains(plain)
        ? "table_" + plain
        : plain;
  }
}
