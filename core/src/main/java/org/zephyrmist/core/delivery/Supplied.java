package org.zephyrmist.core.delivery;

import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.tree.Likeness;
import org.zephyrmist.core.tree.Node;

/**
 * What other masters, which stand before this one, have in a shell or are about to bring there: it
 * is not brought a second time. The frame's help page stays the only one, though an older course
 * copy brings one too; an outcomes piece that is there is recognised.
 */
public final class Supplied {
  public static final Supplied NOTHING = new Supplied(List.of(), List.of(), Set.of());

  private static final String COMING = "coming:";

  /** Of these a shell has one of a name; of others the same title may be two things. */
  private static final Set<Kind> ONE_OF_A_NAME =
      EnumSet.of(
          Kind.SETUP,
          Kind.OUTCOME,
          Kind.RUBRIC,
          Kind.GRADE_CATEGORY,
          Kind.GROUP_SET,
          Kind.WEB_LINK,
          Kind.TOOL_LINK);

  private final Likeness<Held> before;
  private final Likeness<Held> after;
  private final Set<String> theirs;

  private Supplied(List<Held> before, List<Held> after, Set<String> theirs) {
    this.before = likeness(before);
    this.after = likeness(after);
    this.theirs = Set.copyOf(theirs);
  }

  private static Likeness<Held> likeness(List<Held> items) {
    return new Likeness<>(items.stream().filter(h -> h.kind() != Kind.MODULE).toList());
  }

  /**
   * @param before items of masters that stand before; modules are passed over, since what stands in
   *     them differs
   * @param after items of the other masters that are there: only what says the same to the letter
   *     is not brought again
   * @param theirs the platform's ids of all items that any other master has there
   */
  public static Supplied by(List<Held> before, List<Held> after, Set<String> theirs) {
    return new Supplied(before, after, theirs);
  }

  /** Whether another master has the item too, so that it stays whatever becomes of this one. */
  boolean isTheirs(String id) {
    return theirs.contains(id);
  }

  /** An item that a plan of another master adds, as it will stand in the shell. */
  public static Held coming(Step add) {
    return new Held(
        COMING + add.key().value(),
        add.itemKind(),
        add.title(),
        Optional.empty(),
        add.sides().becomes().orElseThrow(),
        false,
        false);
  }

  /** The platform's id of an item; none of one that is still to come. */
  static Optional<String> id(Held h) {
    return id(h.id());
  }

  /**
   * @param sure false: a person is asked
   */
  record Match(Held there, boolean sure) {}

  Optional<Match> of(Node m) {
    return m.kind() == Kind.MODULE
        ? Optional.empty()
        : before
            .find(m)
            .map(h -> new Match(h, ONE_OF_A_NAME.contains(m.kind()) || m.saysTheSame(h)))
            .or(() -> after.find(m).filter(m::saysTheSame).map(h -> new Match(h, true)));
  }

  /**
   * Where references to items of this master lead that another master's stand for.
   *
   * @return the platform's id by item, for those that are there
   */
  public Map<ItemKey, String> standIns(Iterable<Node> nodes) {
    Map<ItemKey, String> all = new HashMap<>();
    namesOf(nodes).forEach((key, name) -> id(name).ifPresent(id -> all.put(key, id)));
    return all;
  }

  /** The same for those that are still to come too, by a name that says which they are. */
  public Map<ItemKey, String> namesOf(Iterable<Node> nodes) {
    Map<ItemKey, String> all = new HashMap<>();
    for (Node n : nodes) {
      of(n).filter(Match::sure).ifPresent(x -> all.put(n.key(), x.there().id()));
    }
    return all;
  }

  private static Optional<String> id(String name) {
    return Optional.of(name).filter(id -> !id.startsWith(COMING));
  }
}
