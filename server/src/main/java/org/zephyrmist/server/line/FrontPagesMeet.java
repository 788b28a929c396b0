package org.zephyrmist.server.line;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.SetupSubject;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.core.delivery.Base;
import org.zephyrmist.core.delivery.FrontPages;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.core.delivery.Meant;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.core.delivery.StepKind;
import org.zephyrmist.core.delivery.Supplied;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;
import org.zephyrmist.server.content.Bodies;
import org.zephyrmist.server.ledger.Holding;
import org.zephyrmist.server.ledger.Ledger;
import org.zephyrmist.server.master.Versions;
import org.zephyrmist.server.master.Versions.Version;
import org.zephyrmist.server.shell.Reading;

/**
 * Finds the front pages of other masters that this one's meets in a shell. They are one item there,
 * which each of the masters holds; the first of them says where it stands and who sees it.
 */
@Component
class FrontPagesMeet {
  private final Versions versions;
  private final MeantTexts texts;
  private final Bodies bodies;
  private final Ledger ledger;
  private final Lines lines;
  private final PlannedSteps stored;

  FrontPagesMeet(
      Versions versions,
      MeantTexts texts,
      Bodies bodies,
      Ledger ledger,
      Lines lines,
      PlannedSteps stored) {
    this.versions = versions;
    this.texts = texts;
    this.bodies = bodies;
    this.ledger = ledger;
    this.lines = lines;
    this.stored = stored;
  }

  /**
   * A front page of another master.
   *
   * @param base as which it stands in the shell, or will
   * @param coming how it will stand there, if it is still to come
   */
  private record Other(String letter, Wording says, Base base, Optional<Held> coming) {}

  /**
   * What is planned with, where front pages meet.
   *
   * @param page this master's
   * @param first whether it has not met before
   * @param standIns items of the other masters, to which the page leads too
   */
  record Met(
      ItemKey page,
      boolean first,
      Meant meant,
      Map<ItemKey, Base> bases,
      List<Held> shell,
      Map<ItemKey, String> standIns) {}

  /**
   * A line with what its plan is made of.
   *
   * @param before lines that come before it in its section and bring something there
   */
  record Asked(
      Line line,
      Version version,
      Meant meant,
      Reading reading,
      Map<ItemKey, Base> bases,
      Supplied supplied,
      List<UUID> before) {}

  /** A line that can be planned without looking at front pages. */
  interface Alone {
    List<Step> plan();
  }

  /**
   * @param alone plans as if no other front page were there
   * @return none if none meets this one's
   */
  Optional<Met> of(Asked a, Alone alone) {
    List<Node> setups =
        a.meant().items().nodes().stream().filter(n -> n.kind() == Kind.SETUP).toList();
    if (setups.isEmpty()) {
      return Optional.empty();
    }
    List<Other> others = new ArrayList<>(there(a));
    Map<ItemKey, String> coming = new HashMap<>();
    for (UUID line : a.before()) {
      others.addAll(coming(line, coming));
    }
    Map<Node, Wording> pages = frontPages(setups);
    if (others.isEmpty() || pages.isEmpty()) {
      return Optional.empty();
    }
    Node mine = pages.keySet().iterator().next();
    Optional<Base> base = Optional.ofNullable(a.bases().get(mine.key()));
    others.removeIf(o -> base.filter(b -> !b.id().equals(o.base().id())).isPresent());
    others.sort(Comparator.comparing(Other::letter));
    return others.isEmpty()
        ? Optional.empty()
        : Optional.of(met(a, mine, pages.get(mine), others, names(a, coming, alone.plan())));
  }

  private Met met(
      Asked a, Node mine, Wording says, List<Other> others, Map<ItemKey, String> names) {
    String letter = versions.letters().get(a.version().master());
    List<Wording> all = new ArrayList<>(others.stream().map(Other::says).toList());
    int place = (int) others.stream().filter(o -> o.letter().compareTo(letter) < 0).count();
    all.add(place, says);
    String form =
        AspectForms.form(FrontPages.together(all, key -> Optional.ofNullable(names.get(key))));
    bodies.keep(Set.of(form));
    Other lead = others.get(0);
    Node page = place == 0 ? mine : mine.standingAt(Optional.empty());
    Fingerprints aspects = place == 0 ? mine.aspects() : lead.base().sent();
    Node joined = page.withAspects(aspects.with(Aspect.WORDING, Fingerprint.of(form)));
    Map<ItemKey, Base> bases = new HashMap<>(a.bases());
    Base b = lead.base();
    boolean first =
        bases.putIfAbsent(
                mine.key(),
                new Base(
                    mine.key(),
                    mine.kind(),
                    mine.title(),
                    b.id(),
                    b.sent(),
                    b.shown(),
                    b.accepted()))
            == null;
    List<Held> shell = new ArrayList<>(a.reading().items());
    if (first) {
      lead.coming().ifPresent(shell::add);
    }
    Tree tree =
        Tree.of(
            a.meant().items().nodes().stream()
                .map(n -> n.key().equals(mine.key()) ? joined : n)
                .toList());
    Map<ItemKey, String> standIns = new HashMap<>();
    theirs(a).forEach(h -> standIns.put(h.base().key(), h.platformItem()));
    return new Met(mine.key(), first, a.meant().of(tree), bases, shell, standIns);
  }

