package org.zephyrmist.core.cartridge;

import java.time.OffsetDateTime;
import java.util.List;
import java.util.Optional;
import org.zephyrmist.core.content.AppliesTo;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;

/**
 * A master with all its states, as it goes into our own archive (docs/formats.md).
 *
 * @param identity by which it is known where it came from
 * @param states versions, oldest first, and the draft last
 */
public record WholeSource(String identity, String code, String title, List<State> states) {
  public WholeSource {
    states = List.copyOf(states);
  }

  /**
   * A version, or the draft.
   *
   * @param number 0 for a draft
   * @param by name of who froze it
   */
  public record State(int number, String note, String by, OffsetDateTime at, List<Entry> items) {
    public State {
      items = List.copyOf(items);
    }
  }

  /**
   * An item of a state, its content by fingerprint.
   *
   * @param goesWith the same for items that go with each other
   */
  public record Entry(
      ItemKey key,
      Kind kind,
      EditRule rule,
      AppliesTo appliesTo,
      Optional<String> goesWith,
      Fingerprints aspects) {}
}
