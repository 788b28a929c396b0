package org.zephyrmist.server.term;

import static org.zephyrmist.server.db.Tables.SECTION_FOLLOWS;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.Choices;
import org.zephyrmist.core.delivery.PartSet;
import org.zephyrmist.core.delivery.PartsChoice;
import org.zephyrmist.core.edit.Edit;
import org.zephyrmist.core.edit.Given;
import org.zephyrmist.core.edit.Subject;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.delivery.Deliveries;
import org.zephyrmist.server.master.Versions;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.term.NextTerms.Coming;
import org.zephyrmist.server.term.NextTerms.OwnText;
import org.zephyrmist.server.term.NextTerms.Proposal;
import org.zephyrmist.server.term.NextTerms.Terms;
import org.zephyrmist.server.web.Refusal;

/**
 * Brings a term into the next as ordinary deliveries, which wait to be looked at and confirmed: one
 * order for the sections that get the same masters, what is carried over last. What a section holds
 * already is not brought again.
 */
@Component
class BringForward {
  private final DSLContext db;
  private final NextTerms terms;
  private final Deliveries deliveries;
  private final Versions versions;
  private final Trees trees;
  private final Events events;

  BringForward(
      DSLContext db,
      NextTerms terms,
      Deliveries deliveries,
      Versions versions,
      Trees trees,
      Events events) {
    this.db = db;
    this.terms = terms;
    this.deliveries = deliveries;
    this.versions = versions;
    this.trees = trees;
    this.events = events;
  }

  /** Makes the deliveries; gives the first of each order. */
  @Transactional
  public List<UUID> begin(Terms t, SignedIn who) {
    Proposal p = terms.of(t, who);
    Map<UUID, List<Coming>> bySection = new HashMap<>();
    p.masters().stream()
        .filter(m -> !m.leftOut())
        .forEach(
            m ->
                m.open().forEach(s -> bySection.computeIfAbsent(s, k -> new ArrayList<>()).add(m)));
    bySection.keySet().removeAll(deliveries.underWay(bySection.keySet()));
    if (bySection.isEmpty()) {
      throw Refusal.bad(
          "Everything of this proposal has been brought, or is on its way.",
          "Freeze a newer version, or pair more sections.");
    }
    follow(p, bySection.keySet());
    Map<UUID, Deliveries.Order> orders = new HashMap<>();
    Map<List<UUID>, List<UUID>> alike = new LinkedHashMap<>();
    p.sections().keySet().stream()
        .filter(bySection::containsKey)
        .forEach(
            s ->
                alike
                    .computeIfAbsent(
                        bySection.get(s).stream().map(Coming::version).toList(),
                        k -> new ArrayList<>())
                    .add(s));
    List<UUID> made = new ArrayList<>();
    alike.forEach(
        (of, sections) -> {
          List<Deliveries.Part> parts = new ArrayList<>();
          for (UUID v : of) {
            parts.add(
                new Deliveries.Part(v, sections, orders.computeIfAbsent(v, this::withoutOneTerm)));
          }
          carried(p, of, sections).ifPresent(parts::add);
          made.add(deliveries.together(parts, who).get(0));
        });
    events.add(
        who.id(),
        "planned the next term for",
        bySection.size() + " sections",
        made.size() + (made.size() == 1 ? " order" : " orders"),
        "/coverage/next-term");
    return made;
  }

  /** Announcements of one term are left out. */
  private Deliveries.Order withoutOneTerm(UUID version) {
    Versions.Version v = versions.get(version);
    Set<ItemKey> once =
        trees
            .items(v.tree().nodes().stream().filter(n -> n.kind() == Kind.ANNOUNCEMENT).toList())
            .stream()
            .filter(i -> i.content().lasting().isPresent())
            .map(Item::key)
            .collect(Collectors.toSet());
    PartsChoice parts =
        once.isEmpty()
            ? PartsChoice.EVERYTHING
            : new PartsChoice(PartsChoice.What.EVERYTHING, PartSet.NONE, PartSet.of(once));
    return new Deliveries.Order(parts, Choices.SAFE);
  }

  /** What the sections before them made of texts, into those that the same person teaches. */
  private static Optional<Deliveries.Part> carried(
      Proposal p, List<UUID> versions, List<UUID> sections) {
    Map<UUID, Coming> masters = new HashMap<>();
    p.masters().forEach(m -> masters.put(m.master(), m));
    List<Subject> about = new ArrayList<>();
    Set<UUID> into = new HashSet<>();
    for (OwnText x : p.texts()) {
      Set<UUID> here = new HashSet<>(x.into());
      here.retainAll(sections);
      if (x.carried() && !here.isEmpty() && versions.contains(masters.get(x.master()).version())) {
        about.add(Subject.of(new Given(x.master().toString(), x.item())));
        into.addAll(here);
      }
    }
    return about.isEmpty()
        ? Optional.empty()
        : Optional.of(
            new Deliveries.Part(
                versions.get(versions.size() - 1),
                List.copyOf(into),
                Deliveries.Order.of(Edit.of(Edit.What.CARRY, about))));
  }

  /** Notes which section each follows, for what is carried over. */
  private void follow(Proposal p, Set<UUID> sections) {
    db.batch(
            sections.stream()
                .filter(p.follows()::containsKey)
                .map(
                    s ->
                        db.insertInto(SECTION_FOLLOWS)
                            .values(s, p.follows().get(s))
                            .onConflict(SECTION_FOLLOWS.SECTION_ID)
                            .doUpdate()
                            .setAllToExcluded())
                .toList())
        .execute();
  }
}
