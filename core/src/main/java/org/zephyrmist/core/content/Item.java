package org.zephyrmist.core.content;

import java.util.List;

/**
 * One piece of content.
 *
 * @param title as people see it, cleaned by {@link Titles}; never blank
 * @param standards statements of a curriculum that it serves
 */
public record Item(
    ItemKey key,
    String title,
    Content content,
    Timing timing,
    Place place,
    Visibility visibility,
    EditRule rule,
    List<Wording.Standard> standards) {
  public Item {
    standards = List.copyOf(standards);
    title = Titles.clean(title);
    if (title.isEmpty()) {
      throw new IllegalArgumentException("An item has a title");
    }
  }

  /** Without any statement of a curriculum. */
  public Item(
      ItemKey key,
      String title,
      Content content,
      Timing timing,
      Place place,
      Visibility visibility,
      EditRule rule) {
    this(key, title, content, timing, place, visibility, rule, List.of());
  }

  public Kind kind() {
    return content.kind();
  }

  public Item withTitle(String to) {
    return new Item(key, to, content, timing, place, visibility, rule, standards);
  }

  public Item withPlace(Place to) {
    return new Item(key, title, content, timing, to, visibility, rule, standards);
  }
}
