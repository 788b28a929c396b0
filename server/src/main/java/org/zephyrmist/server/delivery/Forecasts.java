package org.zephyrmist.server.delivery;

import jakarta.validation.constraints.NotNull;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.Base;
import org.zephyrmist.core.delivery.Becoming;
import org.zephyrmist.core.delivery.Choices;
import org.zephyrmist.core.delivery.Forecast;
import org.zephyrmist.core.delivery.InSection;
import org.zephyrmist.core.delivery.Needs;
import org.zephyrmist.core.delivery.PartsChoice;
import org.zephyrmist.core.delivery.StepKind;
import org.zephyrmist.core.delivery.WeekPlaces;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;
import org.zephyrmist.server.calendar.Dating;
import org.zephyrmist.server.ledger.Alike;
import org.zephyrmist.server.ledger.Standings;
import org.zephyrmist.server.line.AttachmentsLeftOut;
import org.zephyrmist.server.line.MergedTexts;
import org.zephyrmist.server.master.VersionNeeds;
import org.zephyrmist.server.master.Versions;
import org.zephyrmist.server.tool.Relinking;

/** What a delivery would do, told while its choices are made. */
@Component
class Forecasts {
  private final Versions versions;
  private final VersionNeeds needs;
  private final AttachmentsLeftOut attachments;
  private final Alike alike;
  private final Standings standings;
  private final Targets targets;
  private final Relinking relinking;
  private final Dating dating;
  private final MergedTexts merged;

  Forecasts(
      Versions versions,
      VersionNeeds needs,
      Alike alike,
      Standings standings,
      Targets targets,
      AttachmentsLeftOut attachments,
      Relinking relinking,
      Dating dating,
      MergedTexts merged) {
    this.merged = merged;
    this.dating = dating;
    this.relinking = relinking;
    this.attachments = attachments;
    this.versions = versions;
    this.needs = needs;
    this.alike = alike;
    this.standings = standings;
    this.targets = targets;
  }

  /** What needs an item. */
  record NeededBy(@NotNull String key, @NotNull String title, @NotNull Needs.Why why) {}

  /**
   * An item, in outline order; those no longer meant for sections that have them stand at the end.
   *
   * @param chosen in so many sections
   * @param along in so many sections it comes along
   * @param missed what is brought and needs it, though it is left out
   * @param sections in which anything would be written or decided
   */
  record ForecastRow(
      @NotNull String key,
      @NotNull Kind kind,
      @NotNull String title,
      String parent,
      @NotNull EditRule rule,
      boolean inVersion,
      boolean forNobody,
      int chosen,
      int along,
      NeededBy because,
      boolean leftOut,
      NeededBy missed,
      int sections,
      @NotNull Map<StepKind, Integer> steps) {}

  /**
   * @param totals of steps, without modules
   * @param items brought to any section, without modules
   * @param stand sections by the version they hold, 0 where it never arrived
   * @param newest number of the newest version
   * @param weeks modules that are weeks and new to some section
   * @param attaching items of the version to which files are attached
   * @param unfit sections that are perhaps not meant
   */
  record DeliveryForecast(
      @NotNull List<ForecastRow> rows,
      @NotNull Map<StepKind, Integer> totals,
      int items,
      @NotNull Map<Integer, Integer> stand,
      int partial,
      int newest,
      int students,
      int weeks,
      int attaching,
      @NotNull Targets.Unfits unfit) {}

  /**
   * @param sections within reach of who asks
   */
  DeliveryForecast of(UUID version, List<UUID> sections, PartsChoice parts, Choices choices) {
    Versions.Version v = versions.get(version);
    List<Targets.Target> to = targets.of(sections);
    List<UUID> ids = to.stream().map(Targets.Target::id).toList();
    Forecast.Sections holding =
        new Forecast.Sections(
            to.stream().map(Targets.Target::facts).toList(),
            linked(v, ids)
                .with(Set.of(Aspect.TIMING), dating.becoming(v.id(), v.master(), v.tree(), ids))
                .asSaid(v.tree(), holds(v, ids, parts)));
    Forecast f =
        Forecast.of(
            v.tree(), needs.of(v), parts, choices, holding, merged.of(holding.merges(v.tree())));
    Standings.Stand stand = standings.stand(v.master(), ids);
    return new DeliveryForecast(
        f.items().stream().map(i -> row(v.tree(), i)).toList(),
        f.totals(),
        (int) f.items().stream().filter(Forecasts::brought).count(),
        stand.versions(),
        stand.partial(),
        stand.newest(),
        to.stream().mapToInt(Targets.Target::students).sum(),
        newWeeks(v.tree(), f),
        needs.attaching(v),
        targets.unfits(v.master(), to));
  }

