package org.abletwine.derive;

import java.time.DateTimeException;
import java.time.LocalDateTime;
import java.util.List;
import java.util.Objects;
import java.util.function.Supplier;
import org.abletwine.compute.Expression;
import org.abletwine.compute.RowErrors;
import org.abletwine.figures.StepFigures;
import org.abletwine.step.Evaluation;
import org.abletwine.step.run.Columns;
import org.abletwine.step.run.Prepared;
import org.abletwine.step.run.PreparedStep;
import org.abletwine.step.run.RunContext;
import org.abletwine.step.run.RunStep;
import org.abletwine.step.run.StepWorker;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.SettingException;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.CellVector;
import org.abletwine.table.carry.Carrier;
import org.abletwine.table.text.DateForm;
import org.abletwine.table.text.DatePatterns;
import org.abletwine.table.text.NumberForm;
import org.abletwine.table.text.Veil;
import org.jspecify.annotations.Nullable;

/**
 * Writes a column in a stated form: dates by a pattern, or numbers with so many decimal places,
 * rounded half up. Nulls stay null. Immutable.
 *
 * @param column the column
 * @param datePattern how dates, or dates and times, leave; null for numbers
 * @param decimals how many decimal places numbers leave with, 0 to 18; of no account for dates and
 *     where there is an example
 * @param example how numbers leave, by an example such as {@code $1,234.56} or {@code 12.5 %},
 *     whose decimal places they get; null for plain numbers
 * @param settings what a value that is no date or number does
 */
