package org.abletwine.lookup;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.abletwine.compute.RowFilter;
import org.abletwine.key.Normalise;
import org.abletwine.key.NormaliseStep;
import org.abletwine.table.Table;
import org.jspecify.annotations.Nullable;

/** The settings of a lookup while one of them is changed. */
final class LookupDraft {
  final Table reference;
  String name;
  List<KeyPart> key = new ArrayList<>();
  List<NormaliseStep> normalise = List.of(Normalise.trim());
  List<Attribute> bring = new ArrayList<>();
  Several several = Several.flag();
  final Map<Outcome, Treatment> treatments = new EnumMap<>(Outcome.class);
  @Nullable String mark;
  @Nullable RowFilter where;
  @Nullable Asked asked;
  Duplicates duplicates = Duplicates.keep();
  boolean leavesOutUnreadable;
  List<Lookup> otherwise = new ArrayList<>();
  final Set<String> hidden = new HashSet<>();

  LookupDraft(Table reference) {
    this.reference = reference;
    this.name = reference.name();
    for (Outcome outcome : Outcome.values()) {
      treatments.put(outcome, Treatment.leave());
    }
  }

  LookupDraft(Lookup lookup) {
    this(lookup, lookup.reference);
  }

  LookupDraft(Lookup lookup, Table reference) {
    this.reference = reference;
    this.name = lookup.name;
    this.key = new ArrayList<>(lookup.key);
    this.normalise = lookup.normalise;
    this.bring = new ArrayList<>(lookup.bring);
    this.several = lookup.several;
    this.treatments.putAll(lookup.treatments);
    this.mark = lookup.mark;
    this.where = lookup.where;
    this.asked = lookup.asked;
    this.duplicates = lookup.duplicates;
    this.leavesOutUnreadable = lookup.leavesOutUnreadable;
    this.otherwise = new ArrayList<>(lookup.otherwise);
    this.hidden.addAll(lookup.hidden);
  }
}
