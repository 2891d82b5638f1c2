package org.abletwine.examples;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.abletwine.lookup.LoadedLookup;
import org.abletwine.lookup.Lookup;
import org.abletwine.table.Tables;

/** Looks up one record at a time: in a loop of one's own, and as a function in a stream. */
public final class OneRecordAtATime {
  private OneRecordAtATime() {}

  /**
   * Runs the example.
   *
   * @param args the demo folder
   */
  public static void main(String[] args) {
    LoadedLookup growers =
        Lookup.in(Tables.file(Path.of(args[0], "growers.csv")))
            .key("grower_code", "grower_no")
            .bring("name", "mobile")
            .load();

    for (String code : new String[] {"000324R", " 000238N ", "X99999", ""}) {
      LoadedLookup.Result result = growers.find(code.isEmpty() ? null : code);
      System.out.printf(
          "%-10s %-10s %s%n", "'" + code + "'", result.outcome().label(), result.get("name"));
    }

    List<String> names =
        List.of(Map.of("grower_code", "000001K"), Map.of("grower_code", "000002R")).stream()
            .map(growers::apply)
            .map(result -> result.get("name"))
            .toList();
    System.out.println(names);
  }
}