@SuppressWarnings("exports") // prepare and check are for the engine
public record FormatColumn(
    String column,
    @Nullable String datePattern,
    int decimals,
    @Nullable String example,
    Evaluation settings)
    implements RunStep {
  /** Holds that nothing is missing. */
  public FormatColumn {
    Objects.requireNonNull(column, "column");
    Objects.requireNonNull(settings, "settings");
  }

  private static final int MOST_DECIMALS = 18;

  /**
   * Dates by a pattern, or numbers with so many decimal places.
   *
   * @param column the column
   * @param datePattern how dates are written; null for a number
   * @param decimals digits behind the point, for a number
   * @param settings what becomes of values that cannot be written so
   */
  public FormatColumn(
      String column, @Nullable String datePattern, int decimals, Evaluation settings) {
    this(column, datePattern, decimals, null, settings);
  }

  @Override
  public String title() {
    return "format " + column;
  }

  private String form() {
    return example != null ? example : datePattern == null ? decimals + " decimals" : datePattern;
  }

  @Override
  public void check(Columns columns) {
    prepare(columns);
  }

  @Override
  public PreparedStep prepare(Columns columns, RunContext context) {
    return prepare(columns);
  }

  private PreparedStep prepare(Columns columns) {
    int from = columns.require(column, "formats");
    ColumnType type = columns.type(column);
    NumberForm written = example == null ? null : numberForm(example);
    Supplier<Form> form =
        written != null
            ? numbered(written, columns)
            : datePattern == null
                ? rounded(columns)
                : dated(datePattern, type, columns.isPrivate(column));
    columns.replace(column);
    List<String> forms = example == null ? List.of() : List.of(example);
    columns.typed(column, new ColumnType(ColumnType.Kind.TEXT, forms));
    return Prepared.of(() -> new Runner(this, from, form.get()), Runner::figures);
  }

  private NumberForm numberForm(String text) {
    try {
      return NumberForm.of(text, false);
    } catch (IllegalArgumentException e) {
      throw new SettingException(
          "formats, " + column + ": \"" + text + "\" is no example of a number: " + e.getMessage());
    }
  }

  private Supplier<Form> numbered(NumberForm form, Columns columns) {
    String what = '"' + column.replace("\"", "\"\"") + '"' + (form.percent() ? " * 100" : "");
    Expression rounded =
        Expression.of(
            "round(" + what + ", " + form.places() + ")", columns, "formats, " + column, settings);
    return () -> new Numbered(rounded.another(), form);
  }

  private Supplier<Form> rounded(Columns columns) {
    if (decimals < 0 || decimals > MOST_DECIMALS) {
      throw new SettingException(
          "formats, " + column + ": decimals is " + decimals + ", and must be from 0 to 18");
    }
    String quoted = '"' + column.replace("\"", "\"\"") + '"';
    Expression rounded =
        Expression.of(
            "round(" + quoted + ", " + decimals + ")", columns, "formats, " + column, settings);
    return () -> new Rounded(rounded.another());
  }

  private Supplier<Form> dated(String pattern, @Nullable ColumnType type, boolean hidden) {
    if (type != null && type.kind().numeric()) {
      throw new SettingException(
          "formats, " + column + ": the column holds numbers; state decimals: N");
    }
    try {
      List<String> read = type == null ? List.of() : type.patterns();
      DatePatterns reading = new DatePatterns(read);
      DateForm writing = DateForm.of(pattern);
      return () -> new Dated(this, reading, writing, hidden);
    } catch (IllegalArgumentException e) {
      throw new SettingException(
          "formats, "
              + column
              + ": cannot read the pattern \""
              + pattern
              + "\": "
              + e.getMessage()
              + "; write for example dd.MM.yyyy");
    }
  }

  /** Writes cells in a form. */
  private interface Form {
    void write(Batch batch, CellVector from, CellVector target);

    RowErrors errors();
  }

  private record Rounded(Expression rounded) implements Form {
    @Override
    public void write(Batch batch, CellVector from, CellVector target) {
      rounded.over(batch);
      rounded.appendTo(target, batch.rows());
    }

    @Override
    public RowErrors errors() {
      return rounded.errors();
    }
  }

  /** Numbers rounded, and then written as an example says. */
  private static final class Numbered implements Form {
    private final Expression rounded;
    private final NumberForm form;
    private final CellVector plain = new CellVector();

    Numbered(Expression rounded, NumberForm form) {
      this.rounded = rounded;
      this.form = form;
    }

    @Override
    public void write(Batch batch, CellVector from, CellVector target) {
      rounded.over(batch);
      plain.clear();
      rounded.appendTo(plain, batch.rows());
      CellVector text = plain.inNumbers() ? plain.asText(new CellVector()) : plain;
      for (int row = 0; row < batch.rows(); row++) {
        String number = text.get(row);
        target.append(number == null ? null : form.write(number));
      }
    }

    @Override
    public RowErrors errors() {
      return rounded.errors();
    }
  }

  private static final class Dated implements Form {
    private final FormatColumn step;
    private final DatePatterns read;
    private final DateForm write;
    private final boolean hidden;
    private RowErrors errors = RowErrors.NONE;

    Dated(FormatColumn step, DatePatterns read, DateForm write, boolean hidden) {
      this.hidden = hidden;
      this.step = step;
      this.read = read;
      this.write = write;
    }

    @Override
    public void write(Batch batch, CellVector from, CellVector target) {
      for (int row = 0; row < batch.rows(); row++) {
        String text = from.get(row);
        target.append(text == null ? null : formatted(text, batch.rowNumber(row)));
      }
    }

    private @Nullable String formatted(String text, long row) {
      LocalDateTime time = read.read(text.strip());
      try {
        if (time != null) {
          return write.write(time);
        }
      } catch (DateTimeException e) {
        // such as a time zone, which the text does not have: told like any other
      }
      String message =
          "row "
              + row
              + ", formats, "
              + step.column
              + ": \""
              + Veil.over(hidden, text)
              + "\" cannot be written as "
              + step.form();
      if (!step.settings.errorsAreNull()) {
        throw new DataException(
            message
                + ", since it is not a date as "
                + read
                + " has it; state the column's types: { date: PATTERN }, correct the row, or state"
                + " errors: null");
      }
      errors = errors.and(new RowErrors(1, row, message));
      return null;
    }

    @Override
    public RowErrors errors() {
      return errors;
    }
  }

  private static final class Runner implements StepWorker {
    private final FormatColumn step;
    private final int from;
    private final Form form;
    private long rows;

    /** What others could not write. */
    private RowErrors elsewhere = RowErrors.NONE;

    Runner(FormatColumn step, int from, Form form) {
      this.step = step;
      this.from = from;
      this.form = form;
    }

    @Override
    public void apply(Batch batch) {
      CellVector cells = batch.column(from);
      CellVector target = batch.addColumn();
      form.write(batch, cells, target);
      rows += batch.rows();
    }

    private RowErrors errors() {
      return elsewhere.and(form.errors());
    }

    @Override
    public void merge(StepWorker worker) {
      Runner other = (Runner) worker;
      rows += other.rows;
      elsewhere = elsewhere.and(other.errors());
    }

    @Override
    public void carry(Carrier carrier) {
      rows = carrier.number(rows);
      RowErrors all = errors().carried(carrier);
      elsewhere = carrier.comesIn() ? all : elsewhere;
    }

    StepFigures.Formatted figures() {
      RowErrors errors = errors();
      return new StepFigures.Formatted(
          step.column, step.form(), rows, errors.count(), errors.example());
    }
  }
}
