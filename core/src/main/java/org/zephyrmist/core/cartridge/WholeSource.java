package org.zephyrmist.core.cartridge;

import java.time.OffsetDateTime;
import java.util.List;
import java.util.Optional;
import java.util.SortedMap;
import org.zephyrmist.core.content.AppliesTo;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Titles;

/**
 * A master with all its versions, or a cartridge with all its editions, as it goes into our own
 * archive (docs/formats.md).
 *
 * @param identity by which it is known where it came from
 * @param code of a master
 * @param maker of a cartridge: what its maker calls it; none for a master
 * @param states versions, oldest first, and the draft last; or editions, oldest first
 */
public record WholeSource(
    String identity, String code, String title, Optional<Maker> maker, List<State> states) {
  public WholeSource {
    states = List.copyOf(states);
  }

  /**
   * Who made a cartridge, and what they call it; what is not known is empty.
   *
   * @param oldKeys whether its items have keys from before keys named their source
   */
  public record Maker(String identifier, String publisher, boolean oldKeys) {
    public Maker {
      identifier = Titles.clean(identifier == null ? "" : identifier);
      publisher = Titles.clean(publisher == null ? "" : publisher);
    }
  }

  /**
   * A version, the draft, or an edition.
   *
   * @param number 0 for a draft
   * @param by name of who froze it or took it in
   * @param from the package that an edition was read from
   */
  public record State(
      int number,
      String note,
      String by,
      OffsetDateTime at,
      Optional<Package> from,
      List<Entry> items) {
    public State {
      items = List.copyOf(items);
    }

    State with(List<Entry> all) {
      return new State(number, note, by, at, from, all);
    }

    /** A version, or the draft. */
    public State(int number, String note, String by, OffsetDateTime at, List<Entry> items) {
      this(number, note, by, at, Optional.empty(), items);
    }
  }

  /**
   * A package that was taken in.
   *
   * @param sha256 of the package itself
   * @param report what its reading found
   * @param files fingerprints of all its files, by their paths in it
   */
  public record Package(
      String fileName,
      String sha256,
      long size,
      ReadingReport report,
      SortedMap<String, String> files) {}

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
