package org.zephyrmist.standins.platform;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.TreeMap;

/** The grade book of a shell: columns in their categories, weighed, and a grade of its scale. */
final class Gradebook {
  private static final BigDecimal HUNDRED = BigDecimal.valueOf(100);
  private static final int PLACES = 1;

  /** A category with its columns; the weight is in percent. */
  record Category(String title, Optional<BigDecimal> weight, List<Wire.Item> columns) {}

  /**
   * A student's row.
   *
   * @param points by column
   * @param percent of what is graded so far, weighed; none if nothing is
   * @param grade of the scale; empty if the shell has none
   */
  record Row(
      String student, Map<String, BigDecimal> points, Optional<BigDecimal> percent, String grade) {}

  private final List<Category> categories = new ArrayList<>();
  private final TreeMap<BigDecimal, String> scale = new TreeMap<>();

  Gradebook(List<Wire.Item> items) {
    Map<String, List<Wire.Item>> in = new LinkedHashMap<>();
    items.stream()
        .filter(i -> i.kind().equals("GRADE_CATEGORY"))
        .forEach(c -> in.put(c.id(), new ArrayList<>()));
    List<Wire.Item> others = new ArrayList<>();
    items.stream()
        .filter(i -> i.points().isPresent())
        .sorted(Comparator.comparing(Wire.Item::rank))
        .forEach(
            i -> in.getOrDefault(Objects.toString(i.grading().get("category"), ""), others).add(i));
    items.stream()
        .filter(i -> in.containsKey(i.id()))
        .forEach(
            c -> {
              Optional<BigDecimal> weight =
                  Optional.ofNullable(c.grading().get("weight"))
                      .map(w -> new BigDecimal(w.toString()));
              categories.add(new Category(c.wording().title(), weight, in.get(c.id())));
            });
    if (!others.isEmpty() || categories.isEmpty()) {
      categories.add(new Category("No category", Optional.empty(), others));
    }
    items.stream()
        .filter(i -> i.sets("GRADE_SCALE"))
        .findFirst()
        .ifPresent(
            s ->
                s.entries()
                    .forEach(
                        e ->
                            scale.put(
                                new BigDecimal(e.get("value").toString()),
                                e.get("label").toString())));
  }

  public List<Category> categories() {
    return categories;
  }

  /** Whether weights are there and do not add up to 100 percent. */
  public boolean uneven() {
    BigDecimal all =
        categories.stream()
            .flatMap(c -> c.weight().stream())
            .reduce(BigDecimal.ZERO, BigDecimal::add);
    return all.signum() > 0 && all.compareTo(HUNDRED) != 0;
  }

  /**
   * @param points by column
   */
  Row row(String student, Map<String, BigDecimal> points) {
    boolean weighed = categories.stream().anyMatch(c -> c.weight().isPresent());
    BigDecimal got = BigDecimal.ZERO;
    BigDecimal of = BigDecimal.ZERO;
    for (Category c : categories) {
      BigDecimal mine = BigDecimal.ZERO;
      BigDecimal possible = BigDecimal.ZERO;
      for (Wire.Item i : c.columns()) {
        BigDecimal p = points.get(i.id());
        if (p != null) {
          mine = mine.add(p);
          possible = possible.add(i.points().orElseThrow());
        }
      }
      BigDecimal weight = weighed ? c.weight().orElse(BigDecimal.ZERO) : possible;
      if (possible.signum() > 0 && weight.signum() > 0) {
        got = got.add(weight.multiply(mine).divide(possible, 10, RoundingMode.HALF_UP));
        of = of.add(weight);
      }
    }
    Optional<BigDecimal> percent =
        of.signum() == 0
            ? Optional.empty()
            : Optional.of(got.multiply(HUNDRED).divide(of, PLACES, RoundingMode.HALF_UP));
    String grade = percent.map(scale::floorEntry).map(Map.Entry::getValue).orElse("");
    return new Row(student, points, percent, grade);
  }
}
