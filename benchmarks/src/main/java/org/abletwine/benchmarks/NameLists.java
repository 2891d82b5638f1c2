package org.abletwine.benchmarks;

import java.text.Normalizer;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.function.UnaryOperator;

/**
 * Labelled lists of made-up places of grain: names, and for each another way in which somebody has
 * written it, with the kind of variation and the truth known. Some names were changed altogether,
 * so nothing can find them. The same for the same seed. For one thread.
 */
public final class NameLists {
  private static final String[] ONSETS = {
    "b", "br", "c", "ch", "cl", "d", "dr", "f", "fl", "g", "gl", "h", "k", "l", "m", "n", "p", "pr",
    "r", "s", "sh", "st", "t", "th", "tr", "v", "w", "wr"
  };
  private static final String[] VOWELS = {
    "a", "e", "i", "o", "u", "ai", "ea", "ee", "oa", "ou", "y", "ö", "é"
  };
  private static final String[] CODAS = {
    "", "l", "ll", "m", "n", "nd", "ng", "r", "rn", "rt", "s", "sk", "st", "t", "th", "x", "ck",
    "mp"
  };
  private static final String[] ENDS = {
    "ham", "ton", "ley", "mere", "low", "ford", "by", "wick", "stead", "field", "den", "holt",
    "burgh", "vale", "ing", "combe", "ridge", ""
  };
  private static final String[] TYPES = {
    "Depot",
    "Farm",
    "Silo",
    "Weighbridge",
    "Siding",
    "Elevator",
    "Store",
    "Junction",
    "Grange",
    "Mill",
    "Landing",
    "Field Station",
    "Airfield",
    "Wharf",
    "Terminal"
  };
  private static final Map<String, String> SHORT =
      Map.ofEntries(
          Map.entry("International", "Intl"),
          Map.entry("National", "Natl"),
          Map.entry("Regional", "Rgnl"),
          Map.entry("Municipal", "Muni"),
          Map.entry("Department", "Dept"),
          Map.entry("University", "Univ."),
          Map.entry("Agricultural", "Agric"),
          Map.entry("Cooperative", "Co-op"),
          Map.entry("Company", "Co."),
          Map.entry("Corporation", "Corp"),
          Map.entry("Saint", "St"),
          Map.entry("Mount", "Mt."),
          Map.entry("North", "N"),
          Map.entry("South", "S"),
          Map.entry("Upper", "Upr"),
          Map.entry("Lower", "Lwr"),
          Map.entry("Street", "St"),
          Map.entry("Road", "Rd"),
          Map.entry("Harbour", "Hbr"),
          Map.entry("District", "Dist"),
          Map.entry("Junction", "Jct"),
          Map.entry("Station", "Stn"),
          Map.entry("Airfield", "Afld"),
          Map.entry("Terminal", "Term"),
          Map.entry("Research", "Res"));
  private static final List<String> LONG = SHORT.keySet().stream().sorted().toList();
  private static final String[][] SPELLINGS = {
    {"ea", "ee"},
    {"ck", "k"},
    {"c", "k"},
    {"ou", "u"},
    {"ll", "l"},
    {"burgh", "burg"},
    {"ai", "ay"},
    {"y", "i"},
    {"ph", "f"},
    {"th", "t"},
    {"ö", "oe"},
    {"é", "e"},
    {"sh", "sch"},
    {"w", "v"},
    {"oa", "o"},
    {"ee", "i"},
    {"combe", "coomb"}
  };
  private static final String ALTOGETHER = "another name altogether";
  private static final String TWO = "two of these";

  private final Random random;
  private final List<String> towns;
  private final List<String> people;

  /**
   * A name as somebody has written it.
   *
   * @param kind how it differs
   * @param written the name as written
   * @param meant the name meant
   */
  public record Pair(String kind, String written, String meant) {}

  private record Kind(String name, int weight, UnaryOperator<String> change) {}

  /**
   * @param seed what the lists depend on
   * @param names how many names will be asked for
   */
  public NameLists(long seed, int names) {
    random = new Random(seed);
    int count = Math.max(100, (int) (0.43 * names));
    towns = words(true, count);
    people = words(false, Math.max(50, count / 3));
  }

