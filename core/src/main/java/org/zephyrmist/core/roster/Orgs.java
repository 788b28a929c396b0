package org.zephyrmist.core.roster;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;

/**
 * Organisations: schools are campuses, departments are programs; a district or a state holds
 * schools and is neither (OneRoster 1.1, 4.13.6 OrgType).
 */
record Orgs(Table<Orgs.Row> table) {
  private static final String SCHOOL = "school";
  private static final String DEPARTMENT = "department";

  /** An organisation of any kind. */
  record Row(String id, String name, String type) {
    Roster.Org org() {
      return new Roster.Org(id, name);
    }
  }

  static Row read(CsvBundle.Row r) {
    return new Row(
        r.required("sourcedId"), r.required("name"), r.required("type").toLowerCase(Locale.ROOT));
  }

  List<Roster.Org> programs() {
    return of(DEPARTMENT);
  }

  List<Roster.Org> campuses() {
    return of(SCHOOL);
  }

  Set<String> programIds() {
    return ids(programs());
  }

  Set<String> campusIds() {
    return ids(campuses());
  }

  private List<Roster.Org> of(String type) {
    return table.rows().stream().filter(o -> o.type().equals(type)).map(Row::org).toList();
  }

  private static Set<String> ids(List<Roster.Org> orgs) {
    return orgs.stream().map(Roster.Org::id).collect(Collectors.toSet());
  }

  /** Tells how many of other kinds were left out. */
  void others(Remarks remarks) {
    Map<String, Integer> kinds = new TreeMap<>();
    table.rows().stream()
        .map(Row::type)
        .filter(t -> !t.equals(SCHOOL) && !t.equals(DEPARTMENT))
        .forEach(t -> kinds.merge(t, 1, Integer::sum));
    kinds.forEach(
        (kind, n) ->
            remarks.file(
                Columns.ORGS.file(),
                n + (n == 1 ? " organisation is" : " organisations are") + " of kind " + kind + ".",
                "Only schools are campuses and only departments are programs; left out."));
  }
}
