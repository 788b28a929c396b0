package org.zephyrmist.server.delivery;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
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
import org.zephyrmist.core.merge.WordingMerge;
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
    Decisions made = decided.of(delivery);
    Optional<Fingerprint> alike = Optional.ofNullable(s).flatMap(x -> alike(x, made));
    if (alike.isEmpty() || !decided.possible(delivery)) {
      return Optional.empty();
    }
    Optional<Decisions.Decision> now =
        Optional.ofNullable(made.made().get(new Decisions.About(key, alike)))
            .or(() -> Optional.ofNullable(made.made().get(everywhere(s, made))));
    return Optional.of(
        new Open(
            (int) all.values().stream().filter(x -> alike(x, made).equals(alike)).count(),
            (int) all.values().stream().filter(x -> alike(x, made).isPresent()).count(),
            now.map(Decisions.Decision::take),
            merge(s, now.flatMap(Decisions.Decision::text))));
  }

  /**
   * Whether a person is asked because of what students left, or was: then it looks as any other.
   */
  private static boolean work(Step s, Decisions made) {
    return s.work()
        || s.sides()
            .here()
            .flatMap(here -> made.ofWork(s.key(), here, s.sides().version()))
            .isPresent();
  }

  private static Optional<Fingerprint> alike(Step s, Decisions made) {
    return work(s, made)
        ? s.sides().here().map(here -> Decisions.work(here, s.sides().version()))
        : s.alike();
  }

  private static Decisions.About everywhere(Step s, Decisions made) {
    return work(s, made)
        ? Decisions.anyWork(s.key())
        : new Decisions.About(s.key(), Optional.empty());
  }

  private Optional<Merged> merge(Step s, Optional<Fingerprint> before) {
    if (s.kind() == StepKind.TWIN || !s.bothMoved().contains(Aspect.WORDING)) {
      return Optional.empty();
    }
    return merged(s)
        .map(
            merge -> {
              String here = wording(s.sides().here().orElseThrow()).html();
              String version = wording(s.sides().version().orElseThrow()).html();
              String html =
                  before
                      .map(b -> AspectForms.wording(form(b)).html())
                      .orElseGet(() -> merge.wording().html());
              return new Merged(
                  Runs.merged(Runs.plain(here), Runs.plain(version), Runs.plain(html)),
                  html,
                  before.isPresent() || merge.clean());
            });
  }

  /** None where one side is to be taken, as of files and questions that both changed. */
  private Optional<WordingMerge> merged(Step s) {
    return WordingMerge.of(
        wording(s.sides().base().orElseThrow()),
        wording(s.sides().here().orElseThrow()),
        wording(s.sides().version().orElseThrow()));
  }

  private Wording wording(Fingerprints f) {
    return AspectForms.wording(form(f.get(Aspect.WORDING)));
  }

  private String form(Fingerprint f) {
    return bodies.get(List.of(f)).get(f);
  }

  /**
   * Decides a step, in this section and all that are alike, or in all sections. What is decided for
   * all is a rule: each section's text is then merged with its own words.
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
    Decisions made = decided.of(d.getId());
    boolean work = work(s, made);
    Optional<Fingerprint> alike = alike(s, made);
    if (take.isPresent() && (alike.isEmpty() || !decided.possible(d.getId()))) {
      throw Refusal.bad(
          "Nothing is to be decided of it.",
          "Choose a clash, a twin, or what waits because students left something on it.");
    }
    if (take.isEmpty()) {
      decided.forget(d.getId(), key, work);
      return replans.planAnew(d.getId(), all.keySet());
    }
    Decisions.Decision decision = decision(s, work, take.get(), html.filter(h -> !everywhere));
    if (everywhere) {
      decided.forget(d.getId(), key, work);
    }
    Decisions.About about = everywhere ? everywhere(s, made) : new Decisions.About(key, alike);
    decided.keep(d.getId(), about, decision, work, who.id());
    return replans.planAnew(
        d.getId(),
        all.entrySet().stream()
            .filter(e -> alike(e.getValue(), made).isPresent())
            .filter(e -> everywhere || alike(e.getValue(), made).equals(alike))
            .map(Map.Entry::getKey)
            .toList());
  }

  private Decisions.Decision decision(Step s, boolean work, Take take, Optional<String> html) {
    boolean grading = s.sides().version().isPresent();
    if (work) {
      boolean fits = take == Take.LEAVE || take == (grading ? Take.CHANGE_GRADING : Take.HIDE);
      if (!fits) {
        throw Refusal.bad(
            "Students left something on it.",
            grading
                ? "Leave it, or change its grading all the same."
                : "Leave it, or hide it instead. Nothing that students left is removed.");
      }
      bodies.keep(Set.of(Decisions.HIDDEN));
      return Decisions.Decision.of(take);
    }
    boolean ofTwin = take == Take.ADOPT || take == Take.ADD || take == Take.LEAVE;
    if (take == Take.HIDE || take == Take.CHANGE_GRADING) {
      throw Refusal.bad("Students left nothing on it here.", "Decide what is asked.");
    }
    if (ofTwin != (s.kind() == StepKind.TWIN)) {
      throw Refusal.bad(
          ofTwin ? "It has no twin here." : "It does not clash here.", "Decide what is asked.");
    }
    if (take != Take.TOGETHER) {
      return Decisions.Decision.of(take);
    }
    WordingMerge merge =
        Optional.of(s)
            .filter(x -> x.bothMoved().contains(Aspect.WORDING))
            .flatMap(this::merged)
            .orElseThrow(() -> Refusal.bad("These cannot be taken together.", "Take one side."));
    Optional<String> form = html.map(h -> AspectForms.form(merge.wording().withHtml(h)));
    form.ifPresent(f -> bodies.keep(Set.of(f)));
    return new Decisions.Decision(take, form.map(Fingerprint::of));
  }
}