  private List<String> words(boolean town, int count) {
    Set<String> words = new LinkedHashSet<>();
    while (words.size() < count) {
      words.add(word(town));
    }
    return List.copyOf(words);
  }

  private String any(String[] of) {
    return of[random.nextInt(of.length)];
  }

  private static String any(List<String> of, Random random) {
    return of.get(random.nextInt(of.size()));
  }

  private String longWord() {
    return any(LONG, random);
  }

  private String person() {
    return any(people, random);
  }

  /** A town: the first of them often. */
  private String town() {
    double share = random.nextDouble();
    return towns.get((int) (towns.size() * share * share));
  }

  private String word(boolean town) {
    StringBuilder word = new StringBuilder();
    for (int syllables = 1 + random.nextInt(2); syllables > 0; syllables--) {
      word.append(any(ONSETS)).append(any(VOWELS)).append(any(CODAS));
    }
    word.append(town && random.nextInt(10) < 6 ? any(ENDS) : "");
    if (word.length() < 4) {
      word.append(any(VOWELS)).append('n');
    }
    return Character.toUpperCase(word.charAt(0)) + word.substring(1);
  }

  private String name() {
    return switch (random.nextInt(20)) {
      case 0, 1, 2, 3, 4 -> town();
      case 5, 6, 7, 8 -> town() + " " + any(TYPES);
      case 9, 10 -> town() + " " + town() + (random.nextBoolean() ? " " + any(TYPES) : "");
      case 11, 12 ->
          person()
              + " "
              + person()
              + " "
              + (random.nextInt(3) == 0 ? longWord() + " " : "")
              + any(TYPES);
      case 13 -> "Saint " + person() + (random.nextBoolean() ? " " + any(TYPES) : "");
      case 14 -> town() + " " + longWord() + " " + any(TYPES);
      case 15 -> longWord() + " " + town();
      case 16 -> town() + (random.nextBoolean() ? " No " : " ") + (1 + random.nextInt(9));
      case 17 -> town() + "-" + any(new String[] {"on", "under", "by"}) + "-" + town();
      case 18 -> town() + " / " + person() + " " + person();
      default -> longWord() + " of " + town() + " " + any(TYPES);
    };
  }

  /**
   * Makes names, no two alike.
   *
   * @param count how many
   */
  public List<String> names(int count) {
    Set<String> names = new LinkedHashSet<>();
    while (names.size() < count) {
      names.add(name());
    }
    return new ArrayList<>(names);
  }

  private String slip(String name) {
    if (name.length() < 4) {
      return name;
    }
    int at = 1 + random.nextInt(name.length() - 2);
    char other = (char) ('a' + random.nextInt(26));
    return switch (random.nextInt(4)) {
      case 0 -> name.substring(0, at) + name.substring(at + 1);
      case 1 -> name.substring(0, at) + other + name.substring(at);
      case 2 -> name.substring(0, at) + other + name.substring(at + 1);
      default ->
          name.substring(0, at) + name.charAt(at + 1) + name.charAt(at) + name.substring(at + 2);
    };
  }

  private String spelling(String name) {
    List<String[]> all = new ArrayList<>(List.of(SPELLINGS));
    Collections.shuffle(all, random);
    String spelt = name;
    int left = 1 + random.nextInt(2);
    for (String[] one : all) {
      String other =
          random.nextBoolean()
              ? spelt.replaceFirst(one[0], one[1])
              : spelt.replaceFirst(one[1], one[0]);
      if (!other.equals(spelt) && left-- > 0) {
        spelt = other;
      }
    }
    return spelt;
  }

  private String shortened(String name) {
    String shortened = name;
    for (String word : LONG) {
      shortened = shortened.replaceAll("\\b" + word + "\\b", SHORT.get(word));
    }
    if (!shortened.equals(name)) {
      return shortened;
    }
    String[] words = name.split(" ");
    int at = random.nextInt(words.length);
    if (words[at].length() > 4) {
      words[at] = words[at].substring(0, 3 + random.nextInt(2)) + (random.nextBoolean() ? "." : "");
    }
    return String.join(" ", words);
  }

