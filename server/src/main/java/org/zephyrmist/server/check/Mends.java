package org.zephyrmist.server.check;

import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.VERSION;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.check.Check;
import org.zephyrmist.core.check.Mend;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.delivery.Choices;
import org.zephyrmist.core.delivery.PartSet;
import org.zephyrmist.core.delivery.PartsChoice;
import org.zephyrmist.core.edit.Edit;
import org.zephyrmist.core.edit.Given;
import org.zephyrmist.core.edit.Subject;
import org.zephyrmist.server.coverage.Rules;
import org.zephyrmist.server.delivery.Deliveries;
import org.zephyrmist.server.delivery.EditDeliveries;
import org.zephyrmist.server.ledger.Standings;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** What puts findings right: ordinary plans, to be looked at and confirmed like any. */
@Component
class Mends {
  private final DSLContext db;
  private final Deliveries deliveries;
  private final EditDeliveries edits;
  private final Rules rules;
  private final Standings standings;

  Mends(
      DSLContext db,
      Deliveries deliveries,
      EditDeliveries edits,
      Rules rules,
      Standings standings) {
    this.standings = standings;
    this.db = db;
    this.deliveries = deliveries;
    this.edits = edits;
    this.rules = rules;
  }

  /**
   * Plans that mend a finding in these sections; several where the sections need different
   * versions.
   *
   * @param put words in the place of what is found, where words are what is wrong
   */
  @Transactional
  public List<UUID> make(
      Check check, Subject about, List<UUID> sections, Optional<Replaced> put, SignedIn who) {
    Mend mend = check.mend();
    if (mend == Mend.DELIVER) {
      return deliver(check, about, sections, who);
    }
    if (mend.edit().isEmpty()) {
      throw Refusal.bad(
          "No plan mends this; a person has to.", "Ask the instructors, or do it in the shell.");
    }
    if (!mend.aspects().isEmpty() && about.given().isEmpty()) {
      throw Refusal.bad(
          "Nobody delivered this item, so there is nothing to put back.",
          "Ask the instructors, or do it in the shell.");
    }
    return List.of(edits.make(edit(mend, about, put), sections, who));
  }

  /** Words and what comes in their place. */
  record Replaced(String find, String put) {}

  private static Edit edit(Mend mend, Subject about, Optional<Replaced> put) {
    List<Subject> items = about.equals(Subject.SHELL) ? List.of() : List.of(about);
    Edit.What what = mend.edit().orElseThrow();
    return switch (what) {
      case REPLACE -> {
        Replaced r =
            put.filter(p -> !p.find().isBlank())
                .orElseThrow(
                    () ->
                        Refusal.bad(
                            "No words are named that are to be replaced.",
                            "Say which, and by what."));
        yield Edit.replace(items, r.find(), r.put());
      }
      case PUT_BACK -> Edit.putBack(items, mend.aspects());
      default -> Edit.of(what, items);
    };
  }

  private List<UUID> deliver(Check check, Subject about, List<UUID> sections, SignedIn who) {
    Given given =
        about.given().orElseThrow(() -> Refusal.bad("No master brings this.", "Add it by hand."));
    UUID master = master(given);
    boolean whole = check == Check.NOT_ARRIVED || check == Check.BEHIND;
    Map<UUID, List<UUID>> byVersion = whole ? expected(master, sections) : held(master, sections);
    if (byVersion.isEmpty()) {
      throw Refusal.bad(
          "None of these sections ought to hold it any more.", "Look at the checks again.");
    }
    Deliveries.Order order =
        whole
            ? new Deliveries.Order(PartsChoice.EVERYTHING, Choices.SAFE)
            : new Deliveries.Order(
                new PartsChoice(PartsChoice.What.SOME, only(given.key())),
                new Choices(
                    Choices.Clash.PUT_BACK,
                    Choices.Twin.ADOPT,
                    Choices.Arrival.AS_IN_MASTER,
                    Choices.Dates.ALONG));
    List<UUID> made = new ArrayList<>();
    byVersion.forEach((v, of) -> made.add(deliveries.make(v, of, order, who)));
    return made;
  }

  private static PartSet only(ItemKey key) {
    return PartSet.of(Set.of(key));
  }

  private static UUID master(Given given) {
    try {
      return UUID.fromString(given.master());
    } catch (IllegalArgumentException e) {
      throw Refusal.notFound("master");
    }
  }

  /** Sections by the version that is expected of them. */
  private Map<UUID, List<UUID>> expected(UUID master, List<UUID> sections) {
    Map<UUID, Integer> numbers =
        rules
            .versions(SECTION.ID.eq(DSL.any(sections.toArray(UUID[]::new))))
            .getOrDefault(master, Map.of());
    Map<Integer, UUID> ids =
        db.select(VERSION.NUMBER, VERSION.ID)
            .from(VERSION)
            .join(MASTER)
            .on(MASTER.ID.eq(VERSION.MASTER_ID))
            .where(VERSION.MASTER_ID.eq(master))
            .fetchMap(VERSION.NUMBER, VERSION.ID);
    Map<UUID, List<UUID>> all = new LinkedHashMap<>();
    for (UUID s : sections) {
      Optional.ofNullable(numbers.get(s))
          .map(ids::get)
          .ifPresent(v -> all.computeIfAbsent(v, k -> new ArrayList<>()).add(s));
    }
    return all;
  }

  /** Sections by the version that they hold. */
  private Map<UUID, List<UUID>> held(UUID master, List<UUID> sections) {
    Map<UUID, List<UUID>> all = new LinkedHashMap<>();
    standings
        .versions(sections)
        .forEach(
            (s, held) ->
                Optional.ofNullable(held.get(master))
                    .ifPresent(v -> all.computeIfAbsent(v, k -> new ArrayList<>()).add(s)));
    return all;
  }
}
