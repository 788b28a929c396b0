package org.zephyrmist.core;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.zephyrmist.core.content.AppliesTo;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Rank;
import org.zephyrmist.core.content.Visibility;
import org.zephyrmist.core.delivery.Meant;
import org.zephyrmist.core.delivery.Parts;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;

/** Nodes and trees for tests. */
public final class Sample {
  private Sample() {}

  /** One form in every aspect. */
  public static Fingerprints all(String form) {
    return aspects(Map.of(), form);
  }

  /** These forms, and one in every other aspect. */
  public static Fingerprints aspects(Map<Aspect, String> forms, String others) {
    EnumMap<Aspect, Fingerprint> map = new EnumMap<>(Aspect.class);
    for (Aspect a : Aspect.values()) {
      map.put(a, Fingerprint.of(forms.getOrDefault(a, others)));
    }
    return Fingerprints.of(map);
  }

  public static Node node(
      ItemKey key,
      Kind kind,
      String title,
      EditRule rule,
      boolean instructorsOnly,
      Optional<ItemKey> parent,
      Fingerprints aspects) {
    return new Node(
        key,
        kind,
        title,
        parent,
        Rank.nth(0),
        rule,
        new Visibility(true, instructorsOnly),
        AppliesTo.EVERY_SECTION,
        aspects);
  }

  public static Node page(String key) {
    return in(null, key, Kind.PAGE);
  }

  /** A node in a module. */
  public static Node in(String parent, String key, Kind kind) {
    return node(
        new ItemKey(key),
        kind,
        key,
        EditRule.ADAPTABLE,
        false,
        Optional.ofNullable(parent).map(ItemKey::new),
        all(key));
  }

  /** A tree of nodes that follow each other as they are given. */
  public static Tree tree(List<Node> nodes) {
    List<Node> ranked = new ArrayList<>();
    for (Node n : nodes) {
      ranked.add(
          new Node(
              n.key(),
              n.kind(),
              n.title(),
              n.parent(),
              Rank.nth(ranked.size()),
              n.rule(),
              n.visibility(),
              n.appliesTo(),
              n.aspects()));
    }
    return Tree.of(ranked);
  }

  public static Tree tree(Node... nodes) {
    return tree(List.of(nodes));
  }

  /** All of these, for any section. */
  public static Meant meant(List<Node> nodes) {
    return new Meant(tree(nodes), Parts.EVERYTHING);
  }
}
