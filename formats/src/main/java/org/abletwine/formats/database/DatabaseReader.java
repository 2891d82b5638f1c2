package org.abletwine.formats.database;

import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.Set;
import org.abletwine.table.DataException;
import org.abletwine.table.batch.Batch;
import org.abletwine.table.batch.TableReader;
import org.jspecify.annotations.Nullable;

/** Goes through what a statement gives, some rows at a time. Used by one thread. */
final class DatabaseReader implements TableReader {
  /** Rows that the server sends at once. */
  private static final int FETCHED = 2_000;

  private static final int NO_COLUMN = -1;
  private static final long MULTIPLIER = 0x9E3779B97F4A7C15L;

  private final DatabaseTable table;
  private final Session session;
  private final DatabaseTable.Head head;
  private final CellReader[] readers;
  private final Set<String> nulls;
  private final PreparedStatement statement;
  private final ResultSet rows;
  private long row;
  private long sum;
  private boolean ended;

  DatabaseReader(DatabaseTable table, Session session, DatabaseTable.Head head, Set<String> nulls) {
    this.table = table;
    this.session = session;
    this.head = head;
    this.readers = head.readers().toArray(CellReader[]::new);
    this.nulls = nulls;
    PreparedStatement made = null;
    try {
      made =
          session
              .connection()
              .prepareStatement(
                  head.sql(), ResultSet.TYPE_FORWARD_ONLY, ResultSet.CONCUR_READ_ONLY);
      made.setFetchSize(FETCHED);
      table.set(made);
      Session.running(made);
      this.rows = made.executeQuery();
      this.statement = made;
    } catch (SQLException e) {
      if (made != null) {
        Session.ended(made);
      }
      session.close();
      throw session.failed(table.place() + " cannot be read", e);
    }
  }

  @Override
  public boolean read(Batch into) {
    into.clear(row + 1, '\0');
    int column = NO_COLUMN;
    try {
      while (!ended && !into.full()) {
        if (!rows.next()) {
          ended = true;
          table.readWhole(sum);
          break;
        }
        for (column = 0; column < readers.length; column++) {
          @Nullable String cell = readers[column].read(rows, column + 1);
          sum = MULTIPLIER * sum + (cell == null ? 0 : cell.hashCode() + 1);
          into.addCell(cell != null && !nulls.isEmpty() && nulls.contains(cell) ? null : cell);
        }
        into.endRow();
        row++;
        column = NO_COLUMN;
      }
      return into.rows() > 0;
    } catch (SQLException e) {
      throw session.failed(
          table.place()
              + " cannot be read beyond row "
              + row
              + (column == NO_COLUMN ? "" : ", column " + head.names().get(column)),
          e);
    } catch (DataException e) {
      if (column == NO_COLUMN) {
        throw e;
      }
      throw new DataException(
          table.place()
              + " row "
              + (row + 1)
              + ", column "
              + head.names().get(column)
              + ": "
              + e.getMessage(),
          e);
    }
  }

  @Override
  public void close() {
    Session.ended(statement);
    try {
      if (!ended) {
        statement.cancel();
      }
      statement.close();
    } catch (SQLException e) {
      // the connection is given up next
    }
    session.close();
  }
}
