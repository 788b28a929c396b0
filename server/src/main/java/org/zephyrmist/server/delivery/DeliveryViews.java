package org.zephyrmist.server.delivery;

import static org.zephyrmist.server.db.Tables.CAMPUS;
import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.VERSION;

import jakarta.validation.constraints.NotNull;
import java.time.OffsetDateTime;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.JSONB;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.delivery.Choices;
import org.zephyrmist.core.delivery.DeliveryState;
import org.zephyrmist.core.delivery.LineState;
import org.zephyrmist.core.delivery.StepKind;
import org.zephyrmist.core.delivery.StudentCounts;
import org.zephyrmist.core.delivery.WaitsFor;
import org.zephyrmist.core.edit.Edit;
import org.zephyrmist.server.line.ChosenParts;
import org.zephyrmist.server.line.Orders;
import org.zephyrmist.server.mail.Mails;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.section.Instructors;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Deliveries as the interface shows them. */
@Component
class DeliveryViews {
  private final DSLContext db;
  private final JsonMapper json;
  private final Reach reach;
  private final Instructors instructors;
  private final Mails mails;
  private final Orders orders;
  private final SecondWord secondWord;

  DeliveryViews(
      DSLContext db,
      JsonMapper json,
      Reach reach,
      Instructors instructors,
      Mails mails,
      Orders orders,
      SecondWord secondWord) {
    this.orders = orders;
    this.secondWord = secondWord;
    this.mails = mails;
    this.db = db;
    this.json = json;
    this.reach = reach;
    this.instructors = instructors;
  }

  /**
   * @param edit a change that is made instead of what the version says, as an order; of a take-back
   *     that which is taken back; absent for all others
   */
  record DeliverySummary(
      @NotNull UUID id,
      @NotNull UUID master,
      @NotNull String masterCode,
      @NotNull String masterTitle,
      @NotNull UUID version,
      int number,
      @NotNull String name,
      @NotNull DeliveryState state,
      @NotNull Choices.Clash clash,
      @NotNull Choices.Twin twin,
      @NotNull Choices.ByKind byKind,
      @NotNull Choices.Arrival arrival,
      @NotNull Choices.Dates dates,
      @NotNull Choices.EmptiedShell emptied,
      @NotNull Choices.Onto onto,
      @NotNull Choices.Weeks weeks,
      Integer atOnce,
      UUID takesBack,
      String edit,
      UUID order,
      int place,
      OffsetDateTime beginsAt,
      @NotNull String madeBy,
      @NotNull OffsetDateTime madeAt,
      OffsetDateTime confirmedAt,
      OffsetDateTime finishedAt,
      @NotNull Map<LineState, Integer> lines) {}

  /**
   * @param before what was the students' own before it was carried out; absent if nobody told
   * @param after the same afterwards
   * @param lost whether there was less afterwards
   */
  record DeliveryLine(
      @NotNull UUID id,
      @NotNull UUID section,
      @NotNull String code,
      @NotNull String campus,
      @NotNull String instructors,
      @NotNull LineState state,
      @NotNull String activity,
      int steps,
      int stepsDone,
      int same,
      int attempts,
      WaitsFor waitsFor,
      OffsetDateTime nextTry,
      String reason,
      String remedy,
      @NotNull Map<StepKind, Integer> counts,
      OffsetDateTime readAt,
      StudentsOwn before,
      StudentsOwn after,
      boolean lost) {}

  /** Counts of what is the students' own in a shell. */
  record StudentsOwn(
      @NotNull Integer enrolments,
      @NotNull Integer work,
      @NotNull Integer grades,
      @NotNull Integer posts) {
    static StudentsOwn of(StudentCounts c) {
      return new StudentsOwn(c.enrolments(), c.work(), c.grades(), c.posts());
    }
  }

  /**
   * What became of the mail about a delivery.
   *
   * @param problems of mail that came back
   */
  record MailTold(int made, int sent, @NotNull List<String> problems) {}

  /**
   * That a delivery which nobody confirmed needs a second person's word.
   *
   * @param askedBy who asked for it; absent if nobody did yet
   * @param mine whether one asked oneself, so that another has to say it
   */
  record Word(@NotNull SecondWord.Why why, String askedBy, OffsetDateTime askedAt, boolean mine) {}

  /**
   * @param parts of the version that it brings
   * @param together all deliveries of its order, in their order; none if it is alone
   * @param secondWord absent if none is needed
   * @param takenBackBy confirmed deliveries that took it back, whole or in some sections
   */
  record DeliveryDetail(
      @NotNull DeliverySummary delivery,
      @NotNull ChosenParts parts,
      @NotNull List<UUID> takenBackBy,
      @NotNull List<DeliverySummary> together,
      Word secondWord,
      @NotNull MailTold mail,
      @NotNull List<DeliveryLine> lines) {}