  /** What other masters have in the shell. */
  private static List<Holding> theirs(Asked a) {
    return theirs(a.reading(), a.version().master());
  }

  private static List<Holding> theirs(Reading reading, UUID master) {
    return reading.holdings().stream()
        .filter(h -> !h.master().equals(master))
        .filter(h -> reading.item(h.platformItem()).isPresent())
        .toList();
  }

  /** Where a page that has met leads to besides this master's items; nothing if none has. */
  static Map<ItemKey, String> leads(Reading reading, Map<ItemKey, Base> bases, UUID master) {
    Set<String> mine = bases.values().stream().map(Base::id).collect(Collectors.toSet());
    List<Holding> theirs = theirs(reading, master);
    Map<ItemKey, String> all = new HashMap<>();
    if (theirs.stream().map(Holding::platformItem).anyMatch(mine::contains)) {
      theirs.forEach(h -> all.put(h.base().key(), h.platformItem()));
    }
    return all;
  }

  private List<Other> there(Asked a) {
    List<Other> all = new ArrayList<>();
    for (Holding h : theirs(a)) {
      if (h.base().kind() == Kind.SETUP && isFrontPage(a.reading(), h.platformItem())) {
        Version from = versions.get(ledger.from(a.line().section(), h.master(), h.base().key()));
        texts
            .whole(from, a.line())
            .get(h.base().key())
            .map(n -> frontPages(List.of(n)).get(n))
            .map(w -> new Other(versions.letters().get(h.master()), w, h.base(), Optional.empty()))
            .ifPresent(all::add);
      }
    }
    return all;
  }

  private static boolean isFrontPage(Reading r, String id) {
    return isFrontPage(AspectForms.wording(r.forms().get(id).get(Aspect.WORDING)));
  }

  private static boolean isFrontPage(Wording w) {
    return w.subject().filter(s -> s == SetupSubject.FRONT_PAGE).isPresent();
  }

  private List<Other> coming(UUID line, Map<ItemKey, String> coming) {
    List<Step> adds =
        stored.unrecorded(line).stream().filter(s -> s.kind() == StepKind.ADD).toList();
    adds.forEach(s -> coming.put(s.key(), Supplied.coming(s).id()));
    UUID master = versions.get(lines.get(line).version()).master();
    List<Other> all = new ArrayList<>();
    for (Step s : adds.stream().filter(x -> x.itemKind() == Kind.SETUP).toList()) {
      Fingerprints becomes = s.sides().becomes().orElseThrow();
      Fingerprint wording = becomes.get(Aspect.WORDING);
      Wording w = AspectForms.wording(bodies.get(Set.of(wording)).get(wording));
      if (isFrontPage(w)) {
        Held held = Supplied.coming(s);
        Base base = new Base(s.key(), s.itemKind(), s.title(), held.id(), becomes, becomes);
        all.add(new Other(versions.letters().get(master), w, base, Optional.of(held)));
      }
    }
    return all;
  }

  private Map<Node, Wording> frontPages(List<Node> setups) {
    Map<Fingerprint, String> forms =
        bodies.get(
            setups.stream().map(n -> n.aspects().get(Aspect.WORDING)).collect(Collectors.toSet()));
    Map<Node, Wording> all = new HashMap<>();
    for (Node n : setups) {
      Wording w = AspectForms.wording(forms.get(n.aspects().get(Aspect.WORDING)));
      if (isFrontPage(w) && all.isEmpty()) {
        all.put(n, w);
      }
    }
    return all;
  }

  /** Where items of all the masters are, or will be once the plan is carried out. */
  private static Map<ItemKey, String> names(Asked a, Map<ItemKey, String> coming, List<Step> plan) {
    Map<ItemKey, String> names = new HashMap<>(coming);
    theirs(a).forEach(h -> names.put(h.base().key(), h.platformItem()));
    names.putAll(a.supplied().namesOf(a.meant().items().nodes()));
    a.bases()
        .forEach((k, b) -> a.reading().item(b.id()).ifPresent(held -> names.put(k, held.id())));
    for (Step s : plan) {
      if (s.kind() == StepKind.ADD) {
        names.put(s.key(), Supplied.coming(s).id());
      } else if (s.kind() == StepKind.RETIRE) {
        names.remove(s.key());
      } else if (s.adopts()) {
        s.id().ifPresent(id -> names.put(s.key(), id));
      }
    }
    return names;
  }
}
