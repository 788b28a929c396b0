package org.zephyrmist.server.delivery;

import static org.zephyrmist.server.db.Tables.CAMPUS;
import static org.zephyrmist.server.db.Tables.COURSE;
import static org.zephyrmist.server.db.Tables.KEPT_SHELL;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.TERM;

import jakarta.validation.constraints.NotNull;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.delivery.SectionFacts;
import org.zephyrmist.server.coverage.Rules;

/** The sections that a delivery goes to, and which of them are perhaps not meant. */
@Component
class Targets {
  /** So many of ten on one campus: the others are perhaps a mistake. */
  private static final int OF_TEN = 9;

  private final DSLContext db;
  private final Rules rules;

  Targets(DSLContext db, Rules rules) {
    this.db = db;
    this.rules = rules;
  }

  /**
   * @param shell whether it has one
   * @param waits whether a package waits to be brought into it
   */
  record Target(
      UUID id,
      String code,
      SectionFacts facts,
      String courseCode,
      String campus,
      Optional<String> term,
      boolean shell,
      boolean waits,
      int students) {}

  /** A section that is perhaps no target; why is told by the list it stands in. */
  record Unfit(@NotNull UUID section, @NotNull String code, @NotNull String about) {}

  /**
   * @param noShell they wait for one
   * @param otherTerm of another term than most
   * @param otherCampus of another campus than nearly all
   * @param otherCourse that no coverage rule of the master names, if it has any
   * @param own from whose shells the master was made
   * @param packageWaits whose package is to be brought in first
   */
  record Unfits(
      @NotNull List<Unfit> noShell,
      @NotNull List<Unfit> otherTerm,
      @NotNull List<Unfit> otherCampus,
      @NotNull List<Unfit> otherCourse,
      @NotNull List<Unfit> own,
      @NotNull List<Unfit> packageWaits) {}

  List<Target> of(List<UUID> sections) {
    return db.select(SECTION.fields())
        .select(CAMPUS.SOURCED_ID, CAMPUS.NAME, COURSE.CODE, TERM.TITLE, KEPT_SHELL.PACKAGE_AT)
        .from(SECTION)
        .join(CAMPUS)
        .on(CAMPUS.ID.eq(SECTION.CAMPUS_ID))
        .join(COURSE)
        .on(COURSE.ID.eq(SECTION.COURSE_ID))
        .leftJoin(TERM)
        .on(TERM.ID.eq(SECTION.TERM_ID))
        .leftJoin(KEPT_SHELL)
        .on(KEPT_SHELL.SECTION_ID.eq(SECTION.ID))
        .where(SECTION.ID.in(sections))
        .orderBy(SECTION.CODE, SECTION.ID)
        .fetch(
            r ->
                new Target(
                    r.get(SECTION.ID),
                    r.get(SECTION.CODE),
                    new SectionFacts(r.get(CAMPUS.SOURCED_ID), "", Set.of()),
                    r.get(COURSE.CODE),
                    r.get(CAMPUS.NAME),
                    Optional.ofNullable(r.get(TERM.TITLE)),
                    r.get(SECTION.SHELL) != null,
                    r.get(KEPT_SHELL.PACKAGE_AT) != null,
                    Optional.ofNullable(r.get(SECTION.STUDENTS)).orElse(0)));
  }

  Unfits unfits(UUID master, List<Target> all) {
    Set<UUID> unexpected = rules.unexpected(master, all.stream().map(Target::id).toList());
    Optional<UUID> own =
        db.select(MASTER.MADE_FROM)
            .from(MASTER)
            .where(MASTER.ID.eq(master))
            .fetchOptional(MASTER.MADE_FROM);
    String term = most(all, t -> t.term().orElse("")).getKey();
    Map.Entry<String, Long> campus = most(all, Target::campus);
    boolean nearlyAll = campus.getValue() * 10 >= (long) all.size() * OF_TEN;
    return new Unfits(
        some(all, t -> !t.shell(), t -> ""),
        some(all, t -> !t.term().orElse("").equals(term), t -> t.term().orElse("no term")),
        some(all, t -> nearlyAll && !t.campus().equals(campus.getKey()), Target::campus),
        some(all, t -> unexpected.contains(t.id()), Target::courseCode),
        some(all, t -> own.equals(Optional.of(t.id())), t -> ""),
        some(all, Target::waits, t -> ""));
  }

  private static List<Unfit> some(
      List<Target> all, Predicate<Target> which, Function<Target, String> about) {
    return all.stream()
        .filter(which)
        .map(t -> new Unfit(t.id(), t.code(), about.apply(t)))
        .toList();
  }

  private static Map.Entry<String, Long> most(List<Target> all, Function<Target, String> of) {
    return all.stream()
        .collect(Collectors.groupingBy(of, Collectors.counting()))
        .entrySet()
        .stream()
        .max(
            Map.Entry.<String, Long>comparingByValue()
                .thenComparing(Comparator.comparing(Map.Entry::getKey)))
        .orElse(Map.entry("", 0L));
  }
}
