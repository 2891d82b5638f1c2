package org.abletwine.report;

import com.fasterxml.jackson.core.JsonFactory;
import com.fasterxml.jackson.core.JsonGenerator;
import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.abletwine.plan.ReportMaterial;
import org.abletwine.plan.tell.Words;
import org.abletwine.table.text.DecimalText;

/** Keys to correct, and rows that need a person. */
final class AttentionSections {
  private static final JsonFactory JSON = new JsonFactory();
  private static final List<String> NUMBERS = List.of("likeness", "rows", "measure");

  private final ReportMaterial material;
  private final List<Section> sections = new ArrayList<>();

  private AttentionSections(ReportMaterial material) {
    this.material = material;
  }

  static List<Section> of(ReportMaterial material) {
    AttentionSections all = new AttentionSections(material);
    all.corrections();
    all.exceptions();
    return all.sections;
  }

  private void corrections() {
    ReportMaterial.Corrections corrections = material.corrections();
    if (corrections.lines().isEmpty()) {
      return;
    }
    int accept = corrections.header().indexOf("accept");
    int meant = corrections.header().indexOf("meant");
    List<Block.Line> lines = new ArrayList<>();
    for (List<String> line : corrections.lines()) {
      List<Cell> cells = new ArrayList<>();
      for (int i = 0; i < line.size(); i++) {
        BigDecimal number =
            NUMBERS.contains(corrections.header().get(i)) ? DecimalText.read(line.get(i)) : null;
        cells.add(number == null ? Cell.text(line.get(i)) : Cell.number(number));
      }
      lines.add(
          new Block.Line(
              cells,
              json(line),
              line.get(accept).toLowerCase(java.util.Locale.ROOT),
              line.get(meant)));
    }
    String file = corrections.file().isEmpty() ? "corrections.csv" : corrections.file();
    List<Block> blocks = new ArrayList<>();
    blocks.add(
        new Block.Paragraph(
            "Keys that were not found, and the key of the reference that a person would take for"
                + " the one meant. A line counts once its accept says yes, in "
                + file
                + " or here.",
            ""));
    blocks.add(
        new Block.Proposals(
            corrections.header(), lines, String.valueOf(Path.of(file).getFileName())));
    if (corrections.all() > lines.size()) {
      blocks.add(
          new Block.Paragraph(
              "And "
                  + Words.count(corrections.all() - lines.size())
                  + " more lines in "
                  + file
                  + ".",
              ""));
    }
    sections.add(new Section("corrections", "Keys most worth correcting", blocks));
  }

  private static String json(List<String> line) {
    StringWriter json = new StringWriter();
    try (JsonGenerator generator = JSON.createGenerator(json)) {
      generator.writeStartArray();
      for (String cell : line) {
        generator.writeString(cell);
      }
      generator.writeEndArray();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return Words.json(json.toString());
  }

  private void exceptions() {
    List<ReportMaterial.Attention> all = material.attention();
    if (all.isEmpty()) {
      return;
    }
    boolean measured = !material.account().figures().measure().isEmpty();
    List<Block> blocks = new ArrayList<>();
    Block.TableOf counts =
        new Block.TableOf("exceptions-by", "What needs a person, by step and kind")
            .texts("step", "kind", "table")
            .numbers("rows", "different keys");
    Block.TableOf worst =
        new Block.TableOf(
            "worst",
            "The keys with the largest "
                + (measured ? material.account().figures().measure() : "number of rows"));
    worst.texts("step", "kind", "key").numbers("rows");
    if (measured) {
      worst.numbers(material.account().figures().measure());
    }
    worst.numbers("first row").texts("detail");
    long left = 0;
    for (ReportMaterial.Attention one : all) {
      counts.row(
          Cell.name(one.step()),
          Cell.text(one.kind()),
          Cell.text(one.table()),
          Cell.number(one.rows()),
          one.more()
              ? new Cell("over " + Words.count(one.keys()), "number", "" + one.keys())
              : Cell.number(one.keys()));
      for (ReportMaterial.Key key : one.worst()) {
        List<Cell> cells = new ArrayList<>();
        cells.add(Cell.name(one.step()));
        cells.add(Cell.text(one.kind()));
        cells.add(Cell.text(key.key().isEmpty() ? "(blank)" : key.key()));
        cells.add(Cell.number(key.rows()));
        if (measured) {
          BigDecimal measure = key.measure() == null ? null : DecimalText.read(key.measure());
          cells.add(measure == null ? Cell.NONE : Cell.number(measure));
        }
        cells.add(key.firstRow() == 0 ? Cell.NONE : Cell.number(key.firstRow()));
        cells.add(Cell.text(key.detail()));
        worst.row(cells);
      }
      left += one.keys() - one.worst().size();
    }
    blocks.add(counts.sorts().table());
    blocks.add(worst.sorts().table());
    if (left > 0) {
      blocks.add(
          new Block.Paragraph(
              "And "
                  + Words.keys(left)
                  + " more"
                  + (material.exceptions().isEmpty()
                      ? "."
                      : "; every row is in " + material.exceptions() + "."),
              ""));
    } else if (!material.exceptions().isEmpty()) {
      blocks.add(new Block.Paragraph("Every row is in " + material.exceptions() + ".", ""));
    }
    sections.add(new Section("exceptions", "Exceptions", blocks));
  }
}
