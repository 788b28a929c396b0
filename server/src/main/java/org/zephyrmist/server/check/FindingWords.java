package org.zephyrmist.server.check;

import static org.zephyrmist.server.db.Tables.FINDING;
import static org.zephyrmist.server.db.Tables.RIGHT_HERE;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.check.Check;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** What people say to findings: that it is right as it is, or that the instructors see to it. */
@Component
class FindingWords {
  private final DSLContext db;
  private final Events events;
  private final Clock clock;

  FindingWords(DSLContext db, Events events, Clock clock) {
    this.db = db;
    this.events = events;
    this.clock = clock;
  }

  /** Right as it is in these sections, as long as what is seen there is the same. */
  @Transactional
  public int right(Check check, String subject, List<UUID> sections, String reason, SignedIn who) {
    int n =
        db.query(
                "insert into right_here select distinct on (section_id) section_id, check_name,"
                    + " subject, evidence, ?, ?::uuid, ?::timestamptz from finding where check_name"
                    + " = ? and subject = ? and section_id = any(?::uuid[]) order by section_id,"
                    + " item on conflict (section_id, check_name, subject) do update set evidence ="
                    + " excluded.evidence, reason = excluded.reason, person_id ="
                    + " excluded.person_id, at = excluded.at",
                reason.strip(),
                who.id(),
                OffsetDateTime.now(clock),
                check.name(),
                subject,
                sections.toArray(UUID[]::new))
            .execute();
    if (n == 0) {
      throw nothing();
    }
    told(check, subject, "said that it is right as it is", n, who);
    return n;
  }

  /** It is looked at again in these sections. */
  @Transactional
  public int again(Check check, String subject, List<UUID> sections, SignedIn who) {
    int n =
        db.deleteFrom(RIGHT_HERE)
            .where(RIGHT_HERE.CHECK_NAME.eq(check))
            .and(RIGHT_HERE.SUBJECT.eq(subject))
            .and(RIGHT_HERE.SECTION_ID.eq(DSL.any(sections.toArray(UUID[]::new))))
            .execute();
    if (n > 0) {
      told(check, subject, "had looked at again", n, who);
    }
    return n;
  }

  /** A hand-over to the instructors of these sections, until it is not found there any more. */
  @Transactional
  public int ask(Check check, String subject, List<UUID> sections, String note, SignedIn who) {
    int n =
        db.query(
                "insert into finding_asked select distinct section_id, check_name, subject, ?,"
                    + " ?::uuid, ?::timestamptz from finding where check_name = ? and subject = ? and"
                    + " section_id = any(?::uuid[]) on conflict (section_id, check_name, subject) do"
                    + " update set note = excluded.note, person_id = excluded.person_id, at ="
                    + " excluded.at",
                note.strip(),
                who.id(),
                OffsetDateTime.now(clock),
                check.name(),
                subject,
                sections.toArray(UUID[]::new))
            .execute();
    if (n == 0) {
      throw nothing();
    }
    told(check, subject, "asked instructors to put right", n, who);
    return n;
  }

  private static Refusal nothing() {
    return Refusal.bad(
        "It is not found in any of these sections any more.", "Look at the checks again.");
  }

  private void told(Check check, String subject, String what, int n, SignedIn who) {
    String title =
        db.select(FINDING.TITLE)
            .from(FINDING)
            .where(FINDING.CHECK_NAME.eq(check))
            .and(FINDING.SUBJECT.eq(subject))
            .limit(1)
            .fetchOptional(FINDING.TITLE)
            .orElse("");
    events.add(
        who.id(), what, check.title(title), n == 1 ? "1 section" : n + " sections", "/checks");
  }
}
