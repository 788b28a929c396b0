package org.zephyrmist.server.line;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.core.delivery.Into;
import org.zephyrmist.core.delivery.Meant;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.server.content.Bodies;
import org.zephyrmist.server.shell.Reading;
import org.zephyrmist.server.shell.ShellTranslator;

/** Finds in a shell the place into which a delivery puts its items. */
@Component
class NamedPlaces {
  private final Bodies bodies;

  NamedPlaces(Bodies bodies) {
    this.bodies = bodies;
  }

  /** The same; where the delivery names a place, new items go there, one after the other. */
  Meant of(Line line, Reading reading, Meant meant) {
    Optional<Into> into = line.parts().into();
    if (into.isEmpty()) {
      return meant;
    }
    Map<ItemKey, Fingerprint> places = new HashMap<>();
    Set<String> forms = new HashSet<>();
    Optional<Into.Gap> gap = into.get().in(standing(reading));
    for (Node n : meant.items().nodes()) {
      if (gap.isPresent() && n.kind() != Kind.MODULE) {
        String rank = gap.get().next();
        String module = ShellTranslator.hereKey(gap.get().module());
        String form = AspectForms.form(new Place(Optional.of(module), rank));
        forms.add(form);
        places.put(n.key(), Fingerprint.of(form));
        gap = Optional.of(gap.get().behind(rank));
      }
    }
    if (!forms.isEmpty()) {
      bodies.keep(forms);
    }
    return meant.placed(places);
  }

  /** In the platform's order. */
  private static List<Into.Standing> standing(Reading reading) {
    List<Into.Standing> all = new ArrayList<>();
    for (Held h : reading.items()) {
      String place = reading.forms().get(h.id()).get(Aspect.PLACE);
      all.add(
          new Into.Standing(
              h.id(), h.kind(), h.title(), h.parent(), AspectForms.place(place).rank()));
    }
    return all;
  }
}
