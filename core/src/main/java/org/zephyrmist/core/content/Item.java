package org.zephyrmist.core.content;

/**
 * One piece of content.
 *
 * @param title as people see it, cleaned by {@link Titles}; never blank
 */
public record Item(
    ItemKey key,
    String title,
    Content content,
    Timing timing,
    Place place,
    Visibility visibility,
    EditRule rule) {
  public Item {
    title = Titles.clean(title);
    if (title.isEmpty()) {
      throw new IllegalArgumentException("An item has a title");
    }
  }

  public Kind kind() {
    return content.kind();
  }

  public Item withTitle(String to) {
    return new Item(key, to, content, timing, place, visibility, rule);
  }

  public Item withPlace(Place to) {
    return new Item(key, title, content, timing, to, visibility, rule);
  }
}
