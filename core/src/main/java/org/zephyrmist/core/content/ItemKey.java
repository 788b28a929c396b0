package org.zephyrmist.core.content;

import java.nio.charset.StandardCharsets;
import java.util.Optional;
import java.util.UUID;
import java.util.regex.Pattern;

/**
 * The lasting identity of an item, through versions, editions and sections.
 *
 * @param value 1 to 80 letters, digits, dots, underscores and hyphens
 */
public record ItemKey(String value) implements Comparable<ItemKey> {
  private static final Pattern FORM = Pattern.compile("[A-Za-z0-9._-]{1,80}");

  public ItemKey {
    if (!FORM.matcher(value).matches()) {
      throw new IllegalArgumentException("Not an item key: " + value);
    }
  }

  /** The key with this value; none if it is no key. */
  public static Optional<ItemKey> of(String value) {
    return FORM.matcher(value).matches() ? Optional.of(new ItemKey(value)) : Optional.empty();
  }

  /** A new key that no other item has. */
  public static ItemKey fresh() {
    return new ItemKey(UUID.randomUUID().toString());
  }

  /** The key that always belongs to this name, whatever characters the name has. */
  public static ItemKey named(String name) {
    return new ItemKey(UUID.nameUUIDFromBytes(name.getBytes(StandardCharsets.UTF_8)).toString());
  }

  @Override
  public int compareTo(ItemKey other) {
    return value.compareTo(other.value);
  }

  @Override
  public String toString() {
    return value;
  }
}