  /**
   * @param text each word of it is in the name, the master, who made it, a section or the day
   */
  List<DeliverySummary> list(SignedIn who, String text, int most) {
    Condition which = reach.masters(who);
    for (String word : text.strip().split("\\s+")) {
      which = which.and(word.isEmpty() ? DSL.noCondition() : names(word, who));
    }
    return summaries(which, most);
  }

  private Condition names(String word, SignedIn who) {
    return DELIVERY
        .NAME
        .containsIgnoreCase(word)
        .or(MASTER.CODE.containsIgnoreCase(word))
        .or(MASTER.TITLE.containsIgnoreCase(word))
        .or(PERSON.as("made").NAME.containsIgnoreCase(word))
        .or(DSL.field("to_char({0}, 'YYYY-MM-DD')", String.class, DELIVERY.MADE_AT).eq(word))
        .or(
            DELIVERY.ID.in(
                db.select(DELIVERY_LINE.DELIVERY_ID)
                    .from(DELIVERY_LINE)
                    .join(SECTION)
                    .on(SECTION.ID.eq(DELIVERY_LINE.SECTION_ID))
                    .where(SECTION.CODE.containsIgnoreCase(word))
                    .and(reach.sections(who))));
  }

  List<DeliverySummary> running(SignedIn who) {
    return summaries(
        reach.masters(who).and(DELIVERY.STATE.in(DeliveryState.RUNNING, DeliveryState.PLANNING)),
        20);
  }

  private List<DeliverySummary> summaries(Condition which, int most) {
    var made = PERSON.as("made");
    var back = DELIVERY.as("back");
    List<DeliverySummary> all =
        db.select(DELIVERY.fields())
            .select(MASTER.ID, MASTER.CODE, MASTER.TITLE, VERSION.NUMBER, made.NAME, back.EDIT)
            .from(DELIVERY)
            .leftJoin(back)
            .on(back.ID.eq(DELIVERY.TAKES_BACK))
            .join(VERSION)
            .on(VERSION.ID.eq(DELIVERY.VERSION_ID))
            .join(MASTER)
            .on(MASTER.ID.eq(VERSION.MASTER_ID))
            .join(made)
            .on(made.ID.eq(DELIVERY.MADE_BY))
            .where(which)
            .orderBy(DELIVERY.MADE_AT.desc())
            .limit(most)
            .fetch(
                r ->
                    new DeliverySummary(
                        r.get(DELIVERY.ID),
                        r.get(MASTER.ID),
                        r.get(MASTER.CODE),
                        r.get(MASTER.TITLE),
                        r.get(DELIVERY.VERSION_ID),
                        r.get(VERSION.NUMBER),
                        r.get(DELIVERY.NAME),
                        r.get(DELIVERY.STATE),
                        r.get(DELIVERY.CLASH),
                        r.get(DELIVERY.TWIN),
                        json.readValue(r.get(DELIVERY.BY_KIND).data(), Choices.ByKind.class),
                        r.get(DELIVERY.ARRIVAL),
                        r.get(DELIVERY.DATES),
                        r.get(DELIVERY.EMPTIED),
                        r.get(DELIVERY.ONTO),
                        r.get(DELIVERY.WEEKS),
                        r.get(DELIVERY.AT_ONCE),
                        r.get(DELIVERY.TAKES_BACK),
                        Optional.ofNullable(r.get(DELIVERY.EDIT))
                            .or(() -> Optional.ofNullable(r.get(back.EDIT)))
                            .map(e -> json.readValue(e.data(), Edit.class).words())
                            .orElse(null),
                        r.get(DELIVERY.ORDER_ID),
                        r.get(DELIVERY.PLACE),
                        r.get(DELIVERY.BEGINS_AT),
                        r.get(made.NAME),
                        r.get(DELIVERY.MADE_AT),
                        r.get(DELIVERY.CONFIRMED_AT),
                        r.get(DELIVERY.FINISHED_AT),
                        new EnumMap<>(LineState.class)));
    Map<UUID, DeliverySummary> byId = new HashMap<>();
    all.forEach(s -> byId.put(s.id(), s));
    var n = DSL.count();
    db.select(DELIVERY_LINE.DELIVERY_ID, DELIVERY_LINE.STATE, n)
        .from(DELIVERY_LINE)
        .where(DELIVERY_LINE.DELIVERY_ID.in(byId.keySet()))
        .groupBy(DELIVERY_LINE.DELIVERY_ID, DELIVERY_LINE.STATE)
        .forEach(r -> byId.get(r.value1()).lines().put(r.value2(), r.value3()));
    return all;
  }

