package org.zephyrmist.standins.platform;

import static org.zephyrmist.standins.db.Tables.ITEM;
import static org.zephyrmist.standins.db.Tables.SEEN;
import static org.zephyrmist.standins.db.Tables.SHELL;
import static org.zephyrmist.standins.db.Tables.SUBMISSION;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import org.jooq.DSLContext;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.server.ResponseStatusException;

/**
 * What goes on in a shell once students are there: who may enter, has opened, handed in, was
 * graded.
 */
@Component
class Classes {
  private final DSLContext db;
  private final Shells shells;

  Classes(DSLContext db, Shells shells) {
    this.db = db;
    this.shells = shells;
  }

  /** The days on which students may enter; none: no bound. */
  record Term(Optional<LocalDate> opens, Optional<LocalDate> closes) {
    /** As the interface for programs tells it. */
    String header() {
      return "opens="
          + opens.map(LocalDate::toString).orElse("")
          + ", closes="
          + closes.map(LocalDate::toString).orElse("");
    }

    /** Why students may not enter on a day; empty if they may. */
    String closed(LocalDate day) {
      return opens
          .filter(day::isBefore)
          .map(d -> "This shell opens on " + d + ".")
          .or(() -> closes.filter(day::isAfter).map(d -> "This shell was closed on " + d + "."))
          .orElse("");
    }
  }

  Term term(String shell) {
    return db.select(SHELL.OPENS, SHELL.CLOSES)
        .from(SHELL)
        .where(SHELL.ID.eq(shell))
        .fetchSingle(
            r -> new Term(Optional.ofNullable(r.value1()), Optional.ofNullable(r.value2())));
  }

  @Transactional
  void open(String shell, LocalDate opens, LocalDate closes) {
    if (opens != null && closes != null && closes.isBefore(opens)) {
      throw new ResponseStatusException(HttpStatus.BAD_REQUEST, "It closes before it opens");
    }
    shells.get(shell);
    db.update(SHELL)
        .set(SHELL.OPENS, opens)
        .set(SHELL.CLOSES, closes)
        .where(SHELL.ID.eq(shell))
        .execute();
    shells.moved(shell);
  }

  void opened(String item, String student) {
    db.insertInto(SEEN, SEEN.ITEM_ID, SEEN.STUDENT)
        .values(item, student)
        .onConflictDoNothing()
        .execute();
  }

  AsStudent.Deeds deeds(String shell, String student) {
    Set<String> opened =
        db.select(SEEN.ITEM_ID)
            .from(SEEN)
            .join(ITEM)
            .on(ITEM.ID.eq(SEEN.ITEM_ID))
            .where(ITEM.SHELL_ID.eq(shell))
            .and(SEEN.STUDENT.eq(student))
            .fetchSet(SEEN.ITEM_ID);
    Map<String, BigDecimal> grades = new HashMap<>();
    Set<String> work = new HashSet<>();
    db.select(SUBMISSION.ITEM_ID, SUBMISSION.GRADE)
        .from(SUBMISSION)
        .join(ITEM)
        .on(ITEM.ID.eq(SUBMISSION.ITEM_ID))
        .where(ITEM.SHELL_ID.eq(shell))
        .and(SUBMISSION.STUDENT.eq(student))
        .orderBy(SUBMISSION.ID)
        .forEach(
            r -> {
              work.add(r.value1());
              Optional.ofNullable(r.value2()).ifPresent(g -> grades.put(r.value1(), g));
            });
    return new AsStudent.Deeds(opened, work, grades);
  }

  /** The row of each student who has handed anything in, by name. */
  List<Gradebook.Row> rows(String shell, Gradebook book) {
    Map<String, Map<String, BigDecimal>> all = new TreeMap<>();
    db.select(SUBMISSION.STUDENT, SUBMISSION.ITEM_ID, SUBMISSION.GRADE)
        .from(SUBMISSION)
        .join(ITEM)
        .on(ITEM.ID.eq(SUBMISSION.ITEM_ID))
        .where(ITEM.SHELL_ID.eq(shell))
        .orderBy(SUBMISSION.ID)
        .forEach(
            r -> {
              Map<String, BigDecimal> mine = all.computeIfAbsent(r.value1(), k -> new HashMap<>());
              Optional.ofNullable(r.value3()).ifPresent(g -> mine.put(r.value2(), g));
            });
    return all.entrySet().stream().map(e -> book.row(e.getKey(), e.getValue())).toList();
  }
}