  /** Texts with values are told by the version they came from, links in them by the plan alone. */
  private Becoming linked(Versions.Version v, List<UUID> sections) {
    Set<ItemKey> marked = v.marked().stream().map(Item::key).collect(Collectors.toSet());
    Becoming all = relinking.becoming(v.id(), v.master(), v.tree(), sections);
    return (item, section) ->
        marked.contains(item.key())
            ? all.of(item, section).with(Set.of(Aspect.WORDING), item.aspects())
            : all.of(item, section);
  }

  private static int newWeeks(Tree version, Forecast f) {
    Set<ItemKey> weeks =
        WeekPlaces.weeks(version).stream().map(WeekPlaces.Week::module).collect(Collectors.toSet());
    return (int)
        f.items().stream()
            .filter(i -> weeks.contains(i.key()) && i.steps().getOrDefault(StepKind.ADD, 0) > 0)
            .count();
  }

  private static boolean brought(Forecast.OfItem i) {
    return i.meant() && i.kind() != Kind.MODULE && i.chosen() + i.along() > 0;
  }

  /**
   * Of texts with values each section got its own; whether the master moved is told by the version
   * it got them from. Notes to instructors follow their items and are not told apart.
   */
  private List<Forecast.Holds> holds(Versions.Version v, List<UUID> sections, PartsChoice parts) {
    List<Forecast.Holds> all = holds(v, sections);
    return parts.attachments() ? all : attachments.of(v.tree(), all);
  }

  private List<Forecast.Holds> holds(Versions.Version v, List<UUID> sections) {
    Set<ItemKey> marked = v.marked().stream().map(Item::key).collect(Collectors.toSet());
    Set<ItemKey> notes = marked.stream().map(InSection::noteOf).collect(Collectors.toSet());
    List<Forecast.Holds> all = new ArrayList<>();
    for (Alike.Group g : alike.of(sections, v.master(), marked)) {
      if (!notes.contains(g.holds().base().key())) {
        all.add(g.version().map(from -> filledIn(v, from, g.holds())).orElse(g.holds()));
      }
    }
    return all;
  }

  private Forecast.Holds filledIn(Versions.Version v, UUID from, Forecast.Holds h) {
    Base b = h.base();
    Optional<Fingerprint> then = wording(versions.get(from).tree(), b.key());
    Optional<Fingerprint> now = wording(v.tree(), b.key());
    if (now.isEmpty() || !now.equals(then)) {
      return h;
    }
    Base same = b.saying(Aspect.WORDING, now.get());
    return new Forecast.Holds(same, h.here(), (BitSet) h.sections().clone());
  }

  private static Optional<Fingerprint> wording(Tree tree, ItemKey key) {
    return tree.get(key).map(n -> n.aspects().get(Aspect.WORDING));
  }

  private static ForecastRow row(Tree version, Forecast.OfItem i) {
    Optional<Node> n = version.get(i.key()).filter(x -> i.meant());
    int sections =
        i.steps().entrySet().stream()
            .filter(e -> e.getKey() != StepKind.SAME && e.getKey() != StepKind.KEEP)
            .mapToInt(Map.Entry::getValue)
            .sum();
    return new ForecastRow(
        i.key().value(),
        i.kind(),
        i.title(),
        n.flatMap(Node::parent).map(ItemKey::value).orElse(null),
        n.map(Node::rule).orElse(EditRule.ADAPTABLE),
        i.meant(),
        n.map(x -> x.appliesTo().nobody()).orElse(false),
        i.chosen(),
        i.along(),
        i.because().map(b -> by(version, b)).orElse(null),
        i.leftOut(),
        i.missed().map(b -> by(version, b)).orElse(null),
        sections,
        i.steps());
  }

  private static NeededBy by(Tree version, Needs.Because b) {
    return new NeededBy(
        b.by().value(), version.get(b.by()).map(Node::title).orElse(b.by().value()), b.why());
  }
}
