package org.zephyrmist.core.delivery;

import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;

/**
 * Files attached to items, where a delivery does not bring them: what is new comes without, and
 * what a section has keeps those that came with it, whatever the version attaches now. Pictures of
 * questions are a part of these and always come.
 */
public final class Attachments {
  private Attachments() {}

  /** Whether anything may be attached to an item. */
  static boolean mayStand(Node n) {
    return n.kind() == Kind.ASSIGNMENT || n.kind() == Kind.DISCUSSION;
  }

  /** Whether anything is attached to an item that says this. */
  public static boolean stand(Wording w) {
    return w.file().isEmpty() && !w.attached().isEmpty();
  }

  /**
   * What an item is to say where attachments are not brought.
   *
   * @param sent what was last delivered of it, if it was
   */
  static Wording leftOut(Wording version, Optional<Wording> sent) {
    return version.withAttached(sent.map(Wording::attached).orElse(List.of()));
  }

  /**
   * A version without what is attached.
   *
   * @param forms what items say that say something else than the version
   */
  public record Bare(Tree tree, Set<String> forms) {}

  /**
   * Wordings whose forms have to be known to leave out attachments.
   *
   * @param bases what was last delivered, of one section or of many
   */
  public static Set<Fingerprint> wordings(Tree version, Collection<Base> bases) {
    Set<Fingerprint> all = new HashSet<>();
    Set<ItemKey> held = new HashSet<>();
    for (Base b : bases) {
      held.add(b.key());
      version.get(b.key()).filter(n -> moved(n, b)).ifPresent(n -> all.addAll(both(n, b)));
    }
    version.nodes().stream()
        .filter(n -> mayStand(n) && !held.contains(n.key()))
        .forEach(n -> all.add(wording(n)));
    return all;
  }

  /**
   * The version as it is meant for a section.
   *
   * @param bases what the section got last
   * @param forms of {@link #wordings}; where what was sent is not known, as after a crash, the
   *     version's attachments are written again
   */
  public static Bare leftOut(
      Tree version, Map<ItemKey, Base> bases, Map<Fingerprint, String> forms) {
    Map<ItemKey, Node> nodes = new LinkedHashMap<>();
    Set<String> become = new HashSet<>();
    for (Node n : version.nodes()) {
      Optional<Base> base = Optional.ofNullable(bases.get(n.key()));
      boolean known = base.map(b -> moved(n, b) && forms.containsKey(sent(b))).orElse(true);
      Node bare = n;
      if (mayStand(n) && known) {
        String form = form(n, base, forms);
        become.add(form);
        bare = n.withAspects(n.aspects().with(Aspect.WORDING, Fingerprint.of(form)));
      }
      nodes.put(n.key(), bare);
    }
    return new Bare(Tree.of(nodes.values()), become);
  }

  /** What sections hold, where it is no matter what is attached: it counts as the version's. */
  public static List<Forecast.Holds> leftOut(
      Tree version, List<Forecast.Holds> holds, Map<Fingerprint, String> forms) {
    return holds.stream()
        .map(
            h ->
                version
                    .get(h.base().key())
                    .filter(n -> sameButForThem(n, h.base(), forms))
                    .map(n -> h.base().saying(Aspect.WORDING, wording(n)))
                    .map(b -> new Forecast.Holds(b, h.here(), h.sections()))
                    .orElse(h))
        .toList();
  }

  private static boolean sameButForThem(Node n, Base b, Map<Fingerprint, String> forms) {
    return moved(n, b)
        && forms.containsKey(sent(b))
        && Fingerprint.of(form(n, Optional.of(b), forms)).equals(sent(b));
  }

  private static String form(Node n, Optional<Base> base, Map<Fingerprint, String> forms) {
    Wording version = AspectForms.wording(forms.get(wording(n)));
    Optional<Wording> sent = base.map(b -> AspectForms.wording(forms.get(sent(b))));
    return AspectForms.form(leftOut(version, sent));
  }

  private static List<Fingerprint> both(Node n, Base b) {
    return List.of(wording(n), sent(b));
  }

  private static boolean moved(Node n, Base b) {
    return mayStand(n) && !wording(n).equals(sent(b));
  }

  private static Fingerprint wording(Node n) {
    return n.aspects().get(Aspect.WORDING);
  }

  private static Fingerprint sent(Base b) {
    return b.sent().get(Aspect.WORDING);
  }
}
