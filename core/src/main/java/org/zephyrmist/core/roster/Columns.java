package org.zephyrmist.core.roster;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** The columns of the files that are read (OneRoster 1.1 CSV Tables; 1.2 Rostering CSV Binding). */
enum Columns {
  ORGS("name type", "identifier parentSourcedId"),
  SESSIONS("title type startDate endDate", "parentSourcedId schoolYear"),
  COURSES("title", "schoolYearSourcedId courseCode grades orgSourcedId subjects subjectCodes"),
  CLASSES(
      "title courseSourcedId schoolSourcedId",
      "termSourcedIds grades classCode classType location subjects subjectCodes periods"),
  USERS(
      "givenName familyName",
      "enabledUser orgSourcedIds role username userIds middleName identifier email sms phone"
          + " agentSourcedIds grades password userMasterIdentifier resourceSourcedIds"
          + " preferredGivenName preferredMiddleName preferredFamilyName primaryOrgSourcedId"
          + " pronouns"),
  ENROLLMENTS("classSourcedId userSourcedId role", "schoolSourcedId primary beginDate endDate"),
  ROLES("userSourcedId role", "roleType beginDate endDate orgSourcedId userProfileSourcedId");

  private static final Map<Columns, String> FILES =
      Map.of(
          ORGS, "orgs.csv",
          SESSIONS, "academicSessions.csv",
          COURSES, "courses.csv",
          CLASSES, "classes.csv",
          USERS, "users.csv",
          ENROLLMENTS, "enrollments.csv",
          ROLES, "roles.csv");

  private final Set<String> needed;
  private final Set<String> known;

  Columns(String needed, String more) {
    this.needed = words("sourcedId " + needed);
    this.known = words("sourcedId status dateLastModified " + needed + " " + more);
  }

  private static Set<String> words(String text) {
    return Stream.of(text.split(" ")).collect(Collectors.toCollection(TreeSet::new));
  }

  String file() {
    return FILES.get(this);
  }

  /** A fault of the file is told once, not as one of each row. */
  void check(List<String> header, Remarks remarks) throws RosterException {
    Set<String> here = lower(header);
    List<String> missing =
        needed.stream().filter(c -> !here.contains(c.toLowerCase(Locale.ROOT))).toList();
    if (!missing.isEmpty()) {
      throw new RosterException(
          file() + " has no column " + String.join(", ", missing) + ".",
          "Export the bundle as OneRoster CSV 1.1 or 1.2.");
    }
    Set<String> standard = lower(known);
    List<String> odd =
        header.stream()
            .map(String::strip)
            .filter(c -> !c.isEmpty() && !c.toLowerCase(Locale.ROOT).startsWith("metadata."))
            .filter(c -> !standard.contains(c.toLowerCase(Locale.ROOT)))
            .toList();
    if (!odd.isEmpty()) {
      remarks.file(
          file(),
          "It has columns that are not those of the standard: " + String.join(", ", odd) + ".",
          "They were left out.");
    }
  }

  private static Set<String> lower(Iterable<String> names) {
    Set<String> all = new TreeSet<>();
    names.forEach(n -> all.add(n.strip().toLowerCase(Locale.ROOT)));
    return all;
  }
}
