package org.abletwine.table.batch;

import java.util.BitSet;
import java.util.List;
import java.util.Map;
import org.abletwine.table.ColumnType;
import org.abletwine.table.Schema;
import org.jspecify.annotations.Nullable;

/** A table that is what another is, but for what it says itself. */
abstract class OverTable implements BatchTable {
  final BatchTable table;

  OverTable(BatchTable table) {
    this.table = table;
  }

  @Override
  public String name() {
    return table.name();
  }

  @Override
  public Schema schema() {
    return table.schema();
  }

  @Override
  public @Nullable ColumnType type(String column) {
    return table.type(column);
  }

  @Override
  public boolean isPrivate(String column) {
    return table.isPrivate(column);
  }

  @Override
  public @Nullable ColumnType likely(String column) {
    return table.likely(column);
  }

  @Override
  public Map<String, String> traits() {
    return table.traits();
  }

  @Override
  public List<String> remarks() {
    return table.remarks();
  }

  @Override
  public long sizeInBytes() {
    return table.sizeInBytes();
  }

  @Override
  public void readAgain() {
    table.readAgain();
  }

  @Override
  public Pieces pieces(int first, @Nullable BitSet wanted) {
    return table.pieces(first, wanted);
  }

  @Override
  public String toString() {
    return getClass().getSimpleName() + "[" + table + "]";
  }
}
