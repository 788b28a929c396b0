package org.zephyrmist.server.mail;

import static org.jooq.impl.DSL.count;
import static org.jooq.impl.DSL.inline;
import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.SECTION_INSTRUCTOR;
import static org.zephyrmist.server.db.Tables.VERSION;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.delivery.LineState;
import org.zephyrmist.core.delivery.StepKind;
import org.zephyrmist.core.delivery.Tell;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.mail.Mails.Letter;

/** What people are told when a delivery has ended. */
@Component
public class EndMails {
  private static final int TITLES = 20;
  private final DSLContext db;
  private final Mails mails;
  private final Settings settings;

  EndMails(DSLContext db, Mails mails, Settings settings) {
    this.db = db;
    this.mails = mails;
    this.settings = settings;
  }

  /** A delivery in the words of its mail. */
  private record About(
      UUID id, String what, boolean back, Tell tell, String note, UUID sender, String by) {}

  /** The end of a delivery; once for each end, if lines that waited go on later. */
  public void ended(UUID delivery) {
    if (!mails.on()) {
      return;
    }
    About a = about(delivery);
    if (a.tell() == Tell.NOBODY) {
      return;
    }
    List<Letter> letters = new ArrayList<>();
    sender(a).ifPresent(letters::add);
    if (a.tell() == Tell.INSTRUCTORS) {
      letters.addAll(instructors(a));
    }
    mails.put(letters);
  }

  private About about(UUID delivery) {
    return db.select(
            MASTER.CODE,
            MASTER.TITLE,
            VERSION.NUMBER,
            DELIVERY.TAKES_BACK,
            DELIVERY.TELL,
            DELIVERY.NOTE,
            PERSON.ID,
            PERSON.NAME)
        .from(DELIVERY)
        .join(VERSION)
        .on(VERSION.ID.eq(DELIVERY.VERSION_ID))
        .join(MASTER)
        .on(MASTER.ID.eq(VERSION.MASTER_ID))
        .join(PERSON)
        .on(PERSON.ID.eq(DELIVERY.CONFIRMED_BY))
        .where(DELIVERY.ID.eq(delivery))
        .fetchSingle(
            r ->
                new About(
                    delivery,
                    r.value1() + " " + r.value2() + ", version " + r.value3(),
                    r.value4() != null,
                    r.value5(),
                    r.value6(),
                    r.value7(),
                    r.value8()));
  }

  private Optional<Letter> sender(About a) {
    Map<LineState, Integer> states = new EnumMap<>(LineState.class);
    db.select(DELIVERY_LINE.STATE, count())
        .from(DELIVERY_LINE)
        .where(DELIVERY_LINE.DELIVERY_ID.eq(a.id()))
        .groupBy(DELIVERY_LINE.STATE)
        .forEach(r -> states.put(r.value1(), r.value2()));
    int all = states.values().stream().mapToInt(Integer::intValue).sum();
    int done = states.getOrDefault(LineState.DONE, 0);
    int need = states.getOrDefault(LineState.NEEDS_PERSON, 0);
    int later = states.getOrDefault(LineState.NOT_YET, 0);
    StringBuilder body = new StringBuilder();
    body.append(done).append(" of ").append(all).append(" sections are done.\n");
    if (need > 0) {
      body.append(need).append(need == 1 ? " needs you.\n" : " need you.\n");
    }
    if (later > 0) {
      body.append(later)
          .append(later == 1 ? " waits" : " wait")
          .append(", and goes on by itself.\n");
    }
    body.append("\n").append(settings.address()).append("/deliveries/").append(a.id()).append("\n");
    String subject =
        (a.back() ? "Taken back: " : "Delivered: ")
            + a.what()
            + (done < all ? ", " + done + " of " + all + " sections" : ", " + all + " sections");
    return db.select(PERSON.EMAIL)
        .from(PERSON)
        .where(PERSON.ID.eq(a.sender()))
        .and(PERSON.EMAIL.isNotNull())
        .fetchOptional(PERSON.EMAIL)
        .map(
            email ->
                new Letter(
                    a.id(), Optional.empty(), a.sender(), done, email, subject, body.toString()));
  }