  /** The lines are those of sections within reach. */
  DeliveryDetail detail(UUID id, SignedIn who) {
    JSONB parts =
        db.select(DELIVERY.PARTS)
            .from(DELIVERY)
            .where(DELIVERY.ID.eq(id))
            .fetchSingle(DELIVERY.PARTS);
    return new DeliveryDetail(
        summaries(DELIVERY.ID.eq(id), 1).get(0),
        json.readValue(parts.data(), ChosenParts.class),
        db.select(DELIVERY.ID)
            .from(DELIVERY)
            .where(DELIVERY.TAKES_BACK.eq(id))
            .and(DELIVERY.CONFIRMED_AT.isNotNull())
            .orderBy(DELIVERY.CONFIRMED_AT)
            .fetch(DELIVERY.ID),
        together(id, who),
        word(id, who),
        mail(id),
        lines(id, who));
  }

  private Word word(UUID delivery, SignedIn who) {
    boolean open =
        db.fetchExists(
            DELIVERY,
            DELIVERY
                .ID
                .eq(delivery)
                .and(DELIVERY.CONFIRMED_AT.isNull())
                .and(DELIVERY.STATE.eq(DeliveryState.PLANNED)));
    if (!open) {
      return null;
    }
    Optional<SecondWord.Asked> asked = secondWord.asked(delivery);
    return secondWord
        .needed(orders.of(delivery))
        .map(
            why ->
                new Word(
                    why,
                    asked.map(SecondWord.Asked::name).orElse(null),
                    asked.map(SecondWord.Asked::at).orElse(null),
                    asked.filter(a -> a.by().equals(who.id())).isPresent()))
        .orElse(null);
  }

  private List<DeliverySummary> together(UUID delivery, SignedIn who) {
    List<UUID> order = orders.of(delivery);
    return order.size() < 2
        ? List.of()
        : summaries(DELIVERY.ID.in(order).and(reach.masters(who)), order.size()).stream()
            .sorted(Comparator.comparing(DeliverySummary::place))
            .toList();
  }

  private MailTold mail(UUID delivery) {
    Mails.Told t = mails.of(orders.of(delivery));
    return new MailTold(t.made(), t.sent(), t.problems());
  }

  private static Optional<StudentCounts> counts(Integer[] c) {
    return Optional.ofNullable(c).map(StudentCounts::of);
  }

  /** Whether less was there afterwards. */
  private static boolean lost(Integer[] before, Integer[] after) {
    return counts(before).flatMap(b -> counts(after).map(a -> !b.keptIn(a))).orElse(false);
  }

  private List<DeliveryLine> lines(UUID delivery, SignedIn who) {
    Map<UUID, String> names = instructors.ofDelivery(delivery);
    return db.select(DELIVERY_LINE.fields())
        .select(SECTION.CODE, CAMPUS.NAME)
        .from(DELIVERY_LINE)
        .join(SECTION)
        .on(SECTION.ID.eq(DELIVERY_LINE.SECTION_ID))
        .join(CAMPUS)
        .on(CAMPUS.ID.eq(SECTION.CAMPUS_ID))
        .where(DELIVERY_LINE.DELIVERY_ID.eq(delivery))
        .and(reach.sections(who))
        .orderBy(SECTION.CODE, SECTION.ID)
        .fetch(
            r ->
                new DeliveryLine(
                    r.get(DELIVERY_LINE.ID),
                    r.get(DELIVERY_LINE.SECTION_ID),
                    r.get(SECTION.CODE),
                    r.get(CAMPUS.NAME),
                    names.getOrDefault(r.get(DELIVERY_LINE.SECTION_ID), ""),
                    r.get(DELIVERY_LINE.STATE),
                    r.get(DELIVERY_LINE.ACTIVITY),
                    r.get(DELIVERY_LINE.STEPS),
                    r.get(DELIVERY_LINE.STEPS_DONE),
                    r.get(DELIVERY_LINE.SAME),
                    r.get(DELIVERY_LINE.ATTEMPTS),
                    r.get(DELIVERY_LINE.WAITS_FOR),
                    r.get(DELIVERY_LINE.NEXT_TRY),
                    r.get(DELIVERY_LINE.REASON),
                    r.get(DELIVERY_LINE.REMEDY),
                    json.readValue(
                        r.get(DELIVERY_LINE.COUNTS).data(),
                        new TypeReference<Map<StepKind, Integer>>() {}),
                    r.get(DELIVERY_LINE.READ_AT),
                    counts(r.get(DELIVERY_LINE.COUNTED_BEFORE)).map(StudentsOwn::of).orElse(null),
                    counts(r.get(DELIVERY_LINE.COUNTED_AFTER)).map(StudentsOwn::of).orElse(null),
                    lost(r.get(DELIVERY_LINE.COUNTED_BEFORE), r.get(DELIVERY_LINE.COUNTED_AFTER))));
  }
}
