package org.zephyrmist.core.shell;

import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.zephyrmist.core.content.Condition;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.Visibility;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.core.edit.Given;
import org.zephyrmist.core.edit.ShellNames;

/**
 * What students see of a shell at a time: what is hidden not at all, the rest open or closed, and
 * why. What stands in something hidden is hidden; in something closed, closed.
 */
public final class SeenOn {
  private static final DateTimeFormatter DAY =
      DateTimeFormatter.ofPattern("EEEE d MMMM, HH:mm", Locale.UK);

  private final Map<String, Item> byId = new LinkedHashMap<>();
  private final ShellNames names;
  private final LocalDateTime at;
  private final boolean diligent;

  /** An item with what counts here. */
  public record Item(Held held, Timing timing, Visibility visibility, List<Given> given) {}

  /**
   * A line of the outline.
   *
   * @param closed why it cannot be opened, each a part of a sentence; empty if it can
   */
  public record Line(String id, Kind kind, String title, int depth, List<String> closed) {}

  private SeenOn(List<Item> items, LocalDateTime at, boolean diligent) {
    Map<String, List<Given>> given = new HashMap<>();
    items.forEach(
        i -> {
          byId.put(i.held().id(), i);
          given.put(i.held().id(), i.given());
        });
    this.names = new ShellNames(given);
    this.at = at;
    this.diligent = diligent;
  }

  /**
   * @param items in the order of the platform
   * @param diligent a student who has done all that anything waits for; else one who has done
   *     nothing
   */
  public static List<Line> of(List<Item> items, LocalDateTime at, boolean diligent) {
    SeenOn s = new SeenOn(items, at, diligent);
    Map<Optional<String>, List<Item>> below = new HashMap<>();
    items.forEach(
        i ->
            below
                .computeIfAbsent(
                    i.held().parent().filter(s.byId::containsKey), k -> new ArrayList<>())
                .add(i));
    List<Line> lines = new ArrayList<>();
    s.walk(below, Optional.empty(), 0, List.of(), lines);
    return lines;
  }

  private void walk(
      Map<Optional<String>, List<Item>> below,
      Optional<String> in,
      int depth,
      List<String> above,
      List<Line> lines) {
    for (Item i : below.getOrDefault(in, List.of())) {
      if (!seen(i)) {
        continue;
      }
      List<String> closed = new ArrayList<>(above);
      closed.addAll(closed(i));
      Held h = i.held();
      lines.add(new Line(h.id(), h.kind(), h.title(), depth, List.copyOf(closed)));
      walk(below, Optional.of(h.id()), depth + 1, closed, lines);
    }
  }

  /** What stands behind the scenes is no item to a student. */
  private static boolean seen(Item i) {
    boolean behind =
        switch (i.held().kind()) {
          case QUESTION_BANK, RUBRIC, OUTCOME, GRADE_CATEGORY, GROUP_SET, SETUP -> true;
          default -> false;
        };
    return !behind && i.visibility().shown() && !i.visibility().instructorsOnly();
  }

  private List<String> closed(Item i) {
    List<String> why = new ArrayList<>();
    i.timing().opens().filter(at::isBefore).ifPresent(d -> why.add("opens " + DAY.format(d)));
    i.timing().closes().filter(at::isAfter).ifPresent(d -> why.add("closed " + DAY.format(d)));
    i.visibility().conditions().forEach(c -> waits(i, c).ifPresent(why::add));
    return why;
  }

  private Optional<String> waits(Item i, Condition c) {
    if (c.what() == Condition.What.DAY) {
      return c.from().filter(at::isBefore).map(d -> "opens " + DAY.format(d));
    }
    Optional<Item> other = c.item().flatMap(n -> names.id(i.given(), n)).map(byId::get);
    if (other.isEmpty()) {
      return Optional.of("waits for something that is not here");
    }
    if (diligent) {
      return Optional.empty();
    }
    String title = "“" + other.get().held().title() + "”";
    return Optional.of(
        switch (c.what()) {
          case READ -> "opens after " + title + " was opened";
          case HANDED_IN -> "opens after work was handed in on " + title;
          case SCORE ->
              "opens with " + c.percent().orElseThrow().toPlainString() + " percent in " + title;
          case DAY -> throw new IllegalStateException();
        });
  }
}
