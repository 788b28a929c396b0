package org.zephyrmist.server.mail;

import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.SECTION_INSTRUCTOR;
import static org.zephyrmist.server.db.Tables.VERSION;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.jooq.JSONB;
import org.jooq.Record;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.delivery.DeliveryState;
import org.zephyrmist.core.delivery.LineState;
import org.zephyrmist.core.delivery.StepKind;
import org.zephyrmist.core.delivery.StudentCounts;
import org.zephyrmist.core.delivery.Tell;
import org.zephyrmist.core.edit.Edit;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.mail.Mails.Letter;
import tools.jackson.databind.json.JsonMapper;

/** What people are told when a delivery has ended. */
@Component
public class EndMails {
  private static final int TITLES = 20;
  private final DSLContext db;
  private final Mails mails;
  private final Settings settings;
  private final JsonMapper json;

  EndMails(DSLContext db, Mails mails, Settings settings, JsonMapper json) {
    this.json = json;
    this.db = db;
    this.mails = mails;
    this.settings = settings;
  }

  /**
   * What is told of, in words: a delivery, or all that came as one order.
   *
   * @param id the last of the order, under which its mail is kept
   */
  private record About(
      UUID id,
      List<UUID> all,
      String what,
      boolean back,
      Tell tell,
      String note,
      UUID sender,
      String by) {}

  /**
   * The end of a delivery; once for each end, if lines that waited go on later. Of several as one
   * order the last to end tells of all.
   *
   * @param order all deliveries of the order that it belongs to, in their order; else it alone
   */
  public void ended(List<UUID> order) {
    if (!mails.on()) {
      return;
    }
    About a = about(order);
    if (a.tell() == Tell.NOBODY || moves(order)) {
      return;
    }
    List<Letter> letters = new ArrayList<>();
    sender(a).ifPresent(letters::add);
    if (a.tell() == Tell.INSTRUCTORS) {
      letters.addAll(instructors(a));
    }
    mails.put(letters);
  }

  private boolean moves(List<UUID> order) {
    return db.fetchExists(
        DELIVERY, DELIVERY.ID.in(order).and(DELIVERY.STATE.ne(DeliveryState.DONE)));
  }

  private About about(List<UUID> order) {
    List<About> each = each(order);
    About last = each.get(each.size() - 1);
    return each.size() == 1
        ? last
        : new About(
            last.id(),
            order,
            each.stream().map(About::what).collect(Collectors.joining("; ")),
            last.back(),
            last.tell(),
            last.note(),
            last.sender(),
            last.by());
  }

  private List<About> each(List<UUID> order) {
    var back = DELIVERY.as("back");
    return db.select(
            DELIVERY.ID,
            MASTER.CODE,
            MASTER.TITLE,
            VERSION.NUMBER,
            DELIVERY.TAKES_BACK,
            DELIVERY.TELL,
            DELIVERY.NOTE,
            PERSON.ID,
            PERSON.NAME,
            DELIVERY.EDIT,
            back.EDIT)
        .from(DELIVERY)
        .leftJoin(back)
        .on(back.ID.eq(DELIVERY.TAKES_BACK))
        .join(VERSION)
        .on(VERSION.ID.eq(DELIVERY.VERSION_ID))
        .join(MASTER)
        .on(MASTER.ID.eq(VERSION.MASTER_ID))
        .join(PERSON)
        .on(PERSON.ID.eq(DELIVERY.CONFIRMED_BY))
        .where(DELIVERY.ID.in(order))
        .orderBy(DELIVERY.PLACE)
        .fetch(
            r ->
                new About(
                    r.value1(),
                    order,
                    edit(r.value10(), r.value11())
                        .orElse(
                            r.value2()
                                + (order.size() > 1 ? "" : " " + r.value3())
                                + ", version "
                                + r.value4()),
                    r.value5() != null,
                    r.value6(),
                    r.value7(),
                    r.value8(),
                    r.value9()));
  }

  /** A change that was made instead of what a version says, in words. */
  private Optional<String> edit(JSONB made, JSONB takenBack) {
    return Optional.ofNullable(made)
        .or(() -> Optional.ofNullable(takenBack))
        .map(e -> json.readValue(e.data(), Edit.class).words());
  }

