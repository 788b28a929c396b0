package org.zephyrmist.core.cartridge;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.zephyrmist.core.cartridge.Manifest.Node;
import org.zephyrmist.core.cartridge.Manifest.Resource;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.KeySpace;

/** Which resource becomes which item, known before any text is read that refers to it. */
final class Targets {
  private final Manifest manifest;
  private final KeySpace keys;
  private final Findings findings;
  private final Map<String, ItemKey> firstItemOf = new HashMap<>();
  private final Map<String, ItemKey> pageItems;

  /**
   * @param pageItems filled with the item of each path
   */
  Targets(Manifest manifest, KeySpace keys, Findings findings, Map<String, ItemKey> pageItems) {
    this.manifest = manifest;
    this.keys = keys;
    this.findings = findings;
    this.pageItems = pageItems;
  }

  /** Which page or resource is which item, before any text is read that refers to it. */
  void find(List<Node> nodes) {
    for (Node n : nodes) {
      resource(n).ifPresent(r -> target(r, key(n)));
      find(n.children());
    }
  }

  /** The resource of an item; its variant where it cannot be read itself. */
  Optional<Resource> resource(Node n) {
    Optional<Resource> own = n.resource().map(manifest.resources()::get);
    Optional<Resource> variant = own.flatMap(Resource::variant).map(manifest.resources()::get);
    own.ifPresent(r -> firstItemOf.putIfAbsent(r.id(), key(n)));
    variant.ifPresent(r -> firstItemOf.putIfAbsent(r.id(), key(n)));
    if (variant.isEmpty() || variant.equals(own)) {
      return own;
    }
    if (own.get().readable() || !variant.get().readable()) {
      findings.adjusted(
          n.title(), "has a variant, which is kept; the main one of the two was taken");
      return own;
    }
    findings.adjusted(
        n.title(), "its main resource cannot be read here; its variant was taken in its place");
    return variant.map(v -> v.inPlaceOf(own.get()));
  }

  private void target(Resource r, ItemKey key) {
    firstItemOf.putIfAbsent(r.id(), key);
    r.path()
        .filter(h -> !Paths.isPage(h) || isItem(r))
        .ifPresent(h -> pageItems.putIfAbsent(h, key));
  }

  private static boolean isItem(Resource r) {
    return ResourceType.of(r.type()).isPresent();
  }

  ItemKey key(Node n) {
    return keys.key("item " + n.id());
  }

  /** Resources in no item of the outline that are content of their own, not files of a page. */
  List<Resource> unplaced() {
    List<Resource> all = new ArrayList<>();
    for (Resource r : manifest.resources().values()) {
      if (!firstItemOf.containsKey(r.id())) {
        Optional<ResourceType> type = ResourceType.of(r.type());
        boolean page =
            type.equals(Optional.of(ResourceType.WEB_CONTENT))
                && r.path().filter(Paths::isPage).isPresent();
        boolean content =
            type.isPresent()
                && type.get() != ResourceType.WEB_CONTENT
                && type.get() != ResourceType.ASSOCIATED_CONTENT;
        if (page || content) {
          all.add(r);
          target(r, keys.key("resource " + r.id()));
        } else if (type.isEmpty()) {
          findings.notUnderstood(r.id(), "resource of type " + r.type() + "; its files are kept");
        }
      }
    }
    return all;
  }
}
