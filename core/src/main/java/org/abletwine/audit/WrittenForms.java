package org.abletwine.audit;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Predicate;
import org.abletwine.table.text.DatePatterns;
import org.abletwine.table.text.NumberForm;
import org.abletwine.table.text.Utf8;

/**
 * Which forms all values of a column of text are written in: dates by a pattern, numbers with
 * separators of their own. Each form is tried until a value is not of it. Used by one thread.
 */
final class WrittenForms {
  /** Patterns of one line read the same dates; the first that reads all is the one to tell. */
  private static final List<List<String>> DATES =
      List.of(
          List.of("dd.MM.yyyy", "d.M.yyyy"),
          List.of("dd/MM/yyyy", "d/M/yyyy"),
          List.of("MM/dd/yyyy", "M/d/yyyy"),
          List.of("dd-MM-yyyy", "d-M-yyyy"),
          List.of("yyyy/MM/dd", "yyyy/M/d"),
          List.of("d MMM yyyy", "d MMMM yyyy"));

  private static final List<List<String>> TIMES =
      List.of(
          List.of("dd.MM.yyyy HH:mm", "d.M.yyyy H:mm", "dd.MM.yyyy HH:mm:ss"),
          List.of("dd/MM/yyyy HH:mm", "d/M/yyyy H:mm", "dd/MM/yyyy HH:mm:ss"),
          List.of("MM/dd/yyyy HH:mm", "M/d/yyyy H:mm", "MM/dd/yyyy HH:mm:ss"));

  /** As for dates: those of one line have the same decimal separator. */
  private static final List<List<String>> NUMBERS =
      List.of(List.of("1.234,56", "1 234,56"), List.of("1,234.56"));

  /** All that there are. */
  private static final List<Form> FORMS = forms();

  private final List<Form> open = new ArrayList<>(FORMS);
  private final Set<String> tried = new HashSet<>();
  private boolean any;

  /**
   * A form that may still be the column's.
   *
   * @param family those of one family read the same values
   * @param stated the form as a plan states it
   * @param reads whether a value is of it
   */
  private record Form(int family, String stated, Predicate<String> reads) {}

  private static List<Form> forms() {
    List<Form> forms = new ArrayList<>();
    for (List<String> family : DATES) {
      int number = DATES.indexOf(family);
      family.forEach(pattern -> forms.add(dates(number, "{ date: " + pattern + " }", pattern)));
    }
    for (List<String> family : TIMES) {
      int number = DATES.size() + TIMES.indexOf(family);
      family.forEach(
          pattern -> forms.add(dates(number, "{ date-time: \"" + pattern + "\" }", pattern)));
    }
    for (List<String> family : NUMBERS) {
      int number = DATES.size() + TIMES.size() + NUMBERS.indexOf(family);
      for (String example : family) {
        NumberForm form = NumberForm.of(example, false);
        forms.add(
            new Form(number, "{ decimal: \"" + example + "\" }", text -> form.plain(text) != null));
      }
    }
    return List.copyOf(forms);
  }

  private static Form dates(int family, String stated, String pattern) {
    DatePatterns dates = new DatePatterns(List.of(pattern));
    return new Form(family, stated, text -> dates.read(text) != null);
  }

  /** Whether a value more needs to be looked at. */
  boolean open() {
    return !open.isEmpty();
  }

  /**
   * Tries a value that is not null, nor a word that looks like it. Numbers as most are written are
   * of a form or not whatever their digits, and are not read for it.
   *
   * @param kind what the value is by itself
   */
  void look(ValueKinds.Kind kind, byte[] text, int start, int end) {
    any = true;
    switch (kind) {
      case WHOLE -> likeNumber("1");
      case DECIMAL -> likeNumber(grouped(text, start, end) ? "1.234" : "1.5");
      case DAY, TIME -> open.clear(); // ISO 8601 needs no telling
      default -> {
        String value = Utf8.text(text, start, end).strip();
        open.removeIf(form -> !form.reads().test(value));
      }
    }
  }

  /** Tries what all numbers of its shape stand for, once. */
  private void likeNumber(String number) {
    if (tried.add(number)) {
      open.removeIf(form -> !form.reads().test(number));
    }
  }

  /** Whether the point of a number may part thousands as well. */
  private static boolean grouped(byte[] text, int start, int end) {
    int point = start;
    while (point < end && text[point] != '.') {
      point++;
    }
    int first = text[start] == '-' || text[start] == '+' ? start + 1 : start;
    return end - point - 1 == 3 && point - first >= 1 && point - first <= 3;
  }

  /** Leaves out what another worker has found not to be the column's form. */
  void merge(WrittenForms other) {
    any |= other.any;
    open.retainAll(other.open);
  }

  /** The forms that all values are of, as a plan states them: several when they do not tell. */
  List<String> found() {
    List<String> found = new ArrayList<>();
    int family = -1;
    for (Form form : any ? open : List.<Form>of()) {
      if (form.family() != family) {
        found.add(form.stated());
      }
      family = form.family();
    }
    return found;
  }
}
