package org.zephyrmist.core.tool;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.zephyrmist.core.tool.RelinkRule.Link;

/**
 * Rules in their order. The first that changes a link counts, and no other after it: where another
 * rule, or the same, would change the result once more, the link stays as it was and that is told.
 * So relinking twice is relinking once, and no rules make a chain or a loop.
 */
public record RelinkRules(List<RelinkRule> rules) {
  public static final RelinkRules NONE = new RelinkRules(List.of());

  public RelinkRules {
    rules = List.copyOf(rules);
  }

  /** Hosts that they are about; other links they never change. */
  public Set<String> hosts() {
    return rules.stream().map(r -> r.from().host()).collect(Collectors.toSet());
  }

  /**
   * A rule with which another would make a chain, or a loop: what the one writes is what the other
   * looks for, so that links of the first would stay as they are.
   */
  public Optional<RelinkRule> chain(RelinkRule more) {
    return rules.stream().filter(r -> r.leadsTo(more) || more.leadsTo(r)).findFirst();
  }

  /**
   * What becomes of a link.
   *
   * @param rule that changed it, or would
   * @param leadsOn the rule that would change the result once more, so that nothing is done
   */
  public record Relinked(Link link, Optional<RelinkRule> rule, Optional<RelinkRule> leadsOn) {
    /** Whether it is written otherwise. */
    public boolean changed() {
      return rule.isPresent() && leadsOn.isEmpty();
    }
  }

  /**
   * @param master id of the source that the link came from
   */
  public Relinked of(Link link, String master, SectionPlace section, LocalDate day) {
    Optional<Found> found = first(link, master, section, day);
    if (found.isEmpty()) {
      return new Relinked(link, Optional.empty(), Optional.empty());
    }
    Link becomes = found.get().becomes();
    Optional<RelinkRule> on = first(becomes, master, section, day).map(Found::rule);
    return new Relinked(on.isPresent() ? link : becomes, Optional.of(found.get().rule()), on);
  }

  private record Found(RelinkRule rule, Link becomes) {}

  /** The first rule that counts here and changes the link. */
  private Optional<Found> first(Link link, String master, SectionPlace section, LocalDate day) {
    for (RelinkRule r : rules) {
      Optional<Link> becomes =
          r.limits().cover(master, section, day) ? r.of(link, section) : Optional.empty();
      if (becomes.isPresent()) {
        return Optional.of(new Found(r, becomes.get()));
      }
    }
    return Optional.empty();
  }
}
