package org.abletwine.plan;

import java.math.BigDecimal;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BiConsumer;
import org.abletwine.step.Exceptions;
import org.jspecify.annotations.Nullable;

/**
 * What needs attention by what met it, why, and key, with what the rows of each key come to. Of
 * each step and kind the first {@value #MOST_KEYS} keys are told apart, and all beyond them
 * together. Not safe for use by several threads.
 */
final class GroupedKeys implements Exceptions {
  static final int MOST_KEYS = RunAccount.Unmatched.MOST_COUNTED;

  private final Map<List<String>, Keys> groups = new LinkedHashMap<>();

  /** What meets an exception, and what it is. */
  record Of(String step, String kind, String table) {}

  /** The keys of one step and kind, and all beyond the first together. */
  static final class Keys {
    private final Map<String, Group> byKey = new LinkedHashMap<>();
    private @Nullable Group others;
    private long rows;

    private void add(Found found) {
      rows++;
      Group group = byKey.get(found.key());
      if (group == null && byKey.size() < MOST_KEYS) {
        group = new Group(found);
        byKey.put(found.key(), group);
      } else if (group == null) {
        group = others == null ? new Group(found) : others;
        others = group;
      }
      group.stake.add(found.measure());
    }

    /** The keys told apart, in the order of their first rows. */
    Map<String, Group> byKey() {
      return byKey;
    }

    /** All others; null where all are told apart. */
    @Nullable Group others() {
      return others;
    }

    long rows() {
      return rows;
    }
  }

  /** A key, and what its rows come to. */
  static final class Group {
    private final Found first;
    private final Stake stake = new Stake();

    private Group(Found first) {
      this.first = first;
    }

    /** The first of its rows. */
    Found first() {
      return first;
    }

    Stake stake() {
      return stake;
    }

    /** How large it is, for an order. */
    BigDecimal size() {
      BigDecimal measure = stake.measure();
      return measure == null ? BigDecimal.ZERO : measure.abs(); // a credit is at stake too
    }

    /** The order of groups for a person: the largest, and of equals the one of most rows, first. */
    static int largestFirst(Group one, Group other) {
      int larger = other.size().compareTo(one.size());
      return larger != 0 ? larger : Long.compare(other.stake.rows(), one.stake.rows());
    }
  }

  @Override
  public void found(Found found) {
    groups
        .computeIfAbsent(
            List.of(found.step(), found.kind(), found.table()), // hashed sooner than a first record
            of -> new Keys())
        .add(found);
  }

  /** Goes through all steps and kinds in the order in which they were met. */
  void forEach(BiConsumer<Of, Keys> action) {
    groups.forEach((of, keys) -> action.accept(new Of(of.get(0), of.get(1), of.get(2)), keys));
  }
}
