package org.zephyrmist.server.section;

import static org.zephyrmist.server.db.Tables.CAMPUS;
import static org.zephyrmist.server.db.Tables.COURSE;
import static org.zephyrmist.server.db.Tables.HOLDING;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.PLATFORM;
import static org.zephyrmist.server.db.Tables.RECEIPT;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.STANDING;
import static org.zephyrmist.server.db.Tables.TERM;
import static org.zephyrmist.server.db.Tables.VERSION;

import jakarta.validation.constraints.NotNull;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.springframework.http.MediaType;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** One section from the ledger: which master at which version, and each item's receipts. */
@RestController
@RequestMapping(path = "/api/sections", produces = MediaType.APPLICATION_JSON_VALUE)
class SectionApi {
  private final DSLContext db;
  private final Reach reach;
  private final Instructors instructors;

  private final Trees trees;

  SectionApi(DSLContext db, Reach reach, Instructors instructors, Trees trees) {
    this.trees = trees;
    this.db = db;
    this.reach = reach;
    this.instructors = instructors;
  }

  record Section(
      @NotNull UUID id,
      @NotNull String code,
      @NotNull String title,
      @NotNull String course,
      @NotNull String campus,
      @NotNull String term,
      @NotNull String instructors,
      boolean inRoster,
      Integer students,
      String shellAddress,
      @NotNull List<HeldMaster> masters) {}

  record HeldMaster(
      @NotNull UUID master,
      @NotNull String code,
      @NotNull String title,
      int number,
      int newest,
      int expected,
      int held,
      int changed,
      @NotNull OffsetDateTime readAt) {}

  record ItemLine(
      @NotNull UUID master,
      @NotNull String key,
      @NotNull String kind,
      @NotNull String title,
      @NotNull String masterCode,
      int number,
      @NotNull OffsetDateTime at,
      @NotNull String by,
      @NotNull UUID delivery,
      @NotNull String how,
      @NotNull String state,
      @NotNull List<String> changedHere) {}

  record ReceiptLine(
      int number,
      @NotNull String how,
      @NotNull List<String> writes,
      @NotNull OffsetDateTime at,
      @NotNull String by,
      @NotNull UUID delivery) {}

  /** An instructor's own sections; for others all within reach, by code. */
  @GetMapping("/mine")
  List<Section> mine(@AuthenticationPrincipal SignedIn who) {
    return sections(reach.sections(who), 200);
  }

  @GetMapping("/{id}")
  Section section(@PathVariable UUID id, @AuthenticationPrincipal SignedIn who) {
    return sections(SECTION.ID.eq(id).and(reach.sections(who)), 1).stream()
        .findFirst()
        .orElseThrow(() -> Refusal.notFound("section"));
  }

  private List<Section> sections(Condition which, int most) {
    List<Record> rows =
        new ArrayList<>(
            db.select(SECTION.fields())
                .select(COURSE.CODE, CAMPUS.NAME, TERM.TITLE, PLATFORM.ADDRESS)
                .from(SECTION)
                .join(COURSE)
                .on(COURSE.ID.eq(SECTION.COURSE_ID))
                .join(CAMPUS)
                .on(CAMPUS.ID.eq(SECTION.CAMPUS_ID))
                .leftJoin(TERM)
                .on(TERM.ID.eq(SECTION.TERM_ID))
                .leftJoin(PLATFORM)
                .on(PLATFORM.ID.eq(SECTION.PLATFORM_ID))
                .where(which)
                .orderBy(SECTION.CODE, SECTION.ID)
                .limit(most)
                .fetch());
    List<UUID> ids = rows.stream().map(r -> r.get(SECTION.ID)).toList();
    Map<UUID, String> names = instructors.of(ids);
    Map<UUID, List<HeldMaster>> held = held(ids);
    return rows.stream()
        .map(
            s -> {
              UUID id = s.get(SECTION.ID);
              String shell = s.get(SECTION.SHELL);
              return new Section(
                  id,
                  s.get(SECTION.CODE),
                  s.get(SECTION.TITLE),
                  s.get(COURSE.CODE),
                  s.get(CAMPUS.NAME),
                  s.get(TERM.TITLE) == null ? "no term" : s.get(TERM.TITLE),
                  names.getOrDefault(id, ""),
                  s.get(SECTION.IN_ROSTER),
                  Optional.ofNullable(s.get(SECTION.ENROLLED)).orElse(s.get(SECTION.STUDENTS)),
                  shell == null ? null : s.get(PLATFORM.ADDRESS) + "/shells/" + shell,
                  held.getOrDefault(id, List.of()));
            })
        .toList();
  }

  private Map<UUID, List<HeldMaster>> held(List<UUID> sections) {
    var n = VERSION.as("n");
    var newest =
        org.jooq.impl.DSL.field(
            org.jooq
                .impl
                .DSL
                .select(org.jooq.impl.DSL.max(n.NUMBER))
                .from(n)
                .where(n.MASTER_ID.eq(STANDING.MASTER_ID)));
    Map<UUID, List<HeldMaster>> all = new HashMap<>();
    db.select(STANDING.fields())
        .select(MASTER.CODE, MASTER.TITLE, VERSION.NUMBER, newest)
        .from(STANDING)
        .join(MASTER)
        .on(MASTER.ID.eq(STANDING.MASTER_ID))
        .join(VERSION)
        .on(VERSION.ID.eq(STANDING.VERSION_ID))
        .where(STANDING.SECTION_ID.in(sections))
        .orderBy(MASTER.CODE)
        .forEach(
            r ->
                all.computeIfAbsent(r.get(STANDING.SECTION_ID), k -> new ArrayList<>())
                    .add(
                        new HeldMaster(
                            r.get(STANDING.MASTER_ID),
                            r.get(MASTER.CODE),
                            r.get(MASTER.TITLE),
                            r.get(VERSION.NUMBER),
                            r.get(newest),
                            r.get(STANDING.EXPECTED),
                            r.get(STANDING.HELD),
                            r.get(STANDING.CHANGED),
                            r.get(STANDING.READ_AT))));
    return all;
  }

