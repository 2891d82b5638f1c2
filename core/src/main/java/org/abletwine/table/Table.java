package org.abletwine.table;

import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * A table that can be read from start to end, as often as asked. Nothing here can change it. Give
 * one of your own by saying its name, its columns and its rows: it is read by one thread, and its
 * rows are worked on by all. Tables are safe to share between threads; the rows they give are not.
 */
public interface Table {

  /** {@return the name used in messages, such as the file name} */
  String name();

  /** {@return the columns} Reads the head of the table the first time, when it has to. */
  Schema schema();

  /**
   * Starts reading at the first row.
   *
   * @return the rows, to be closed
   * @throws DataException when the table cannot be read
   */
  Rows rows();

  /**
   * Says, before the table is opened, that it will be opened more than once. A table that can be
   * read only once, such as a pipe, is then kept in a temporary file. Others need do nothing.
   */
  default void readAgain() {}

  /**
   * How much there is to read.
   *
   * @return bytes, or -1 when that is not known
   */
  default long sizeInBytes() {
    return -1;
  }

  /**
   * What a column holds, where that was stated.
   *
   * @param column its name
   * @return its type, or null when nothing was stated
   */
  default @Nullable ColumnType type(String column) {
    return null;
  }

  /**
   * Whether the values of a column are private: written in rows that come out, and shown nowhere
   * else.
   *
   * @param column its name
   * @return whether it is
   */
  default boolean isPrivate(String column) {
    return false;
  }

  /**
   * What a person should know about what was read, in words, such as cells that hold errors.
   *
   * @return the remarks of the last time the table was read to its end; empty before, and when
   *     there is nothing to say
   */
  default List<String> remarks() {
    return List.of();
  }

  /**
   * How the table is written down, for a sink that wants to keep to it: for example {@code
   * delimiter} or {@code line-end}.
   *
   * @return the traits, empty when there are none
   */
  default Map<String, String> traits() {
    return Map.of();
  }
}
