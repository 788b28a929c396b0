package org.zephyrmist.core.check;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.zephyrmist.core.check.CheckedShell.Item;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.content.SetupSubject;
import org.zephyrmist.core.edit.Subject;

/** With which page a shell opens, and where its menu leads. */
final class FrontAndMenu {
  private FrontAndMenu() {}

  static void look(ShellChecks.Round r) {
    List<Item> fronts =
        r.shell.items().stream().filter(i -> sets(i, SetupSubject.FRONT_PAGE)).toList();
    if (fronts.size() > 1) {
      String which =
          fronts.stream().map(f -> "“" + f.held().title() + "”").collect(Collectors.joining(", "));
      r.add(Check.TWO_FRONT_PAGES, Subject.SHELL, "", which);
    }
    if (fronts.isEmpty() && !r.shell.items().isEmpty()) {
      r.add(Check.NO_FRONT_PAGE, Subject.SHELL, "", "");
    }
    for (Item i : r.shell.items()) {
      if (sets(i, SetupSubject.FRONT_PAGE) || sets(i, SetupSubject.MENU)) {
        String dead =
            i.wording().entries().stream()
                .filter(e -> nowhere(r, i, e.value()))
                .map(Content.Entry::label)
                .collect(Collectors.joining(", "));
        if (!dead.isEmpty()) {
          r.add(Check.DEAD_ENTRY, i, dead);
        }
      }
    }
  }

  private static boolean sets(Item i, SetupSubject what) {
    return i.wording().subject().equals(Optional.of(what));
  }

  /** Whether an address means an item that is not here, or nothing at all. */
  static boolean nowhere(ShellChecks.Round r, Item from, String address) {
    return address.equals(References.NOWHERE)
        || References.asItem(address).filter(x -> !r.here(from, x.key().value())).isPresent()
        || r.shell.idOf().apply(address).filter(id -> !r.byId.containsKey(id)).isPresent();
  }
}