  /** What came to one section, by kind of step. */
  private record Came(StepKind kind, int steps, List<String> titles) {}

  private List<Letter> instructors(About a) {
    Map<UUID, List<Came>> came = came(a.id());
    List<Letter> letters = new ArrayList<>();
    db.select(DELIVERY_LINE.ID, SECTION.ID, SECTION.CODE, PERSON.ID, PERSON.NAME, PERSON.EMAIL)
        .from(DELIVERY_LINE)
        .join(SECTION)
        .on(SECTION.ID.eq(DELIVERY_LINE.SECTION_ID))
        .join(SECTION_INSTRUCTOR)
        .on(SECTION_INSTRUCTOR.SECTION_ID.eq(SECTION.ID))
        .join(PERSON)
        .on(PERSON.ID.eq(SECTION_INSTRUCTOR.PERSON_ID))
        .where(DELIVERY_LINE.DELIVERY_ID.eq(a.id()))
        .and(DELIVERY_LINE.STATE.eq(inline(LineState.DONE, DELIVERY_LINE.STATE)))
        .and(PERSON.EMAIL.isNotNull())
        .orderBy(SECTION.CODE, PERSON.EMAIL)
        .forEach(
            r -> {
              List<Came> what = came.getOrDefault(r.value1(), List.of());
              if (!what.isEmpty()) {
                letters.add(instructor(a, r, what));
              }
            });
    return letters;
  }

  private Map<UUID, List<Came>> came(UUID delivery) {
    Map<UUID, List<Came>> came = new HashMap<>();
    db.fetch(
            "select s.line_id, s.kind, count(*)::int, (array_agg(s.title order by s.n))[1:?]"
                + " from delivery_step s join delivery_line l on l.id = s.line_id"
                + " where l.delivery_id = ? and (s.moves or s.kind in ('KEEP', 'CLASH'))"
                + " group by s.line_id, s.kind order by s.kind",
            TITLES,
            delivery)
        .forEach(
            r ->
                came.computeIfAbsent(r.get(0, UUID.class), k -> new ArrayList<>())
                    .add(
                        new Came(
                            StepKind.valueOf(r.get(1, String.class)),
                            r.get(2, Integer.class),
                            List.of(r.get(3, String[].class)))));
    return came;
  }

  private Letter instructor(About a, Record r, List<Came> came) {
    String code = r.get(SECTION.CODE);
    StringBuilder body = new StringBuilder();
    body.append(a.by())
        .append(a.back() ? " took back " : " brought ")
        .append(a.what())
        .append(a.back() ? " in your section " : " to your section ")
        .append(code)
        .append(".\n");
    if (!a.note().isBlank()) {
      body.append("\n").append(a.note().strip()).append("\n");
    }
    for (Came c : came) {
      body.append("\n").append(words(c)).append(":\n");
      c.titles().forEach(t -> body.append("  - ").append(t).append("\n"));
      if (c.steps() > c.titles().size()) {
        body.append("  and ").append(c.steps() - c.titles().size()).append(" more\n");
      }
    }
    body.append("\nPlease look at it: ")
        .append(settings.address())
        .append("/sections/")
        .append(r.get(SECTION.ID))
        .append("\nWork handed in, grades and posts were not touched.\n");
    return new Letter(
        a.id(),
        Optional.of(r.get(SECTION.ID)),
        r.get(PERSON.ID),
        0,
        r.get(PERSON.EMAIL),
        a.what() + (a.back() ? " was taken back in " : " is in ") + code,
        body.toString());
  }

  private static String words(Came c) {
    return switch (c.kind()) {
      case ADD -> "New (" + c.steps() + ")";
      case UPDATE -> "Changed (" + c.steps() + ")";
      case RETIRE -> "Taken out (" + c.steps() + ")";
      case KEEP -> "Yours, kept as it is (" + c.steps() + ")";
      case CLASH -> "Changed by both of us; see what stands there now (" + c.steps() + ")";
      case TWIN, SAME, BLOCKED -> "Taken up (" + c.steps() + ")";
    };
  }
}
