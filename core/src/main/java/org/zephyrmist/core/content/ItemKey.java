package org.zephyrmist.core.content;

import java.nio.charset.StandardCharsets;
import java.util.Optional;
import java.util.UUID;

/**
 * The lasting identity of an item, through versions, editions and sections.
 *
 * @param value 1 to 80 letters, digits, dots, underscores and hyphens
 */
public record ItemKey(String value) implements Comparable<ItemKey> {
  private static final int LONGEST = 80;

  public ItemKey {
    if (!isOne(value)) {
      throw new IllegalArgumentException("Not an item key: " + value);
    }
  }

  /** Keys are made by the hundred thousand, so no pattern is matched. */
  private static boolean isOne(String value) {
    for (int i = 0; i < value.length(); i++) {
      char c = value.charAt(i);
      boolean letter = c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z';
      if (!letter && !(c >= '0' && c <= '9') && c != '-' && c != '.' && c != '_') {
        return false;
      }
    }
    return !value.isEmpty() && value.length() <= LONGEST;
  }

  /** The key with this value; none if it is no key. */
  public static Optional<ItemKey> of(String value) {
    return isOne(value) ? Optional.of(new ItemKey(value)) : Optional.empty();
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
