package org.abletwine.demo;

/** The page that lies beside the demo data. */
final class DemoReadme {
  private DemoReadme() {}

  static String text(Planted planted) {
    StringBuilder page =
        new StringBuilder(
            """
            # Wendle Vale: the demo data

            A made-up grain growers' co-operative at harvest. Everybody and everything here is invented.

            | file | holds |
            |---|---|
            | tickets.csv | weighbridge tickets: the transactions |
            | growers.csv, former_growers.csv | the growers on the books, and those who left |
            | districts.csv, regions.csv | where growers are: a district code leads to a region code |
            | sites.csv | the weighbridges |
            | grades.csv | grade names by commodity and grade mark, which need both |
            | prices.csv | price per tonne by commodity and grade, from a date on |
            | moisture-deductions.csv | deductions by moisture band; the oats bands have a gap from 16.0 to 16.5, the canola bands overlap from 9.0 to 9.5 |
            | containers.csv | kilograms in a pack |
            | varieties.csv, variety-corrections.csv | the varieties, and misspellings with what was meant |
            | remark-patterns.csv | what a remark is about |
            | tickets-2026-07.csv.zip, tickets-2026-08.csv.zip | the tickets again, a zipped file a month |
            | masters.xlsx | growers, districts and sites again, each a sheet of a workbook |
            | prices.db | prices again, as a table of a SQLite database |
            | tickets-by-hand.csv | the first 600 tickets as somebody enriched them by hand, with twenty slips |
            | retests.jsonl | moisture tested again, an object a line; who tested it is an object within |

            Planted on purpose, so that there is something to find:

            | trouble | how often |
            |---|---|
            """);
    planted
        .counts()
        .forEach((trouble, count) -> page.append("| " + trouble + " | " + count + " |\n"));
    page.append(
        "\nRun it again with `able-twine run harvest.plan.yaml`. `intake-check.plan.yaml` is a small"
            + " plan whose controls do not hold: it ends with status 3. `month-end.plan.yaml` reads"
            + " a zipped month, a workbook, a database and objects, and writes a workbook of several"
            + " sheets; `--set month=2026-08` runs it for the next month.\n");
    return page.toString();
  }
}
