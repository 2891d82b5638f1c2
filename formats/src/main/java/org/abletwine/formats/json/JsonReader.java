package org.abletwine.formats.json;

import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonToken;
import java.io.IOException;
import java.util.Arrays;
import java.util.Map;
import java.util.Set;
import org.abletwine.table.DataException;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.TableReader;
import org.abletwine.table.text.CharSlice;
import org.jspecify.annotations.Nullable;

/**
 * Reads objects into batches. The members of an object come in any order: their characters are kept
 * until it ends. Used by one thread.
 */
final class JsonReader implements TableReader, JsonObjects.Members {
  private static final int MISSING = -1;

  private final JsonObjects objects;
  private final Map<String, Integer> columns;
  private final Set<String> nulls;
  private final int[] starts;
  private final int[] ends;
  private final CharSlice cell = new CharSlice();
  private char[] text = new char[1 << 10];
  private int used;

  JsonReader(JsonObjects objects, Map<String, Integer> columns, Set<String> nulls) {
    this.objects = objects;
    this.columns = columns;
    this.nulls = nulls;
    this.starts = new int[columns.size()];
    this.ends = new int[columns.size()];
  }

  @Override
  public boolean read(Batch into) {
    into.clear(objects.number() + 1, '\0');
    while (!into.full() && readObject(into)) {
      into.endRow();
    }
    return into.rows() > 0;
  }

  private boolean readObject(Batch into) {
    Arrays.fill(starts, MISSING);
    used = 0;
    if (!objects.next(this)) {
      return false;
    }
    try {
      for (int column = 0; column < starts.length; column++) {
        int start = starts[column];
        CharSequence value = start < 0 ? null : cell.over(text, start, ends[column] - start);
        boolean word = value != null && !nulls.isEmpty() && nulls.contains(value.toString());
        into.addCell(word ? null : value);
      }
    } catch (DataException e) {
      throw objects.wrong(String.valueOf(e.getMessage()));
    }
    return true;
  }

  @Override
  public void member(String name, JsonParser value) throws IOException {
    int column = place(name);
    JsonToken token = value.currentToken();
    if (token == JsonToken.START_ARRAY || token == JsonToken.START_OBJECT) {
      String whole = JsonObjects.text(value);
      keep(column, whole.toCharArray(), 0, whole.length());
    } else if (token == JsonToken.VALUE_TRUE || token == JsonToken.VALUE_FALSE) {
      char[] word = value.getText().toCharArray();
      keep(column, word, 0, word.length);
    } else {
      keep(column, value.getTextCharacters(), value.getTextOffset(), value.getTextLength());
    }
  }

  @Override
  public void missing(String name) {
    int column = place(name);
    starts[column] = MISSING - 1; // met, and null
  }

  private int place(String name) {
    Integer column = columns.get(name);
    if (column == null) {
      throw objects.wrong(
          "a member \""
              + name
              + "\" that was not there when the file was read before; run again once nothing writes"
              + " to it");
    }
    if (starts[column] != MISSING) {
      throw objects.wrong("the member \"" + name + "\" stands twice in the object; keep one");
    }
    return column;
  }

  private void keep(int column, char @Nullable [] from, int offset, int length) {
    if (used + length > text.length) {
      text = Arrays.copyOf(text, Math.max(used + length, 2 * text.length));
    }
    if (from != null) {
      System.arraycopy(from, offset, text, used, length);
    }
    starts[column] = used;
    used += length;
    ends[column] = used;
  }

  @Override
  public long bytesRead() {
    return objects.bytesRead();
  }

  @Override
  public void close() {
    objects.close();
  }
}
