package org.abletwine.formats.json;

import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonToken;
import java.io.IOException;
import java.util.BitSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.abletwine.formats.packed.ByteSource;
import org.abletwine.table.ColumnType;
import org.abletwine.table.DataException;
import org.abletwine.table.Schema;
import org.abletwine.table.TableOptions;
import org.abletwine.table.batch.BatchPieces;
import org.abletwine.table.batch.BatchTable;
import org.abletwine.table.batch.Pieces;
import org.jspecify.annotations.Nullable;

/**
 * Objects as a table: an object is a row, and a column is a name that any object has, in the order
 * they are met. So all objects are gone through once before the first row is read: an object of the
 * last line may have a member that no other has. Columns of numbers alone, and of true and false
 * alone, are known to be that.
 */
final class JsonTable implements BatchTable {
  private final ByteSource source;
  private final TableOptions options;
  private final Map<String, Integer> columns = new LinkedHashMap<>();
  private @Nullable Schema schema;
  private Kinds[] kinds = {};

  JsonTable(ByteSource source, TableOptions options) {
    this.source = source;
    this.options = options;
    source.readAgain();
  }

  /** What values of a column were met. */
  private static final class Kinds {
    private boolean numbers;
    private boolean truths;
    private boolean others;

    void met(@Nullable JsonToken token) {
      boolean number = token == JsonToken.VALUE_NUMBER_INT || token == JsonToken.VALUE_NUMBER_FLOAT;
      boolean truth = token == JsonToken.VALUE_TRUE || token == JsonToken.VALUE_FALSE;
      numbers |= number;
      truths |= truth;
      others |= !number && !truth;
    }

    @Nullable ColumnType type() {
      if (others || numbers == truths) {
        return null;
      }
      return ColumnType.of(numbers ? ColumnType.Kind.NUMBER : ColumnType.Kind.BOOLEAN);
    }
  }

  @Override
  public String name() {
    return source.shortName();
  }

  @Override
  public synchronized Schema schema() {
    Schema known = schema;
    if (known == null) {
      known = scan();
      schema = known;
    }
    return known;
  }

  private Schema scan() {
    Map<String, Kinds> met = new LinkedHashMap<>();
    try (JsonObjects objects = new JsonObjects(source, options)) {
      JsonObjects.Members members =
          new JsonObjects.Members() {
            @Override
            public void member(String name, JsonParser value) throws IOException {
              met.computeIfAbsent(name, n -> new Kinds()).met(value.currentToken());
              value.skipChildren();
            }

            @Override
            public void missing(String name) {
              met.computeIfAbsent(name, n -> new Kinds());
            }
          };
      while (objects.next(members)) {
        // to the last: any object may have a member of its own
      }
      if (objects.number() == 0 || met.isEmpty()) {
        throw new DataException(
            source.name() + " holds no object with members; check that it was exported whole");
      }
    }
    met.keySet().forEach(name -> columns.put(name, columns.size()));
    kinds = met.values().toArray(Kinds[]::new);
    return new Schema(List.copyOf(met.keySet()));
  }

  @Override
  public boolean isPrivate(String column) {
    return options.hidden().contains(column);
  }

  @Override
  public @Nullable ColumnType type(String column) {
    ColumnType stated = options.types().get(column);
    int at = stated == null ? schema().indexOf(column) : -1;
    return at < 0 ? stated : kinds[at].type();
  }

  @Override
  public List<String> remarks() {
    String remark = source.remark();
    return remark == null ? List.of() : List.of(remark);
  }

  @Override
  public long sizeInBytes() {
    return source.size();
  }

  @Override
  public Pieces pieces(int first, @Nullable BitSet wanted) {
    int size = schema().size();
    return new BatchPieces(
        new JsonReader(new JsonObjects(source, options), columns, Set.copyOf(options.nulls())),
        size,
        wanted);
  }

  @Override
  public String toString() {
    return "JsonTable[" + source.name() + "]";
  }
}