  private Optional<Letter> sender(About a) {
    Map<UUID, Set<LineState>> sections = sections(a);
    int all = sections.size();
    int done = (int) sections.values().stream().filter(Set.of(LineState.DONE)::equals).count();
    int need = with(LineState.NEEDS_PERSON, sections);
    int later = with(LineState.NOT_YET, sections) - both(sections);
    String of = all == 1 ? " section" : " sections";
    StringBuilder body = new StringBuilder();
    body.append(done).append(" of ").append(all).append(of);
    body.append(done == 1 ? " is done.\n" : " are done.\n");
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
            + (done < all ? ", " + done + " of " + all : ", " + all)
            + of;
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

  private Map<UUID, Set<LineState>> sections(About a) {
    Map<UUID, Set<LineState>> sections = new HashMap<>();
    db.select(DELIVERY_LINE.SECTION_ID, DELIVERY_LINE.STATE)
        .from(DELIVERY_LINE)
        .where(DELIVERY_LINE.DELIVERY_ID.in(a.all()))
        .forEach(
            r ->
                sections
                    .computeIfAbsent(r.value1(), k -> EnumSet.noneOf(LineState.class))
                    .add(r.value2()));
    return sections;
  }

  private static int with(LineState state, Map<UUID, Set<LineState>> sections) {
    return (int) sections.values().stream().filter(s -> s.contains(state)).count();
  }

  /** Where one part of an order needs a person, and the others wait for it. */
  private static int both(Map<UUID, Set<LineState>> sections) {
    Set<LineState> both = EnumSet.of(LineState.NEEDS_PERSON, LineState.NOT_YET);
    return (int) sections.values().stream().filter(s -> s.containsAll(both)).count();
  }

  /** What came to one section, by kind of step. */
  private record Came(StepKind kind, int steps, List<String> titles) {}

  private List<Letter> instructors(About a) {
    Map<UUID, List<Came>> came = came(a.all());
    Map<UUID, String> counted = counted(a);
    Set<UUID> done = new HashSet<>();
    sections(a)
        .forEach(
            (section, states) -> {
              if (states.equals(Set.of(LineState.DONE))) {
                done.add(section);
              }
            });
    List<Letter> letters = new ArrayList<>();
    db.select(SECTION.ID, SECTION.CODE, PERSON.ID, PERSON.NAME, PERSON.EMAIL)
        .from(DELIVERY_LINE)
        .join(SECTION)
        .on(SECTION.ID.eq(DELIVERY_LINE.SECTION_ID))
        .join(SECTION_INSTRUCTOR)
        .on(SECTION_INSTRUCTOR.SECTION_ID.eq(SECTION.ID))
        .join(PERSON)
        .on(PERSON.ID.eq(SECTION_INSTRUCTOR.PERSON_ID))
        .where(DELIVERY_LINE.DELIVERY_ID.eq(a.id()))
        .and(SECTION.ID.in(done))
        .and(PERSON.EMAIL.isNotNull())
        .orderBy(SECTION.CODE, PERSON.EMAIL)
        .forEach(
            r -> {
              List<Came> what = came.getOrDefault(r.value1(), List.of());
              if (!what.isEmpty()) {
                letters.add(instructor(a, r, what, Optional.ofNullable(counted.get(r.value1()))));
              }
            });
    return letters;
  }

  /** What was counted of students' own before and after, in words; nothing where it was not. */
  private Map<UUID, String> counted(About a) {
    Map<UUID, String> all = new HashMap<>();
    db.select(DELIVERY_LINE.SECTION_ID, DELIVERY_LINE.COUNTED_BEFORE, DELIVERY_LINE.COUNTED_AFTER)
        .from(DELIVERY_LINE)
        .where(DELIVERY_LINE.DELIVERY_ID.eq(a.id()))
        .and(DELIVERY_LINE.COUNTED_BEFORE.isNotNull())
        .and(DELIVERY_LINE.COUNTED_AFTER.isNotNull())
        .forEach(
            r ->
                all.put(
                    r.value1(),
                    StudentCounts.of(r.value2()).compared(StudentCounts.of(r.value3()))));
    return all;
  }

  private Map<UUID, List<Came>> came(List<UUID> deliveries) {
    Map<UUID, List<Came>> came = new HashMap<>();
    db.fetch(
            "select l.section_id, s.kind, count(*)::int, (array_agg(s.title order by d.place, s.n))[1:?]"
                + " from delivery_step s join delivery_line l on l.id = s.line_id"
                + " join delivery d on d.id = l.delivery_id"
                + " where l.delivery_id = any(?) and (s.moves or s.kind in ('KEEP', 'CLASH'))"
                + " group by l.section_id, s.kind order by s.kind",
            TITLES,
            deliveries.toArray(new UUID[0]))
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

  private Letter instructor(About a, Record r, List<Came> came, Optional<String> students) {
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
        .append("\n")
        .append(students.map(s -> "\n" + s + "\n").orElse(""));
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