  /** Every item that was delivered to the section, with its last receipt. */
  @GetMapping("/{id}/items")
  List<ItemLine> items(@PathVariable UUID id, @AuthenticationPrincipal SignedIn who) {
    check(id, who);
    Map<Placed, Integer> order = outline(id);
    List<ItemLine> lines = lines(id);
    lines.sort(
        Comparator.comparing(ItemLine::masterCode)
            .thenComparing(
                l -> order.getOrDefault(new Placed(l.master(), l.key()), Integer.MAX_VALUE))
            .thenComparing(ItemLine::title));
    return lines;
  }

  private record Placed(UUID master, String key) {}

  /** Where each item stands in the versions that the section holds. */
  private Map<Placed, Integer> outline(UUID section) {
    Map<Placed, Integer> order = new HashMap<>();
    db.select(VERSION.MASTER_ID, VERSION.TREE_ID)
        .from(STANDING)
        .join(VERSION)
        .on(VERSION.ID.eq(STANDING.VERSION_ID))
        .where(STANDING.SECTION_ID.eq(section))
        .fetch()
        .forEach(
            v ->
                trees
                    .nodes(v.value2())
                    .forEach(
                        n -> order.put(new Placed(v.value1(), n.key().value()), order.size())));
    return order;
  }

  private List<ItemLine> lines(UUID id) {
    return db.select(HOLDING.fields())
        .select(
            RECEIPT.AT, RECEIPT.HOW, RECEIPT.DELIVERY_ID, MASTER.CODE, VERSION.NUMBER, PERSON.NAME)
        .from(HOLDING)
        .join(RECEIPT)
        .on(RECEIPT.ID.eq(HOLDING.RECEIPT_ID))
        .join(MASTER)
        .on(MASTER.ID.eq(HOLDING.MASTER_ID))
        .join(VERSION)
        .on(VERSION.ID.eq(RECEIPT.VERSION_ID))
        .join(PERSON)
        .on(PERSON.ID.eq(RECEIPT.PERSON_ID))
        .where(HOLDING.SECTION_ID.eq(id))
        .fetch(
            r -> {
              byte[] here = r.get(HOLDING.HERE);
              List<String> changed = here == null ? List.of() : changed(here, r.get(HOLDING.SHOWN));
              return new ItemLine(
                  r.get(HOLDING.MASTER_ID),
                  r.get(HOLDING.ITEM_KEY),
                  r.get(HOLDING.ITEM_KIND),
                  r.get(HOLDING.TITLE),
                  r.get(MASTER.CODE),
                  r.get(VERSION.NUMBER),
                  r.get(RECEIPT.AT),
                  r.get(PERSON.NAME),
                  r.get(RECEIPT.DELIVERY_ID),
                  r.get(RECEIPT.HOW),
                  here == null ? "GONE" : changed.isEmpty() ? "AS_DELIVERED" : "CHANGED",
                  changed);
            });
  }

  private static List<String> changed(byte[] here, byte[] shown) {
    return Fingerprints.unpack(here).differing(Fingerprints.unpack(shown)).stream()
        .map(Aspect::name)
        .toList();
  }

  /** All receipts of one item in the section, newest first. */
  @GetMapping("/{id}/masters/{master}/items/{key}/receipts")
  List<ReceiptLine> receipts(
      @PathVariable UUID id,
      @PathVariable UUID master,
      @PathVariable String key,
      @AuthenticationPrincipal SignedIn who) {
    check(id, who);
    return db.select(
            VERSION.NUMBER,
            RECEIPT.HOW,
            RECEIPT.WRITES,
            RECEIPT.AT,
            PERSON.NAME,
            RECEIPT.DELIVERY_ID)
        .from(RECEIPT)
        .join(VERSION)
        .on(VERSION.ID.eq(RECEIPT.VERSION_ID))
        .join(PERSON)
        .on(PERSON.ID.eq(RECEIPT.PERSON_ID))
        .where(RECEIPT.SECTION_ID.eq(id))
        .and(RECEIPT.MASTER_ID.eq(master))
        .and(RECEIPT.ITEM_KEY.eq(key))
        .orderBy(RECEIPT.ID.desc())
        .fetch(
            r ->
                new ReceiptLine(
                    r.value1(),
                    r.value2(),
                    aspects(r.value3()),
                    r.value4(),
                    r.value5(),
                    r.value6()));
  }

  private static List<String> aspects(int mask) {
    List<String> all = new ArrayList<>();
    for (Aspect a : Aspect.values()) {
      if ((mask & 1 << a.ordinal()) != 0) {
        all.add(a.name());
      }
    }
    return all;
  }

  private void check(UUID id, SignedIn who) {
    if (!db.fetchExists(
        db.selectOne().from(SECTION).where(SECTION.ID.eq(id)).and(reach.sections(who)))) {
      throw Refusal.notFound("section");
    }
  }
}
