package org.abletwine.formats.csv;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.abletwine.formats.packed.ByteSource;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.Schema;
import org.abletwine.table.TableOptions;
import org.abletwine.table.batch.BatchTable;
import org.abletwine.table.batch.Pieces;
import org.abletwine.table.batch.RangedTable;
import org.abletwine.table.batch.Stretch;
import org.jspecify.annotations.Nullable;

/** A delimited text file as a table. The head of the file is read once, on first need. */
final class CsvTable implements RangedTable {
  private final ByteSource source;
  private final TableOptions options;
  private @Nullable Dialect dialect;
  private @Nullable Schema schema;

  /** The rows that are read; null for all. */
  private final Stretch.@Nullable Range range;

  CsvTable(ByteSource source, TableOptions options) {
    this.source = source;
    this.options = options;
    range = null;
  }

  private CsvTable(CsvTable whole, Stretch.Range range) {
    source = whole.source;
    options = whole.options;
    dialect = whole.dialect();
    schema = whole.schema();
    this.range = range;
  }

  @Override
  public List<Stretch> stretches(long bytes) {
    return new CsvStretches(source, dialect(), schema().size()).of(bytes);
  }

  @Override
  public Stretch.Looked look(Stretch stretch) {
    return new CsvStretches(source, dialect(), schema().size()).look(stretch);
  }

  @Override
  public BatchTable rows(Stretch.Range some) {
    boolean all = some.from() == 0 && some.to() < 0;
    return all ? this : new CsvTable(this, some);
  }

  @Override
  public String name() {
    return source.shortName();
  }

  @Override
  public long sizeInBytes() {
    return source.size();
  }

  synchronized Dialect dialect() {
    Dialect found = dialect;
    if (found == null) {
      found = DialectFinder.find(source, options);
      dialect = found;
    }
    return found;
  }

  @Override
  public synchronized Schema schema() {
    Schema known = schema;
    if (known == null) {
      known = new Schema(columnNames(dialect()));
      schema = known;
    }
    return known;
  }

  private List<String> columnNames(Dialect form) {
    if (form.firstRecord().isEmpty()) {
      throw new DataException(
          source.name() + " is empty: not even a header line; check that it was exported whole");
    }
    List<String> names = new ArrayList<>();
    Map<String, Integer> positions = new HashMap<>();
    for (int i = 0; i < form.firstRecord().size(); i++) {
      String name = form.header() ? form.firstRecord().get(i).strip() : "";
      name = name.isEmpty() ? "column " + (i + 1) : name;
      Integer before = positions.put(name, i);
      if (before != null) {
        throw new DataException(
            source.name()
                + " line 1: the header names \""
                + name
                + "\" twice, in columns "
                + (before + 1)
                + " and "
                + (i + 1)
                + "; rename one of them");
      }
      names.add(name);
    }
    return names;
  }

  @Override
  public boolean isPrivate(String column) {
    return options.hidden().contains(column);
  }

  @Override
  public @Nullable ColumnType type(String column) {
    return options.types().get(column);
  }

  @Override
  public List<String> remarks() {
    String remark = source.remark();
    return remark == null ? List.of() : List.of(remark);
  }

  @Override
  public Map<String, String> traits() {
    Map<String, String> traits = new HashMap<>();
    traits.put("delimiter", String.valueOf(dialect().delimiter()));
    traits.put("quote", String.valueOf(dialect().quote()));
    traits.put("line-end", dialect().lineEnd());
    if (dialect().encoding().markLength() > 0) {
      traits.put("mark", "yes");
    }
    return traits;
  }

  @Override
  public void readAgain() {
    source.readAgain();
  }

  @Override
  public Pieces pieces(int first, @Nullable BitSet wanted) {
    return new CsvPieces(source, dialect(), schema(), options, range, first, wanted);
  }

  @Override
  public String toString() {
    return "CsvTable[" + source.name() + "]";
  }
}
