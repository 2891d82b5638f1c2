package org.abletwine.demo;

/** The invented names of Wendle Vale. */
final class Vocabulary {
  static final String[] FARM_FIRST = {
    "Thistle",
    "Merrow",
    "Calder",
    "Osier",
    "Larkfield",
    "Upper Tamsin",
    "Brindle",
    "Hollin",
    "Quarry",
    "Saltmarsh",
    "Fenwick End",
    "Old Parish",
    "Nether Coombe",
    "Tallow",
    "Wych Elm",
    "Brönnfeld",
    "Château Plain",
    "Ridgeway"
  };
  static final String[] FARM_SECOND = {
    "Bank", "Hollow", "Meadow", "Rise", "Ford", "Lane", "Spinney", "Water", "Cross", "Barrow", "Top"
  };
  static final String[] FARM_THIRD = {"Farm", "Holding", "Grange", "Estate", "Acres"};

  static final String[] REGIONS = {
    "Northvale", "Eastmarch", "Southdown Plain", "Westering", "Midwendle"
  };
  static final String[] DISTRICTS = {
    "Amberley Flat",
    "Barrowmere",
    "Cold Tansy",
    "Dunlow",
    "Elmstead Cut",
    "Farrow Hill",
    "Gorsely",
    "Hazel Reach",
    "Ivybridge Moor",
    "Juniper Gap",
    "Kestrel Down",
    "Lower Wendle",
    "Marram Point",
    "Nine Oaks",
    "Orchard Vale",
    "Pellow",
    "Quarrystone",
    "Reedham Level",
    "Sorrel Bank",
    "Teasel",
    "Upper Wendle",
    "Vetch Common",
    "Withy Brook",
    "Yarrow Field"
  };
  static final String[] SITES = {"KEL", "TAN", "BRO", "MAR", "OXL", "PEN", "RUD", "SIL"};
  static final String[] SITE_NAMES = {
    "Kelling Weighbridge",
    "Tansy Road",
    "Broad Elevator",
    "Marram Siding",
    "Oxley Depot",
    "Pennet Silo",
    "Rudd Lane",
    "Silverhurst"
  };
  static final String[] COMMODITIES = {"wheat", "barley", "oats", "canola"};
  static final String[][] VARIETIES = {
    {"Harrow Gold", "Dunmere", "Pale Lantern"},
    {"Brightwater", "Old Tolley", "Kestrel Two"},
    {"Greyling", "Miller's Hope", "Tamsin"},
    {"Yellow Banner", "Fieldfare", "Amberlight"}
  };

  /** Misspelt, and meant: what the tickets say and what they should. */
  static final String[][] MISSPELT = {
    {"Harow Gold", "Harrow Gold"},
    {"Harrow Gld", "Harrow Gold"},
    {"Dunmeer", "Dunmere"},
    {"Pale Lantren", "Pale Lantern"},
    {"Brigtwater", "Brightwater"},
    {"Old Toley", "Old Tolley"},
    {"Kestral Two", "Kestrel Two"},
    {"Grayling", "Greyling"},
    {"Millers Hope", "Miller's Hope"},
    {"Yelow Banner", "Yellow Banner"},
    {"Feildfare", "Fieldfare"}
  };

  static final String[] GRADES = {"M1", "M2", "F1", "F2"};
  static final String[][] GRADE_NAMES = {
    {"Milling wheat, first", "Milling wheat, second", "Feed wheat, first", "Feed wheat, second"},
    {
      "Malting barley, first", "Malting barley, second", "Feed barley, first", "Feed barley, second"
    },
    {"Milling oats, first", "Milling oats, second", "Feed oats, first", "Feed oats, second"},
    {"Crushing canola, first", "Crushing canola, second", "Off-grade canola", "Salvage canola"}
  };
  static final String[] PACKS = {"bulk", "tote bag", "half tote", "field crate", "seed sack"};
  static final int[] PACK_KG = {1000, 900, 450, 320, 25};
  static final String[] REMARKS = {
    "",
    "",
    "",
    "",
    "",
    "",
    "probe sample taken",
    "reweigh asked for by driver",
    "live insects seen",
    "after rain, moisture retest",
    "tarpaulin torn, some spillage",
    "driver said \"no hurry\"",
    "second load today",
    "sample kept for lab",
    "weevils found in probe",
    "damp at the tail"
  };

  private Vocabulary() {}

  /** A farm name; a million numbers give names that mostly differ. */
  static String farm(long number) {
    int n = (int) (number & Integer.MAX_VALUE);
    String name =
        FARM_FIRST[n % FARM_FIRST.length]
            + " "
            + FARM_SECOND[n / 7 % FARM_SECOND.length]
            + " "
            + FARM_THIRD[n / 31 % FARM_THIRD.length];
    return n < 500 ? name : name + " " + n % 9973;
  }
}
