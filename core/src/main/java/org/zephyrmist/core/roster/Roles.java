package org.zephyrmist.core.roster;

import java.io.IOException;
import java.util.HashSet;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/** Roles, which have a file of their own in 1.2 (Rostering CSV Binding, roles.csv). */
final class Roles {
  private Roles() {}

  /** Tells of teachers of classes who have only a student's role. */
  static void check(
      CsvBundle bundle, BundleManifest manifest, Set<String> teachers, Remarks remarks)
      throws RosterException, IOException {
    Set<String> told = new HashSet<>();
    Set<String> teach = new HashSet<>();
    Table.read(
        bundle,
        manifest,
        Columns.ROLES,
        false,
        remarks,
        r -> {
          String user = r.required("userSourcedId");
          if (teachers.contains(user) && !r.isDeleted()) {
            told.add(user);
            if (!r.required("role").equalsIgnoreCase("student")) {
              teach.add(user);
            }
          }
          return Optional.empty();
        });
    told.removeAll(teach);
    for (String user : new TreeSet<>(told)) {
      remarks.add(
          Columns.ROLES.file(),
          0,
          user,
          "The user teaches a class and is only a student in this file.",
          "The user was taken as a teacher; correct one of the two.");
    }
  }
}
