package org.zephyrmist.core.delivery;

import java.util.List;
import java.util.Optional;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Rank;
import org.zephyrmist.core.content.Titles;

/**
 * The place in each shell into which chosen items go, instead of where they stand in the version.
 *
 * @param module by its name; empty if it is found by its number
 * @param nth of the modules at the top, from 1; 0 if it is found by its name
 * @param neighbour by its title, for BEFORE and AFTER
 */
public record Into(String module, int nth, Side side, String neighbour) {
  private static final String AFTER_ANY = "i";

  /** Where in the module. */
  public enum Side {
    BEGINNING,
    END,
    BEFORE,
    AFTER
  }

  /** An item of a shell, in the shell's order. */
  public record Standing(
      String id, Kind kind, String title, Optional<String> parent, String rank) {}

  /**
   * A gap in a module of a shell.
   *
   * @param module the platform's id of it
   * @param low rank of what stands before the gap, high of what stands after it; empty at the ends
   */
  public record Gap(String module, String low, String high) {
    /** The gap behind an item that was put into this one, and the rank of that item. */
    public String next() {
      try {
        return Rank.between(low, high);
      } catch (IllegalArgumentException | StringIndexOutOfBoundsException odd) {
        return low + AFTER_ANY; // a platform may order by other texts
      }
    }

    public Gap behind(String rank) {
      return new Gap(module, rank, high);
    }
  }

  /**
   * Finds the place.
   *
   * @return none if the shell has no such module, or no such item in it
   */
  public Optional<Gap> in(List<Standing> shell) {
    return module(shell).flatMap(m -> gap(m, shell));
  }

  private Optional<Standing> module(List<Standing> shell) {
    List<Standing> modules = shell.stream().filter(s -> s.kind() == Kind.MODULE).toList();
    return nth > 0
        ? modules.stream().filter(m -> m.parent().isEmpty()).skip(nth - 1L).findFirst()
        : modules.stream().filter(m -> same(m.title(), module)).findFirst();
  }

  private static boolean same(String a, String b) {
    return Titles.folded(a).equals(Titles.folded(b));
  }

  private Optional<Gap> gap(Standing m, List<Standing> shell) {
    List<Standing> inside =
        shell.stream().filter(s -> s.parent().equals(Optional.of(m.id()))).toList();
    Optional<Integer> at =
        switch (side) {
          case BEGINNING -> Optional.of(0);
          case END -> Optional.of(inside.size());
          case BEFORE -> neighbour(inside);
          case AFTER -> neighbour(inside).map(n -> n + 1);
        };
    return at.map(
        n ->
            new Gap(
                m.id(),
                n == 0 ? "" : inside.get(n - 1).rank(),
                n == inside.size() ? "" : inside.get(n).rank()));
  }

  private Optional<Integer> neighbour(List<Standing> inside) {
    for (int i = 0; i < inside.size(); i++) {
      if (same(inside.get(i).title(), neighbour)) {
        return Optional.of(i);
      }
    }
    return Optional.empty();
  }
}
