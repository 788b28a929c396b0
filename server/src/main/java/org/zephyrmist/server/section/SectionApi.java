package org.zephyrmist.server.section;

import static org.zephyrmist.server.db.Tables.CAMPUS;
import static org.zephyrmist.server.db.Tables.COURSE;
import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.PLATFORM;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.TERM;
import static org.zephyrmist.server.db.Tables.VERSION;

import jakarta.validation.constraints.NotNull;
import java.time.LocalDate;
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
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.LineState;
import org.zephyrmist.server.content.Previews;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.ledger.History;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.platform.Platforms;
import org.zephyrmist.server.shell.Looks;
import org.zephyrmist.server.web.Days;
import org.zephyrmist.server.web.Refusal;

/** One section from the ledger: which master at which version, and each item's receipts. */
@RestController
@RequestMapping(path = "/api/sections", produces = MediaType.APPLICATION_JSON_VALUE)
class SectionApi {
  private final DSLContext db;
  private final Reach reach;
  private final ReachedSections reached;
  private final Instructors instructors;
  private final History history;
  private final Trees trees;
  private final Looks looks;

  SectionApi(
      DSLContext db,
      Reach reach,
      ReachedSections reached,
      Instructors instructors,
      History history,
      Trees trees,
      Looks looks) {
    this.looks = looks;
    this.reached = reached;
    this.history = history;
    this.trees = trees;
    this.db = db;
    this.reach = reach;
    this.instructors = instructors;
  }

  /**
   * @param termId of its term; absent if it is in none
   */
  record Section(
      @NotNull UUID id,
      @NotNull String code,
      @NotNull String title,
      @NotNull String course,
      @NotNull String campus,
      @NotNull String term,
      UUID termId,
      @NotNull String instructors,
      boolean inRoster,
      Integer students,
      String shellAddress,
      @NotNull List<History.HeldMaster> masters,
      @NotNull List<Arriving> arriving,
      @NotNull List<Looks.Unread> unread) {}

  /**
   * What is on its way to the section just now.
   *
   * @param state of its line; what waits for something outside may come much later
   */
  record Arriving(
      @NotNull UUID delivery,
      @NotNull String masterCode,
      @NotNull String masterTitle,
      int number,
      @NotNull LineState state) {}

  /** An item that no master brought, as of the last reading. */
  record AddedByHand(
      @NotNull Kind kind, @NotNull String title, @NotNull String by, @NotNull String at) {}

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
    Map<UUID, List<History.HeldMaster>> held = history.masters(ids);
    Map<UUID, List<Arriving>> coming = arriving(ids);
    Map<UUID, List<Looks.Unread>> unread = looks.unread(ids);
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
                  s.get(SECTION.TERM_ID),
                  names.getOrDefault(id, ""),
                  s.get(SECTION.IN_ROSTER),
                  Optional.ofNullable(s.get(SECTION.ENROLLED)).orElse(s.get(SECTION.STUDENTS)),
                  shell == null
                      ? null
                      : Platforms.shell(s.get(PLATFORM.ADDRESS), shell).orElse(null),
                  held.getOrDefault(id, List.of()),
                  coming.getOrDefault(id, List.of()),
                  unread.getOrDefault(id, List.of()));
            })
        .toList();
  }

  private Map<UUID, List<Arriving>> arriving(List<UUID> sections) {
    Map<UUID, List<Arriving>> all = new HashMap<>();
    db.select(
            DELIVERY_LINE.SECTION_ID,
            DELIVERY.ID,
            MASTER.CODE,
            MASTER.TITLE,
            VERSION.NUMBER,
            DELIVERY_LINE.STATE)
        .from(DELIVERY_LINE)
        .join(DELIVERY)
        .on(DELIVERY.ID.eq(DELIVERY_LINE.DELIVERY_ID))
        .join(VERSION)
        .on(VERSION.ID.eq(DELIVERY.VERSION_ID))
        .join(MASTER)
        .on(MASTER.ID.eq(VERSION.MASTER_ID))
        .where(DELIVERY_LINE.SECTION_ID.in(sections))
        .and(DELIVERY.CONFIRMED_AT.isNotNull())
        .and(
            DELIVERY_LINE
                .STATE
                .in(LineState.UNDER_WAY)
                .or(DELIVERY_LINE.STATE.eq(LineState.NOT_YET)))
        .orderBy(DELIVERY.CONFIRMED_AT, DELIVERY.PLACE)
        .forEach(
            r ->
                all.computeIfAbsent(r.value1(), k -> new ArrayList<>())
                    .add(new Arriving(r.value2(), r.value3(), r.value4(), r.value5(), r.value6())));
    return all;
  }

  /** What stands in the shell of the section's own, as of the last reading. */
  @GetMapping("/{id}/own")
  List<AddedByHand> own(@PathVariable UUID id, @AuthenticationPrincipal SignedIn who) {
    reached.check(id, who);
    return looks.own(id).stream()
        .map(o -> new AddedByHand(o.kind(), o.title(), o.by(), o.at()))
        .toList();
  }

  /**
   * Every item that was delivered to the section, with its last receipt.
   *
   * @param on what had been delivered by the end of this day (UTC); absent: now
   */
  @GetMapping("/{id}/items")
  List<History.ItemLine> items(
      @PathVariable UUID id,
      @RequestParam(required = false) LocalDate on,
      @AuthenticationPrincipal SignedIn who) {
    reached.check(id, who);
    Map<Placed, Integer> order = outline(id);
    List<History.ItemLine> lines =
        on == null ? history.items(id) : history.items(id, Days.ends(on));
    lines.sort(
        Comparator.comparing(History.ItemLine::masterCode)
            .thenComparing(
                l -> order.getOrDefault(new Placed(l.master(), l.key()), Integer.MAX_VALUE))
            .thenComparing(History.ItemLine::title));
    return lines;
  }

  private record Placed(UUID master, String key) {}

  /** Where each item stands in the versions that the section holds. */
  private Map<Placed, Integer> outline(UUID section) {
    Map<Placed, Integer> order = new HashMap<>();
    history
        .trees(section)
        .forEach(
            (master, tree) ->
                trees
                    .tree(tree)
                    .nodes()
                    .forEach(n -> order.put(new Placed(master, n.key().value()), order.size())));
    return order;
  }

  /** All receipts of one item in the section, newest first. */
  @GetMapping("/{id}/masters/{master}/items/{key}/receipts")
  List<History.ReceiptLine> receipts(
      @PathVariable UUID id,
      @PathVariable UUID master,
      @PathVariable String key,
      @AuthenticationPrincipal SignedIn who) {
    reached.check(id, who);
    return history.receipts(id, master, Previews.key(key));
  }
}