  private String initials(String name) {
    String[] words = name.split(" ");
    int at = random.nextInt(words.length);
    if (words.length < 2 || words[at].isEmpty()) {
      return shortened(name);
    }
    words[at] = words[at].charAt(0) + ".";
    return String.join(" ", words);
  }

  private String leftOut(String name) {
    List<String> words = new ArrayList<>(List.of(name.split("[ /]+")));
    if (words.size() < 2) {
      return name + " " + any(TYPES);
    }
    words.remove(1 + random.nextInt(words.size() - 1));
    return String.join(" ", words);
  }

  private String added(String name) {
    return switch (random.nextInt(4)) {
      case 0 -> name + " " + any(TYPES);
      case 1 -> name + ", " + town();
      case 2 -> longWord() + " " + name;
      default -> name + " " + longWord() + " " + any(TYPES);
    };
  }

  private String swapped(String name) {
    List<String> words = new ArrayList<>(List.of(name.split(" ")));
    if (words.size() < 2) {
      return name.toUpperCase(Locale.ROOT);
    }
    Collections.rotate(words, 1);
    String rest = String.join(" ", words.subList(1, words.size()));
    return words.get(0) + (random.nextBoolean() ? ", " : " ") + rest;
  }

  private String joined(String name) {
    if (name.contains(" ")) {
      return name.replaceFirst(" ", random.nextBoolean() ? "" : "-");
    }
    int middle = name.length() / 2;
    return name.substring(0, middle) + " " + name.substring(middle);
  }

  private String otherSuffix(String name) {
    for (String type : TYPES) {
      if (name.endsWith(type)) {
        return name.substring(0, name.length() - type.length()) + any(TYPES);
      }
    }
    return name + " " + any(TYPES);
  }

  private String form(String name) {
    return switch (random.nextInt(4)) {
      case 0 -> name.toUpperCase(Locale.ROOT);
      case 1 -> Normalizer.normalize(name, Normalizer.Form.NFD).replaceAll("\\p{M}", "");
      case 2 -> name.replace(" ", "-").toLowerCase(Locale.ROOT);
      default -> " " + name.replace(" ", "  ") + ".";
    };
  }

  private List<Kind> kinds() {
    return List.of(
        new Kind("case, accents, punctuation, spaces", 24, this::form),
        new Kind("words added", 12, this::added),
        new Kind("words left out", 12, this::leftOut),
        new Kind("words shortened (Intl, Dept, Univ.)", 10, this::shortened),
        new Kind("one slip", 10, this::slip),
        new Kind("two slips", 4, name -> slip(slip(name))),
        new Kind("other spelling", 8, this::spelling),
        new Kind("words swapped", 3, this::swapped),
        new Kind("words joined or parted", 4, this::joined),
        new Kind("initials", 2, this::initials),
        new Kind("other suffix", 4, this::otherSuffix),
        new Kind(TWO, 8, name -> name),
        new Kind(ALTOGETHER, 7, name -> name));
  }

  /**
   * Writes names in another way, each once.
   *
   * @param names the names
   * @param there all names there are; none is written as another of them
   */
  public List<Pair> pairs(List<String> names, Set<String> there) {
    List<Kind> kinds = kinds();
    int all = kinds.stream().mapToInt(Kind::weight).sum();
    Set<String> known = new HashSet<>(there);
    List<Pair> pairs = new ArrayList<>();
    for (String name : names) {
      Pair pair = pair(name, kinds, all);
      while (known.contains(pair.written())) {
        pair = pair(name, kinds, all);
      }
      pairs.add(pair);
    }
    return pairs;
  }

  private Pair pair(String name, List<Kind> kinds, int all) {
    int at = random.nextInt(all);
    Kind kind = kinds.get(0);
    for (Kind one : kinds) {
      kind = one;
      if (at < one.weight()) {
        break;
      }
      at -= one.weight();
    }
    String written = kind.change().apply(name);
    if (kind.name().equals(TWO)) {
      for (int i = 0; i < 2; i++) {
        written = kinds.get(random.nextInt(kinds.size() - 2)).change().apply(written);
      }
    } else if (kind.name().equals(ALTOGETHER)) {
      written = word(true) + (random.nextBoolean() ? " " + any(TYPES) : "");
    }
    return new Pair(kind.name(), written, name);
  }
}
