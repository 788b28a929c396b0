package org.zephyrmist.standins.platform;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Stream;

/** What a student sees of a shell on a day: hidden items not at all, others closed or open. */
final class AsStudent {
  private static final BigDecimal HUNDRED = BigDecimal.valueOf(100);
  private final Map<String, Wire.Item> byId = new HashMap<>();
  private final LocalDate day;
  private final Deeds deeds;

  /**
   * What one student has done, by items.
   *
   * @param grades points
   */
  record Deeds(Set<String> opened, Set<String> handedIn, Map<String, BigDecimal> grades) {}

  /**
   * An item in the outline.
   *
   * @param closed why it cannot be opened; empty if it can
   */
  record Line(Wire.Item item, int depth, List<String> closed) {}

  AsStudent(List<Wire.Item> items, LocalDate day, Deeds deeds) {
    items.forEach(i -> byId.put(i.id(), i));
    this.day = day;
    this.deeds = deeds;
  }

  /** The outline of all items, as the instructor sees it. */
  static List<Line> all(List<Wire.Item> items) {
    List<Line> lines = new ArrayList<>();
    outline(items, null, 0, lines);
    return lines;
  }

  private static void outline(List<Wire.Item> items, String parent, int depth, List<Line> lines) {
    items.stream()
        .filter(i -> Objects.equals(i.parent(), parent))
        .sorted(Comparator.comparing(Wire.Item::rank).thenComparing(Wire.Item::id))
        .forEach(
            i -> {
              lines.add(new Line(i, depth, List.of()));
              outline(items, i.id(), depth + 1, lines);
            });
  }

  /** The outline of what is shown; what stands in a closed module is closed too. */
  List<Line> see(List<Line> all) {
    return all.stream()
        .filter(l -> shown(l.item()))
        .map(l -> new Line(l.item(), l.depth(), closed(l.item())))
        .toList();
  }

  private boolean shown(Wire.Item i) {
    return i.forStudents() && (i.parent() == null || shown(byId.get(i.parent())));
  }

  private List<String> closed(Wire.Item i) {
    List<String> why = new ArrayList<>();
    if (i.parent() != null) {
      why.addAll(closed(byId.get(i.parent())));
    }
    time(i, "opens").filter(day::isBefore).forEach(d -> why.add("opens on " + d));
    time(i, "closes").filter(day::isAfter).forEach(d -> why.add("closed on " + d));
    if (i.visibility().conditions() != null) {
      i.visibility().conditions().stream()
          .filter(c -> !met(c))
          .forEach(c -> why.add("opens " + words(c)));
    }
    return why;
  }

  private static Stream<LocalDate> time(Wire.Item i, String which) {
    return Stream.ofNullable(i.timing().get(which))
        .map(t -> LocalDateTime.parse(t.toString()).toLocalDate());
  }

  private boolean met(Map<String, Object> c) {
    String of = Objects.toString(c.get("item"), "");
    return switch (Objects.toString(c.get("what"), "")) {
      case "READ" -> deeds.opened().contains(of);
      case "HANDED_IN" -> deeds.handedIn().contains(of);
      case "SCORE" -> scored(of, new BigDecimal(c.get("percent").toString()));
      case "DAY" -> !day.isBefore(LocalDateTime.parse(c.get("from").toString()).toLocalDate());
      default -> false;
    };
  }

  private boolean scored(String item, BigDecimal percent) {
    BigDecimal got = deeds.grades().get(item);
    Wire.Item of = byId.get(item);
    return got != null
        && of != null
        && of.points()
            .filter(p -> got.multiply(HUNDRED).compareTo(percent.multiply(p)) >= 0)
            .isPresent();
  }

  private String words(Map<String, Object> c) {
    Wire.Item of = byId.get(Objects.toString(c.get("item"), ""));
    String title = of == null ? "something that is not here" : "“" + of.wording().title() + "”";
    return switch (Objects.toString(c.get("what"), "")) {
      case "READ" -> "after reading " + title;
      case "HANDED_IN" -> "after work was handed in on " + title;
      case "SCORE" -> "with " + c.get("percent") + " percent in " + title;
      case "DAY" -> "on " + LocalDateTime.parse(c.get("from").toString()).toLocalDate();
      default -> "never";
    };
  }
}
