package org.abletwine.examples;

import java.nio.file.Path;
import java.util.List;
import org.abletwine.lookup.KeyPart;
import org.abletwine.lookup.LoadedLookup;
import org.abletwine.lookup.Lookup;
import org.abletwine.lookup.Several;
import org.abletwine.table.Table;
import org.abletwine.table.Tables;

/** Classifies texts by the patterns they fit: the longest one, or all of them put together. */
public final class ClassifyRemarks {
  private ClassifyRemarks() {}

  /**
   * Runs the example.
   *
   * @param args the demo folder
   */
  public static void main(String[] args) {
    Table patterns = Tables.file(Path.of(args[0], "remark-patterns.csv"));
    Lookup byPattern = Lookup.in(patterns).key(KeyPart.wildcard("remark", "pattern"));
    LoadedLookup longest = byPattern.bring("remark_class").several(Several.longest()).load();
    LoadedLookup all = byPattern.bring("listagg(remark_class, ' + ') as classes").load();
    for (String remark :
        List.of("after rain, moisture retest", "live insects in the sample", "all fine")) {
      LoadedLookup.Result one = longest.find(remark);
      System.out.printf(
          "%-28s %-10s %-10s %s%n",
          remark, one.outcome().label(), one.get("remark_class"), all.find(remark).get("classes"));
    }
  }
}
