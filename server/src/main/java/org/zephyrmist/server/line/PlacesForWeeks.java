package org.zephyrmist.server.line;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.core.delivery.Choices;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.core.delivery.Meant;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.core.delivery.WeekPlaces;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;
import org.zephyrmist.server.content.Bodies;
import org.zephyrmist.server.shell.Reading;

/** Sees to it that each week finds a place in a shell, or does not come. */
@Component
class PlacesForWeeks {
  private final Bodies bodies;

  PlacesForWeeks(Bodies bodies) {
    this.bodies = bodies;
  }

  /**
   * The plan, with places for the weeks that it brings, or without those that have none.
   *
   * @param plan of what is meant
   */
  List<Step> of(
      Tree version,
      Reading reading,
      Meant meant,
      Choices choices,
      Function<Meant, List<Step>> plan) {
    List<Step> steps = plan.apply(meant);
    Optional<WeekPlaces> places = places(reading);
    if (places.isEmpty()) {
      return steps;
    }
    String id = places.get().id();
    Optional<Step> written =
        steps.stream()
            .filter(s -> s.id().equals(Optional.of(id)) && s.writes().contains(Aspect.WORDING))
            .findFirst();
    WeekPlaces then = written.map(s -> new WeekPlaces(id, becomes(s))).orElseGet(places::get);
    List<WeekPlaces.Week> lacking = then.without(WeekPlaces.weeks(version), steps);
    if (lacking.isEmpty()) {
      return steps;
    }
    if (choices.weeks() == Choices.Weeks.LEAVE_OUT || written.isPresent()) {
      return plan.apply(meant.withoutWeek(WeekPlaces.in(meant.items(), lacking)));
    }
    String more = AspectForms.form(then.withPlacesFor(lacking, called(meant.items())));
    bodies.keep(Set.of(more));
    List<Step> all = new ArrayList<>(steps);
    all.add(then.adding(reading.item(id).orElseThrow(), Fingerprint.of(more)));
    return all;
  }

  /** The setup of a shell that says its places for weeks, if it has one. */
  static Optional<WeekPlaces> places(Reading reading) {
    return reading.items().stream()
        .filter(h -> h.kind() == Kind.SETUP)
        .flatMap(h -> WeekPlaces.of(h.id(), wording(reading, h)).stream())
        .findFirst();
  }

  private static Wording wording(Reading reading, Held h) {
    return AspectForms.wording(reading.forms().get(h.id()).get(Aspect.WORDING));
  }

  private Wording becomes(Step s) {
    Fingerprint f = s.sides().becomes().orElseThrow().get(Aspect.WORDING);
    return AspectForms.wording(bodies.get(Set.of(f)).get(f));
  }

  /** How the version calls its weeks. */
  private List<Content.Entry> called(Tree meant) {
    Set<Fingerprint> setups =
        meant.nodes().stream()
            .filter(n -> n.kind() == Kind.SETUP)
            .map((Node n) -> n.aspects().get(Aspect.WORDING))
            .collect(Collectors.toSet());
    return bodies.get(setups).values().stream()
        .flatMap(f -> WeekPlaces.of("", AspectForms.wording(f)).stream())
        .findFirst()
        .map(w -> w.wording().entries())
        .orElse(List.of());
  }
}
