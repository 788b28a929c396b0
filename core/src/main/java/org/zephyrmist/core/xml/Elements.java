package org.zephyrmist.core.xml;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.w3c.dom.Element;
import org.w3c.dom.Node;

/** Elements of a document by their local names. */
public final class Elements {
  private Elements() {}

  public static List<Element> children(Element e) {
    List<Element> all = new ArrayList<>();
    for (Node n = e.getFirstChild(); n != null; n = n.getNextSibling()) {
      if (n instanceof Element c) {
        all.add(c);
      }
    }
    return all;
  }

  public static List<Element> children(Element e, String name) {
    return children(e).stream().filter(c -> c.getLocalName().equals(name)).toList();
  }

  public static Optional<Element> child(Element e, String name) {
    return children(e, name).stream().findFirst();
  }

  /** Down a path of local names. */
  public static Optional<Element> at(Element e, String... path) {
    Optional<Element> here = Optional.of(e);
    for (String name : path) {
      here = here.flatMap(h -> child(h, name));
    }
    return here;
  }

  /** Text at a path, stripped; empty if there is none. */
  public static String text(Element e, String... path) {
    return at(e, path).map(x -> x.getTextContent().strip()).orElse("");
  }
}
