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
 * A master or a cartridge with all its states, as it goes into our own archive (docs/formats.md).
 *
 * @param identity by which the source is known wherever it goes
 * @param code of a master; empty for a cartridge
 * @param publisher of a cartridge; empty for a master
 * @param states oldest first; of a master the draft last
 */
public record WholeSource(
    Sort sort, String identity, String code, String title, String publisher, List<State> states) {
  public WholeSource {
    states = List.copyOf(states);
  }

  /** What it is. */
  public enum Sort {
    MASTER,
    CARTRIDGE
  }

  /**
   * A version, a draft or an edition.
   *
   * @param number 0 for a draft
   * @param note of a version; of an edition the name of its file
   * @param by name of who froze it or took it in
   * @param report of an edition, as JSON; empty otherwise
   */
  public record State(
      int number, String note, String by, OffsetDateTime at, String report, List<Entry> items) {
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
