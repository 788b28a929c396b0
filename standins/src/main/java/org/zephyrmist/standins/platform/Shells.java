package org.zephyrmist.standins.platform;

import static org.jooq.impl.DSL.field;
import static org.jooq.impl.DSL.selectCount;
import static org.zephyrmist.standins.db.Sequences.SHELL_STATE;
import static org.zephyrmist.standins.db.Tables.ITEM;
import static org.zephyrmist.standins.db.Tables.POST;
import static org.zephyrmist.standins.db.Tables.SHELL;
import static org.zephyrmist.standins.db.Tables.SUBMISSION;

import java.math.BigDecimal;
import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.List;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jooq.impl.DSL;
import org.springframework.http.HttpStatusCode;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.server.ResponseStatusException;

/** Shells and what they hold. */
@Component
class Shells {
  private final DSLContext db;
  private final Clock clock;
  private final Json json;

  Shells(DSLContext db, Clock clock, Json json) {
    this.db = db;
    this.clock = clock;
    this.json = json;
  }

  List<Wire.Shell> list(String after, int most) {
    return db.selectFrom(SHELL)
        .where(SHELL.ID.gt(after))
        .orderBy(SHELL.ID)
        .limit(most)
        .fetch(Shells::shell);
  }

  private static Wire.Shell shell(Record r) {
    return new Wire.Shell(
        r.get(SHELL.ID),
        r.get(SHELL.TITLE),
        r.get(SHELL.COURSE),
        r.get(SHELL.TERM),
        r.get(SHELL.STUDENTS));
  }

  Wire.Shell get(String id) {
    return db.selectFrom(SHELL)
        .where(SHELL.ID.eq(id))
        .fetchOptional(Shells::shell)
        .orElseThrow(
            () -> new ResponseStatusException(HttpStatusCode.valueOf(404), "No shell " + id));
  }

  @Transactional
  void make(List<Wire.Shell> made) {
    db.batch(
            made.stream()
                .map(
                    s ->
                        db.insertInto(SHELL)
                            .columns(
                                SHELL.ID, SHELL.TITLE, SHELL.COURSE, SHELL.TERM, SHELL.STUDENTS)
                            .values(s.id(), s.title(), s.course(), s.term(), s.students())
                            .onConflictDoNothing())
                .toList())
        .execute();
  }

  /** Notes within the running transaction that something in the shell has changed. */
  void moved(String shell) {
    db.update(SHELL).set(SHELL.STATE, SHELL_STATE.nextval()).where(SHELL.ID.eq(shell)).execute();
  }

  /** What the shell is called in its present state; another name after any change. */
  String state(String shell) {
    get(shell);
    return db.select(SHELL.STATE).from(SHELL).where(SHELL.ID.eq(shell)).fetchSingle().value1() + "";
  }

  /** Every item of a shell, modules and siblings in their order. */
  List<Wire.Item> items(String shell) {
    get(shell);
    var work = field(selectCount().from(SUBMISSION).where(SUBMISSION.ITEM_ID.eq(ITEM.ID)));
    var posts = field(selectCount().from(POST).where(POST.ITEM_ID.eq(ITEM.ID)));
    return db.select(ITEM.fields())
        .select(work, posts)
        .from(ITEM)
        .where(ITEM.SHELL_ID.eq(shell))
        .orderBy(ITEM.RANK, ITEM.ID)
        .fetch(r -> item(r, r.get(work), r.get(posts)));
  }

  private Wire.Item item(Record r, int work, int posts) {
    return new Wire.Item(
        r.get(ITEM.ID),
        r.get(ITEM.KIND),
        r.get(ITEM.PARENT_ID),
        r.get(ITEM.RANK),
        new Wire.Wording(r.get(ITEM.TITLE), r.get(ITEM.HTML), json.map(r.get(ITEM.WORDING))),
        json.map(r.get(ITEM.GRADING)),
        json.map(r.get(ITEM.TIMING)),
        json.visibility(r.get(ITEM.SHOWN), r.get(ITEM.INSTRUCTORS_ONLY), r.get(ITEM.OPENING)),
        json.map(r.get(ITEM.LAUNCH)),
        work,
        posts,
        r.get(ITEM.CHANGED_BY),
        r.get(ITEM.CHANGED_AT),
        r.get(ITEM.REVISION));
  }

  /** Enrolments, work, grades and posts, as a header tells them. */
  String counts(String shell) {
    int work =
        db.fetchCount(
            SUBMISSION.join(ITEM).on(ITEM.ID.eq(SUBMISSION.ITEM_ID)), ITEM.SHELL_ID.eq(shell));
    int grades =
        db.fetchCount(
            SUBMISSION.join(ITEM).on(ITEM.ID.eq(SUBMISSION.ITEM_ID)),
            ITEM.SHELL_ID.eq(shell).and(SUBMISSION.GRADE.isNotNull()));
    int posts =
        db.fetchCount(POST.join(ITEM).on(ITEM.ID.eq(POST.ITEM_ID)), ITEM.SHELL_ID.eq(shell));
    return "enrolments=%d, work=%d, grades=%d, posts=%d"
        .formatted(get(shell).students(), work, grades, posts);
  }

  @Transactional
  void post(String shell, String item, String student, String text) {
    db.insertInto(POST, POST.ITEM_ID, POST.STUDENT, POST.TEXT, POST.AT)
        .select(
            db.select(ITEM.ID, DSL.val(student), DSL.val(text), DSL.val(OffsetDateTime.now(clock)))
                .from(ITEM)
                .where(ITEM.ID.eq(item))
                .and(ITEM.SHELL_ID.eq(shell)))
        .execute();
    moved(shell);
  }

  /** Marks all work on an item that has no grade yet. */
  @Transactional
  void grade(String shell, String item, BigDecimal points) {
    db.update(SUBMISSION)
        .set(SUBMISSION.GRADE, points)
        .where(SUBMISSION.ITEM_ID.eq(item))
        .and(SUBMISSION.GRADE.isNull())
        .execute();
    moved(shell);
  }

  @Transactional
  void handIn(String shell, String item, String student, String text) {
    db.insertInto(
            SUBMISSION, SUBMISSION.ITEM_ID, SUBMISSION.STUDENT, SUBMISSION.TEXT, SUBMISSION.AT)
        .select(
            db.select(ITEM.ID, DSL.val(student), DSL.val(text), DSL.val(OffsetDateTime.now(clock)))
                .from(ITEM)
                .where(ITEM.ID.eq(item))
                .and(ITEM.SHELL_ID.eq(shell)))
        .execute();
    moved(shell);
  }
}
