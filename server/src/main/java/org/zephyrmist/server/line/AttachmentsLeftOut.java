package org.zephyrmist.server.line;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.core.delivery.Attachments;
import org.zephyrmist.core.delivery.Base;
import org.zephyrmist.core.delivery.Forecast;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;
import org.zephyrmist.server.content.Bodies;

/** What items are to say where a delivery does not bring what is attached to them. */
@Component
public class AttachmentsLeftOut {
  private final Bodies bodies;

  AttachmentsLeftOut(Bodies bodies) {
    this.bodies = bodies;
  }

  /**
   * The tree as it is meant for a section; what items become is kept.
   *
   * @param bases what the section got last
   */
  Tree of(Tree version, Map<ItemKey, Base> bases) {
    List<Node> moved = new ArrayList<>();
    Set<Fingerprint> wanted = new HashSet<>();
    for (Node n : version.nodes()) {
      Optional<Fingerprint> sent = Optional.ofNullable(bases.get(n.key())).map(b -> sent(b));
      if (Attachments.mayStand(n) && !sent.equals(Optional.of(wording(n)))) {
        moved.add(n);
        wanted.add(wording(n));
        sent.ifPresent(wanted::add);
      }
    }
    Map<Fingerprint, String> forms = bodies.get(wanted);
    Map<ItemKey, Node> nodes = new LinkedHashMap<>();
    version.nodes().forEach(n -> nodes.put(n.key(), n));
    Set<String> become = new HashSet<>();
    for (Node n : moved) {
      Optional<Base> base = Optional.ofNullable(bases.get(n.key()));
      if (base.isPresent() && !forms.containsKey(sent(base.get()))) {
        continue; // what was sent is not known, as after a crash; the version's are written again
      }
      String form = bare(n, base, forms);
      become.add(form);
      nodes.put(n.key(), n.withAspects(n.aspects().with(Aspect.WORDING, Fingerprint.of(form))));
    }
    bodies.keep(become);
    return Tree.of(nodes.values());
  }

  private static String bare(Node n, Optional<Base> base, Map<Fingerprint, String> forms) {
    Wording version = AspectForms.wording(forms.get(wording(n)));
    Optional<Wording> sent = base.map(b -> AspectForms.wording(forms.get(sent(b))));
    return AspectForms.form(Attachments.leftOut(version, sent));
  }

  /** What sections hold, where it is no matter what is attached: it counts as the version's. */
  public List<Forecast.Holds> of(Tree version, List<Forecast.Holds> holds) {
    Set<Fingerprint> wanted = new HashSet<>();
    for (Forecast.Holds h : holds) {
      moved(version, h)
          .ifPresent(
              n -> {
                wanted.add(wording(n));
                wanted.add(sent(h.base()));
              });
    }
    Map<Fingerprint, String> forms = bodies.get(wanted);
    return holds.stream().map(h -> sameButFor(version, h, forms)).toList();
  }

  private static Forecast.Holds sameButFor(
      Tree version, Forecast.Holds h, Map<Fingerprint, String> forms) {
    Base b = h.base();
    Optional<Node> n = moved(version, h).filter(x -> forms.containsKey(sent(b)));
    boolean same =
        n.isPresent() && Fingerprint.of(bare(n.get(), Optional.of(b), forms)).equals(sent(b));
    if (!same) {
      return h;
    }
    Base as = b.saying(Aspect.WORDING, wording(n.get()));
    return new Forecast.Holds(as, h.here(), (BitSet) h.sections().clone());
  }

  private static Optional<Node> moved(Tree version, Forecast.Holds h) {
    return version
        .get(h.base().key())
        .filter(n -> Attachments.mayStand(n) && !wording(n).equals(sent(h.base())));
  }

  private static Fingerprint wording(Node n) {
    return n.aspects().get(Aspect.WORDING);
  }

  private static Fingerprint sent(Base b) {
    return b.sent().get(Aspect.WORDING);
  }
}
