package org.abletwine.parquet;

import org.abletwine.table.ColumnType;
import org.apache.parquet.column.ColumnDescriptor;
import org.apache.parquet.format.FieldRepetitionType;
import org.apache.parquet.format.SchemaElement;
import org.apache.parquet.format.Type;
import org.apache.parquet.schema.PrimitiveType.PrimitiveTypeName;
import org.apache.parquet.schema.Types;
import org.jspecify.annotations.Nullable;

/** A column of a file, as its foot describes it. Immutable. */
final class ParquetColumn {
  private final String name;
  private final ColumnDescriptor descriptor;
  private final ColumnForm form;
  private final Type physical;

  /**
   * @param place names file and column, for messages
   */
  ParquetColumn(SchemaElement element, String place) {
    name = element.getName();
    form = ColumnForm.of(element, place);
    physical = element.getType();
    PrimitiveTypeName type = PrimitiveTypeName.valueOf(physical(element));
    boolean required = element.getRepetition_type() == FieldRepetitionType.REQUIRED;
    var builder = required ? Types.required(type) : Types.optional(type);
    if (type == PrimitiveTypeName.FIXED_LEN_BYTE_ARRAY) {
      builder = builder.length(element.getType_length());
    }
    descriptor =
        new ColumnDescriptor(new String[] {name}, builder.named(name), 0, required ? 0 : 1);
  }

  private static String physical(SchemaElement element) {
    String name = element.getType().name();
    return name.equals("BYTE_ARRAY") ? "BINARY" : name;
  }

  String name() {
    return name;
  }

  ColumnDescriptor descriptor() {
    return descriptor;
  }

  /** Returns how its values are kept. */
  Type physical() {
    return physical;
  }

  /** Returns how many levels a value that is there has. */
  int level() {
    return descriptor.getMaxDefinitionLevel();
  }

  @Nullable ColumnType type() {
    return form.type();
  }

  CellForm cells() {
    return form.cells();
  }
}
