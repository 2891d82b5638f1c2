package org.abletwine.formats.json;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.JsonToken;
import com.fasterxml.jackson.core.StreamReadFeature;
import java.io.IOException;
import org.abletwine.formats.packed.ByteSource;
import org.abletwine.table.DataException;
import org.abletwine.table.TableOptions;

/**
 * Goes through the objects of a source, member by member. They stand in an array, or one after
 * another. Nothing of an object is kept. Used by one thread.
 */
final class JsonObjects implements AutoCloseable {
  private static final JsonFactory FACTORY =
      JsonFactory.builder().disable(StreamReadFeature.AUTO_CLOSE_SOURCE).build();

  private final ByteSource source;
  private final ByteSource.Opened opened;
  private final JsonParser parser;
  private final boolean nested;

  /** Whether a column is private, so that nothing of the text is shown. */
  private final boolean hides;

  private boolean begun;
  private boolean inArray;
  private boolean ended;
  private long object;

  /** Told of the members of an object. */
  interface Members {

    /**
     * A member that is not null.
     *
     * @param name its name; within a nested object the names, parted by dots
     * @param value stands at its value: a text, a number, true or false, or the beginning of an
     *     array or an object, which is to be gone through to its end
     * @throws IOException when it cannot be read
     */
    void member(String name, JsonParser value) throws IOException;

    /** A member that is null. */
    void missing(String name);
  }

  JsonObjects(ByteSource source, TableOptions options) {
    this.source = source;
    this.nested = options.nested();
    this.hides = !options.hidden().isEmpty();
    this.opened = source.open();
    try {
      this.parser = FACTORY.createParser(opened.in());
    } catch (IOException e) {
      throw new DataException("cannot read " + source.name() + ": " + e.getMessage(), e);
    }
  }

  /** The number of the object gone through last, 1-based. */
  long number() {
    return object;
  }

  /**
   * Goes through the next object.
   *
   * @return false when there is none
   */
  boolean next(Members members) {
    if (ended) {
      return false;
    }
    try {
      JsonToken token = parser.nextToken();
      if (!begun) {
        begun = true;
        inArray = token == JsonToken.START_ARRAY;
        token = inArray ? parser.nextToken() : token;
      }
      if (inArray && token == JsonToken.END_ARRAY) {
        if (parser.nextToken() != null) {
          throw wrong("there is more behind the end of the array; one table is one array");
        }
        ended = true;
        return false;
      }
      if (token == null) {
        if (inArray) {
          throw wrong("the file ends within the array; get the whole file again");
        }
        ended = true;
        return false;
      }
      object++;
      if (token != JsonToken.START_OBJECT) {
        throw wrong("expected an object such as {\"code\": \"A1\"}, found " + found(token));
      }
      object("", members);
      return true;
    } catch (IOException e) {
      throw wrong(e);
    }
  }

  private void object(String prefix, Members members) throws IOException {
    for (JsonToken token = parser.nextToken();
        token != JsonToken.END_OBJECT;
        token = parser.nextToken()) {
      String name = prefix + parser.currentName();
      JsonToken value = parser.nextToken();
      if (value == JsonToken.VALUE_NULL) {
        members.missing(name);
      } else if (value == JsonToken.START_OBJECT && nested && prefix.isEmpty()) {
        object(name + ".", members);
      } else {
        members.member(name, parser);
      }
    }
  }

  private static String found(JsonToken token) {
    return switch (token) {
      case START_ARRAY -> "an array";
      case VALUE_STRING -> "a text";
      case VALUE_NULL -> "null";
      case VALUE_TRUE, VALUE_FALSE -> "true or false";
      default -> "a number";
    };
  }

  /** What to tell about the place the parser is at. */
  DataException wrong(String message) {
    return new DataException(place(parser.currentTokenLocation().getLineNr()) + ": " + message);
  }

  DataException wrong(IOException e) {
    int line = parser.currentLocation().getLineNr();
    if (e instanceof JsonProcessingException json) {
      int column = json.getLocation() == null ? 0 : json.getLocation().getColumnNr();
      line = json.getLocation() == null ? line : json.getLocation().getLineNr();
      String what =
          hides
              ? "this is no JSON" // the parser's words may hold a piece of a private value
              : json.getOriginalMessage()
                  .replaceAll("\\s*\\n.*|\\(start marker.*|; max.*", "")
                  .strip();
      return new DataException(
          place(line) + (column > 0 ? ", character " + column : "") + ": " + what, e);
    }
    return new DataException(place(line) + ": " + e.getMessage(), e);
  }

  private String place(int line) {
    return source.name() + " line " + line + ", object " + Math.max(1, object);
  }

  long bytesRead() {
    return opened.taken().getAsLong();
  }

  /** An array or object as JSON without spaces, numbers as they are written. */
  static String text(JsonParser at) throws IOException {
    java.io.StringWriter text = new java.io.StringWriter();
    try (var generator = FACTORY.createGenerator(text)) {
      generator.copyCurrentStructureExact(at);
    }
    return text.toString();
  }

  @Override
  public void close() {
    try {
      parser.close();
      opened.in().close();
    } catch (IOException e) {
      // reading is over; nothing depends on the close
    }
  }
}
