package org.zephyrmist.core.cartridge;

import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import org.w3c.dom.Element;
import org.zephyrmist.core.content.Wording;

/**
 * The manifest of a package (IMS Content Packaging 1.2 as profiled by Common Cartridge).
 *
 * @param outline items at the top of the organization
 * @param resources by identifier, in their order
 * @param doubled identifiers that more than one item has
 * @param missing addresses of files that the manifest names and the archive has not
 * @param root folder of the manifest in the archive, with its slash; empty at the top
 */
record Manifest(
    CartridgeFacts facts,
    List<Node> outline,
    Map<String, Resource> resources,
    List<String> doubled,
    List<String> missing,
    String root) {

  /**
   * An item of the organization.
   *
   * @param id its identifier; made unique where the manifest gives one twice or none
   * @param title may be empty
   * @param visible whether it says that it is to be seen (Content Packaging 1.2, isvisible)
   */
  record Node(
      String id, String title, Optional<String> resource, List<Node> children, boolean visible) {}

  /**
   * A resource.
   *
   * @param path of its main file in the archive; empty if it has none or it is missing
   * @param files paths of its other files
   * @param address of its main file as the manifest names it; may be empty
   * @param inline its XML, where the manifest holds it itself
   * @param variant the resource that may be used instead (Common Cartridge 1.3, "Variants")
   * @param dependencies identifiers of resources that it needs
   * @param instructorsOnly its metadata names no learner among the intended roles
   * @param restricted it is protected: to be used only by those whom its maker authorises
   * @param standards statements of a curriculum that it serves
   */
  record Resource(
      String id,
      String type,
      Optional<String> path,
      List<String> files,
      String address,
      Optional<Element> inline,
      Optional<String> variant,
      List<String> dependencies,
      boolean instructorsOnly,
      boolean restricted,
      List<Wording.Standard> standards) {
    /** Used in place of another, whose audience and restriction count as well. */
    Resource inPlaceOf(Resource main) {
      return new Resource(
          id,
          type,
          path,
          files,
          address,
          inline,
          variant,
          dependencies,
          instructorsOnly || main.instructorsOnly,
          restricted || main.restricted,
          standards.isEmpty() ? main.standards : standards);
    }

    /** Whether it is of a type that we read and its contents are there. */
    boolean readable() {
      return ResourceType.of(type).isPresent() && (path.isPresent() || inline.isPresent());
    }
  }

  /** Files that belong to resources without learners, and to no other. */
  Set<String> instructorsFiles() {
    Set<String> all = new HashSet<>();
    each(true, all::add);
    if (!all.isEmpty()) {
      each(false, all::remove);
    }
    return all;
  }

  private void each(boolean instructorsOnly, Consumer<String> file) {
    for (Resource r : resources.values()) {
      if (r.instructorsOnly() == instructorsOnly) {
        r.path().ifPresent(file);
        r.files().forEach(file);
      }
    }
  }
}
