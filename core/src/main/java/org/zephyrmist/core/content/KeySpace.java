package org.zephyrmist.core.content;

import java.util.Optional;

/**
 * Keeps the keys of one source apart from those of every other: packages of different publishers
 * often name their items alike.
 *
 * @param source identity of the source, the same for all its editions; none for cartridges taken in
 *     before keys had it, so that their items keep the keys they have
 */
public record KeySpace(Optional<String> source) {
  public static final KeySpace WITHOUT_SOURCE = new KeySpace(Optional.empty());

  public static KeySpace of(String source) {
    return new KeySpace(Optional.of(source));
  }

  /** The key that this name always has in this source, and in no other. */
  public ItemKey key(String name) {
    return ItemKey.named(source.map(s -> s + "\n" + name).orElse(name));
  }
}
