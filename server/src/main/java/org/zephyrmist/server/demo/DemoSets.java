package org.zephyrmist.server.demo;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.coverage.SectionFilter;
import org.zephyrmist.server.coverage.Rules;
import org.zephyrmist.server.coverage.SectionSets;
import org.zephyrmist.server.delivery.PartSets;
import org.zephyrmist.server.people.People;
import org.zephyrmist.server.people.SignedIn;

/** Sets of sections and of parts that a coordinator kept, and a rule that stands on one of them. */
@Component
@ConditionalOnProperty(name = "zephyrmist.demo", havingValue = "true")
class DemoSets {
  private final SectionSets sets;
  private final PartSets partSets;
  private final Rules rules;
  private final DemoDeliveries deliveries;
  private final People people;

  DemoSets(
      SectionSets sets, PartSets partSets, Rules rules, DemoDeliveries deliveries, People people) {
    this.partSets = partSets;
    this.sets = sets;
    this.rules = rules;
    this.deliveries = deliveries;
    this.people = people;
  }

  /**
   * @param sound a master some of whose sections are to stay at its second version
   */
  void make(UUID sound) {
    SignedIn ines = people.loadUserByUsername("ines@larkmoor.example");
    filter("Quay, all programs", new SectionFilter("", "", "Quay", ""), ines);
    filter("Stage lighting at Quay", new SectionFilter("", "LGT 110", "Quay", ""), ines);
    partSets.keep(
        new PartSets.Wanted(
            "My own things to spare",
            List.of(Kind.ANNOUNCEMENT, Kind.DISCUSSION),
            List.of("syllabus", "calendar", "who teaches")),
        ines);
    List<UUID> some = deliveries.sections("SND 120", "t1-%").subList(0, 6);
    UUID hall =
        sets.keep(
            new SectionSets.Wanted("Rehearse in the old hall", Optional.of(some), Optional.empty()),
            ines);
    rules.add(
        new Rules.Wanted(
            sound, Optional.empty(), Optional.empty(), Optional.of(hall), Optional.of(2)),
        ines);
  }

  private void filter(String name, SectionFilter filter, SignedIn who) {
    sets.keep(new SectionSets.Wanted(name, Optional.empty(), Optional.of(filter)), who);
  }
}
