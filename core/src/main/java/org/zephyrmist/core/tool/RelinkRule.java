package org.zephyrmist.core.tool;

import java.time.LocalDate;
import java.util.Collections;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import org.zephyrmist.core.content.Addresses;
import org.zephyrmist.core.content.RosterValue;

/**
 * How links that look alike are written otherwise. In what they become, parts of the address before
 * stand as <code>{name}</code>, and so do values of the section.
 *
 * @param parameters to be sent along with these texts; none: not any more
 * @param limits where and when it counts
 */
public record RelinkRule(
    String id,
    AddressPattern from,
    Template to,
    Map<String, Optional<Template>> parameters,
    Limits limits) {
  public RelinkRule {
    parameters = Map.copyOf(parameters);
    Set<String> unknown = to.names();
    parameters.values().forEach(t -> t.ifPresent(x -> unknown.addAll(x.names())));
    unknown.removeIf(n -> from.names().contains(n) || RosterValue.named(n).isPresent());
    if (!unknown.isEmpty()) {
      throw new IllegalArgumentException(
          "{" + unknown.iterator().next() + "} is neither a part of the address nor a value.");
    }
  }

  /**
   * Where and when a rule counts; what is empty is not limited.
   *
   * @param masters ids of the sources
   * @param from first day
   * @param until last day
   */
  public record Limits(
      Set<String> masters,
      Set<String> terms,
      Set<String> campuses,
      Optional<LocalDate> from,
      Optional<LocalDate> until) {
    public static final Limits NONE =
        new Limits(Set.of(), Set.of(), Set.of(), Optional.empty(), Optional.empty());

    public Limits {
      masters = Set.copyOf(masters);
      terms = Set.copyOf(terms);
      campuses = Set.copyOf(campuses);
    }

    /** Whether any link can be of both. */
    boolean meet(Limits other) {
      boolean before = until.isPresent() && other.from.filter(until.get()::isBefore).isPresent();
      boolean after =
          other.until.isPresent() && from.filter(other.until.get()::isBefore).isPresent();
      return meet(masters, other.masters)
          && meet(terms, other.terms)
          && meet(campuses, other.campuses)
          && !before
          && !after;
    }

    private static boolean meet(Set<String> some, Set<String> others) {
      return some.isEmpty() || others.isEmpty() || some.stream().anyMatch(others::contains);
    }

    boolean cover(String master, SectionPlace s, LocalDate day) {
      return (masters.isEmpty() || masters.contains(master))
          && (terms.isEmpty() || terms.contains(s.term()))
          && (campuses.isEmpty() || campuses.contains(s.campus()))
          && from.filter(day::isBefore).isEmpty()
          && until.filter(day::isAfter).isEmpty();
    }
  }

  /** Whether what it writes is what another looks for, where both count. */
  boolean leadsTo(RelinkRule other) {
    return limits.meet(other.limits) && other.from.parts(sample()).isPresent();
  }

  /** An address as it writes them. */
  private String sample() {
    return to.text().replaceAll("\\{\\*[^}]*}", "/x").replaceAll("\\{[^}]*}", "x");
  }

  /** A link as the rule writes it; none if it does not look like this, or is so already. */
  Optional<Link> of(Link link, SectionPlace section) {
    Optional<Map<String, String>> parts = from.parts(link.address());
    if (parts.isEmpty()) {
      return Optional.empty();
    }
    Optional<String> address =
        to.filled(
            n ->
                Optional.ofNullable(parts.get().get(n))
                    .or(() -> section.value(n).map(Template::inAddress)));
    return address
        .filter(Addresses::isWeb)
        .flatMap(a -> sent(link, parts.get(), section).map(p -> new Link(a, p)))
        .filter(l -> !l.equals(link));
  }

  /** What it sends along; none if a value that is sent is not known. */
  private Optional<SortedMap<String, String>> sent(
      Link link, Map<String, String> parts, SectionPlace section) {
    SortedMap<String, String> sent = new TreeMap<>(link.parameters());
    for (Map.Entry<String, Optional<Template>> p : parameters.entrySet()) {
      sent.remove(p.getKey());
      if (p.getValue().isPresent()) {
        Optional<String> value =
            p.getValue()
                .get()
                .filled(n -> Optional.ofNullable(parts.get(n)).or(() -> section.value(n)));
        if (value.isEmpty()) {
          return Optional.empty();
        }
        sent.put(p.getKey(), value.get());
      }
    }
    return Optional.of(sent);
  }

  /** Where a link leads and what it sends along. */
  public record Link(String address, SortedMap<String, String> parameters) {
    public Link {
      parameters = Collections.unmodifiableSortedMap(new TreeMap<>(parameters));
    }
  }
}
