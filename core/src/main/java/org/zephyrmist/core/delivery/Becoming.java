package org.zephyrmist.core.delivery;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;

/** Items that become something else in a section than the version says, for a forecast of many. */
public interface Becoming {
  /** All become what the version says. */
  Becoming AS_SAID = (item, section) -> item.aspects();

  /**
   * What an item of the version becomes.
   *
   * @param section by its place among the sections of the forecast
   */
  Fingerprints of(Node item, int section);

  /** The same, but in these aspects what another says. */
  default Becoming with(Set<Aspect> aspects, Becoming other) {
    return (item, section) -> of(item, section).with(aspects, other.of(item, section));
  }

  /**
   * What sections hold, told as if the version said the same to all of them. Where an item becomes
   * something else, that and what the version says change places: what was equal stays equal, what
   * was not stays so, and the steps that follow are those of the section.
   */
  default List<Forecast.Holds> asSaid(Tree version, List<Forecast.Holds> holds) {
    List<Forecast.Holds> all = new ArrayList<>();
    for (Forecast.Holds h : holds) {
      Optional<Node> item = version.get(h.base().key());
      if (item.isPresent()) {
        asSaid(item.get(), h, all);
      } else {
        all.add(h);
      }
    }
    return all;
  }

  private void asSaid(Node item, Forecast.Holds h, List<Forecast.Holds> all) {
    Map<Fingerprints, BitSet> alike = new LinkedHashMap<>();
    h.sections().stream()
        .forEach(s -> alike.computeIfAbsent(of(item, s), f -> new BitSet()).set(s));
    alike.forEach((becomes, sections) -> all.add(asSaid(item.aspects(), becomes, h, sections)));
  }

  private static Forecast.Holds asSaid(
      Fingerprints version, Fingerprints becomes, Forecast.Holds h, BitSet sections) {
    if (version.equals(becomes)) {
      return new Forecast.Holds(h.base(), h.here(), sections);
    }
    Base b = h.base();
    Base said =
        new Base(
            b.key(),
            b.kind(),
            b.title(),
            b.id(),
            swapped(b.sent(), version, becomes),
            swapped(b.shown(), version, becomes),
            b.accepted());
    return new Forecast.Holds(said, h.here().map(f -> swapped(f, version, becomes)), sections);
  }

  private static Fingerprints swapped(Fingerprints f, Fingerprints version, Fingerprints becomes) {
    Fingerprints to = f;
    for (Aspect a : version.differing(becomes)) {
      Fingerprint is = f.get(a);
      if (is.equals(becomes.get(a))) {
        to = to.with(a, version.get(a));
      } else if (is.equals(version.get(a))) {
        to = to.with(a, becomes.get(a));
      }
    }
    return to;
  }
}
