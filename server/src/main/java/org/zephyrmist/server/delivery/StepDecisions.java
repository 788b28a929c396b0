package org.zephyrmist.server.delivery;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.core.delivery.Decisions;
import org.zephyrmist.core.delivery.Decisions.Take;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.core.delivery.StepKind;
import org.zephyrmist.core.merge.Runs;
import org.zephyrmist.core.merge.TextMerge;
import org.zephyrmist.server.content.Bodies;
import org.zephyrmist.server.db.tables.records.DeliveryRecord;
import org.zephyrmist.server.line.Decided;
import org.zephyrmist.server.line.PlannedSteps;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** Clashes and twins of a plan, decided one by one, or for all that are alike. */
@Component
class StepDecisions {
  private final Replans replans;
  private final PlannedSteps steps;
  private final Decided decided;
  private final Bodies bodies;

  StepDecisions(Replans replans, PlannedSteps steps, Decided decided, Bodies bodies) {
    this.replans = replans;
    this.steps = steps;
    this.decided = decided;
    this.bodies = bodies;
  }

  /**
   * What is decided of a step, and of how many it could be decided at once.
   *
   * @param alike sections in which the same stands against the same, this one too
   * @param all sections in which the item clashes or has a twin
   * @param take what was decided; none if the delivery's choice counts
   * @param merge what both texts become together; none where they cannot be merged
   */
  record Open(int alike, int all, Optional<Take> take, Optional<Merged> merge) {}

  /**
   * Texts merged.
   *
   * @param html the result, or what was decided before
   * @param clean whether nothing in it is both sides' at once
   */
  record Merged(List<Runs.Run> runs, String html, boolean clean) {}

  Optional<Open> open(UUID delivery, UUID line, ItemKey key) {
    Map<UUID, Step> all = steps.ofItem(delivery, key);
    Step s = all.get(line);
    Optional<Fingerprint> alike = Optional.ofNullable(s).flatMap(Step::alike);
    if (alike.isEmpty()) {
      return Optional.empty();
    }
    Decisions made = decided.of(delivery);
    Optional<Decisions.Decision> now =
        Optional.ofNullable(made.made().get(new Decisions.About(key, alike)))
            .or(
                () ->
                    Optional.ofNullable(
                        made.made().get(new Decisions.About(key, Optional.empty()))));
    return Optional.of(
        new Open(
            (int) all.values().stream().filter(x -> x.alike().equals(alike)).count(),
            (int) all.values().stream().filter(x -> x.alike().isPresent()).count(),
            now.map(Decisions.Decision::take),
            merge(s, now.flatMap(Decisions.Decision::together))));
  }

  private Optional<Merged> merge(Step s, Optional<Fingerprint> before) {
    if (s.kind() != StepKind.CLASH || !s.clashing().contains(Aspect.WORDING)) {
      return Optional.empty();
    }
    Wording base = wording(s.sides().base().orElseThrow());
    Wording here = wording(s.sides().here().orElseThrow());
    Wording version = wording(s.sides().version().orElseThrow());
    if (version.file().isPresent() || here.file().isPresent()) {
      return Optional.empty(); // questions and files are taken from one side
    }
    TextMerge merge = TextMerge.of(base.html(), here.html(), version.html());
    String html = before.map(b -> AspectForms.wording(form(b)).html()).orElseGet(merge::together);
    return Optional.of(
        new Merged(
            Runs.merged(Runs.plain(here.html()), Runs.plain(version.html()), Runs.plain(html)),
            html,
            before.isPresent() || merge.clean()));
  }

  private Wording wording(Fingerprints f) {
    return AspectForms.wording(form(f.get(Aspect.WORDING)));
  }

  private String form(Fingerprint f) {
    return bodies.get(List.of(f)).get(f);
  }

  /**
   * Decides a step, in this section and all that are alike, or in all sections.
   *
   * @param take none: the delivery's choice counts again
   * @param html the text of both
   * @return sections that are planned anew
   */
  @Transactional
  public int decide(
      DeliveryRecord d,
      UUID line,
      ItemKey key,
      Optional<Take> take,
      Optional<String> html,
      boolean everywhere,
      SignedIn who) {
    replans.stillPlanned(d.getId());
    Map<UUID, Step> all = steps.ofItem(d.getId(), key);
    Step s = Optional.ofNullable(all.get(line)).orElseThrow(() -> Refusal.notFound("step"));
    Optional<Fingerprint> alike = s.alike();
    if (alike.isEmpty() && take.isPresent()) {
      throw Refusal.bad("Nothing is to be decided of it.", "Choose a clash or a twin.");
    }
    if (take.isEmpty()) {
      decided.forget(d.getId(), key);
      return replans.planAnew(d.getId(), all.keySet());
    }
    Decisions.Decision decision = decision(s, take.get(), html);
    Decisions.About about = new Decisions.About(key, everywhere ? Optional.empty() : alike);
    decided.keep(d.getId(), about, decision, who.id());
    return replans.planAnew(
        d.getId(),
        all.entrySet().stream()
            .filter(e -> e.getValue().alike().isPresent())
            .filter(e -> everywhere || e.getValue().alike().equals(alike))
            .map(Map.Entry::getKey)
            .toList());
  }

  private Decisions.Decision decision(Step s, Take take, Optional<String> html) {
    boolean ofTwin = take == Take.ADOPT || take == Take.ADD || take == Take.LEAVE;
    if (ofTwin != (s.kind() == StepKind.TWIN)) {
      throw Refusal.bad(
          ofTwin ? "It has no twin here." : "It does not clash here.", "Decide what is asked.");
    }
    if (take != Take.TOGETHER) {
      return Decisions.Decision.of(take);
    }
    if (html.isEmpty() || merge(s, Optional.empty()).isEmpty()) {
      throw Refusal.bad("These cannot be taken together.", "Take one side.");
    }
    Wording base = wording(s.sides().base().orElseThrow());
    Wording here = wording(s.sides().here().orElseThrow());
    Wording version = wording(s.sides().version().orElseThrow());
    boolean titleStays = version.title().equals(base.title());
    String form =
        AspectForms.form(
            version.withTitle(titleStays ? here.title() : version.title()).withHtml(html.get()));
    bodies.keep(java.util.Set.of(form));
    return new Decisions.Decision(take, Optional.of(Fingerprint.of(form)));
  }
}
