package org.zephyrmist.server.term;

import static org.zephyrmist.server.db.Tables.SECTION_FOLLOWS;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
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
import org.zephyrmist.core.delivery.PartsChoice;
import org.zephyrmist.core.edit.Edit;
import org.zephyrmist.core.edit.Given;
import org.zephyrmist.core.edit.Subject;
import org.zephyrmist.core.term.Onward;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.delivery.Deliveries;
import org.zephyrmist.server.delivery.RecipeOrders;
import org.zephyrmist.server.master.Versions;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.term.NextTerms.Coming;
import org.zephyrmist.server.term.NextTerms.Proposal;
import org.zephyrmist.server.term.NextTerms.Terms;
import org.zephyrmist.server.term.OwnTexts.OwnText;
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
  private final PartCalendars calendars;
  private final Events events;

  BringForward(
      DSLContext db,
      NextTerms terms,
      Deliveries deliveries,
      Versions versions,
      Trees trees,
      PartCalendars calendars,
      Events events) {
    this.calendars = calendars;
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
    Map<UUID, List<Coming>> bySection = p.open();
    if (bySection.isEmpty()) {
      throw Refusal.bad(
          "Everything of this proposal has been brought, or is on its way.",
          "Freeze a newer version, or pair more sections.");
    }
    follow(p, bySection.keySet());
    calendars.go(p.parts(), who);
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
        (versions, sections) -> {
          List<Coming> of = bySection.get(sections.get(0));
          List<Deliveries.Part> parts = new ArrayList<>();
          for (Coming m : of) {
            parts.add(
                new Deliveries.Part(
                    m.version(),
                    sections,
                    orders.computeIfAbsent(m.version(), v -> withoutOneTerm(m))));
          }
          parts.addAll(carried(p, of, sections));
          List<UUID> together = deliveries.together(parts, who);
          for (int i = 0; i < of.size(); i++) {
            UUID delivery = together.get(i);
            of.get(i).recipe().ifPresent(r -> deliveries.madeBy(delivery, r.id()));
          }
          made.add(together.get(0));
        });
    events.add(
        who.id(),
        "planned the next term for",
        bySection.size() + " sections",
        made.size() + (made.size() == 1 ? " order" : " orders"),
        "/next-term");
    return made;
  }

  /** As its recipe says, or with the usual choices; announcements of one term are left out. */
  private Deliveries.Order withoutOneTerm(Coming m) {
    Versions.Version v = versions.get(m.version());
    Set<ItemKey> once =
        trees
            .items(v.tree().nodes().stream().filter(n -> n.kind() == Kind.ANNOUNCEMENT).toList())
            .stream()
            .filter(i -> i.content().lasting().isPresent())
            .map(Item::key)
            .collect(Collectors.toSet());
    Deliveries.Order order =
        m.recipe()
            .map(RecipeOrders.Named::order)
            .orElse(new Deliveries.Order(PartsChoice.EVERYTHING, Choices.SAFE));
    return order.of(order.parts().without(once));
  }

  /** What the sections before them made of texts, into those that the same person teaches. */
  private static List<Deliveries.Part> carried(
      Proposal p, List<Coming> masters, List<UUID> sections) {
    List<Deliveries.Part> parts = new ArrayList<>();
    UUID last = masters.get(masters.size() - 1).version();
    Set<UUID> coming = masters.stream().map(Coming::master).collect(Collectors.toSet());
    Map.of(Onward.AGAIN, Edit.What.CARRY, Onward.BLANKS, Edit.What.FILL_BLANKS)
        .forEach(
            (onward, edit) -> {
              List<Subject> about = new ArrayList<>();
              Set<UUID> into = new HashSet<>();
              for (OwnText x : p.texts()) {
                Set<UUID> here = new HashSet<>(x.into());
                here.retainAll(sections);
                if (x.goes(onward) && !here.isEmpty() && coming.contains(x.master())) {
                  about.add(Subject.of(new Given(x.master().toString(), x.item())));
                  into.addAll(here);
                }
              }
              if (!about.isEmpty()) {
                parts.add(
                    new Deliveries.Part(
                        last, List.copyOf(into), Deliveries.Order.of(Edit.of(edit, about))));
              }
            });
    return parts;
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
