package org.zephyrmist.server.check;

import static org.zephyrmist.server.db.Tables.CAMPUS;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.TERM;

import java.time.Clock;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.calendar.CountedDays;
import org.zephyrmist.core.check.CheckedShell;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Titles;
import org.zephyrmist.core.delivery.Base;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.core.delivery.SectionFacts;
import org.zephyrmist.core.edit.Given;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.server.calendar.Calendars;
import org.zephyrmist.server.coverage.Rules;
import org.zephyrmist.server.ledger.Holding;
import org.zephyrmist.server.ledger.Holdings;
import org.zephyrmist.server.ledger.Standings;
import org.zephyrmist.server.master.Versions;
import org.zephyrmist.server.platform.Platforms;
import org.zephyrmist.server.platform.ShellAddresses;
import org.zephyrmist.server.shell.KeptReadings;
import org.zephyrmist.server.shell.Looks;
import org.zephyrmist.server.tool.ToolTroubles;

/** Shells as checks look at them: many at once and side by side, from what was read last. */
@Component
class CheckedShells {
  private final DSLContext db;
  private final KeptReadings readings;
  private final Looks looks;
  private final Holdings held;
  private final Standings standings;
  private final Calendars calendars;
  private final Rules rules;
  private final ToolTroubles tools;
  private final VersionFacts facts;
  private final Versions versions;
  private final StrangeWords strangers;
  private final Platforms platforms;
  private final Parsed parsed;
  private final DateRemarks remarks;
  private final Clock clock;

  CheckedShells(
      DSLContext db,
      KeptReadings readings,
      Looks looks,
      Holdings held,
      Standings standings,
      Calendars calendars,
      Rules rules,
      ToolTroubles tools,
      VersionFacts facts,
      Versions versions,
      StrangeWords strangers,
      Platforms platforms,
      Parsed parsed,
      DateRemarks remarks,
      Clock clock) {
    this.remarks = remarks;
    this.db = db;
    this.readings = readings;
    this.looks = looks;
    this.held = held;
    this.standings = standings;
    this.calendars = calendars;
    this.rules = rules;
    this.tools = tools;
    this.facts = facts;
    this.versions = versions;
    this.strangers = strangers;
    this.platforms = platforms;
    this.parsed = parsed;
    this.clock = clock;
  }

  private record Place(UUID id, UUID platform, String shell, SectionFacts facts) {}

  /**
   * @param versions that the section holds, by master
   */
  private record All(
      Map<UUID, KeptReadings.Kept> readings,
      Map<UUID, List<Looks.Unread>> unread,
      Map<UUID, List<Holding>> holdings,
      Map<UUID, Map<UUID, UUID>> versions,
      Map<UUID, VersionFacts.Facts> facts,
      Map<UUID, Map<UUID, Integer>> expected,
      Map<UUID, Calendars.Goes> goes,
      Map<UUID, List<ToolTroubles.Trouble>> troubles,
      Map<UUID, String> codes,
      Map<UUID, String> letters,
      StrangeWords.Known words,
      Map<UUID, ShellAddresses> addresses,
      DateRemarks.Look remarks,
      Parsed.Forms forms) {}

  /** Those of the sections that were ever read. */
  Map<UUID, CheckedShell> of(Collection<UUID> sections) {
    Map<UUID, KeptReadings.Kept> read = readings.of(sections);
    List<UUID> ids = List.copyOf(read.keySet());
    UUID[] array = ids.toArray(UUID[]::new);
    Map<UUID, List<Holding>> holdings = this.held.of(ids);
    List<Place> places = places(array);
    Map<UUID, Map<UUID, UUID>> held = standings.versions(ids);
    Set<UUID> versionIds = new HashSet<>();
    held.values().forEach(v -> versionIds.addAll(v.values()));
    Map<UUID, Calendars.Goes> goes = calendars.sections(ids);
    All all =
        new All(
            read,
            looks.unread(ids),
            holdings,
            held,
            facts.of(versionIds),
            rules.versions(SECTION.ID.eq(DSL.any(array))),
            goes,
            tools.of(ids),
            db.select(MASTER.ID, MASTER.CODE).from(MASTER).fetchMap(MASTER.ID, MASTER.CODE),
            versions.letters(),
            strangers.of(ids),
            addresses(places),
            remarks.look(held, goes),
            parsed.of(wanted(read, holdings)));
    return places.parallelStream().collect(Collectors.toMap(Place::id, p -> shell(p, all)));
  }

  private Map<UUID, ShellAddresses> addresses(List<Place> places) {
    Map<UUID, ShellAddresses> all = new HashMap<>();
    places.forEach(p -> all.computeIfAbsent(p.platform(), x -> platforms.gateway(x).addresses()));
    return all;
  }

  private static Set<Fingerprint> wanted(
      Map<UUID, KeptReadings.Kept> read, Map<UUID, List<Holding>> holdings) {
    Set<Fingerprint> all = new HashSet<>();
    read.values().forEach(k -> k.items().forEach(h -> add(all, h.aspects())));
    holdings.values().forEach(of -> of.forEach(h -> add(all, h.base().sent())));
    return all;
  }

  private static void add(Set<Fingerprint> all, Fingerprints f) {
    all.add(f.get(Aspect.WORDING));
    all.add(f.get(Aspect.GRADING));
    all.add(f.get(Aspect.TIMING));
    all.add(f.get(Aspect.VISIBILITY));
  }

  private List<Place> places(UUID[] ids) {
    return db.select(
            SECTION.ID, SECTION.PLATFORM_ID, SECTION.SHELL, CAMPUS.SOURCED_ID, TERM.FIRST_DAY)
        .from(SECTION)
        .join(CAMPUS)
        .on(CAMPUS.ID.eq(SECTION.CAMPUS_ID))
        .leftJoin(TERM)
        .on(TERM.ID.eq(SECTION.TERM_ID))
        .where(SECTION.ID.eq(DSL.any(ids)))
        .and(SECTION.SHELL.isNotNull())
        .fetch(
            r ->
                new Place(
                    r.value1(),
                    r.value2(),
                    r.value3(),
                    new SectionFacts(r.value4(), "", Set.of(), Optional.ofNullable(r.value5()))));
  }

  private CheckedShell shell(Place p, All all) {
    KeptReadings.Kept kept = all.readings().get(p.id());
    Map<UUID, UUID> held = all.versions().getOrDefault(p.id(), Map.of());
    Map<String, List<Holding>> ours = new HashMap<>();
    all.holdings().getOrDefault(p.id(), List.of()).stream()
        .sorted(
            Comparator.comparing((Holding h) -> all.letters().get(h.master()))
                .thenComparing(Holding::master))
        .forEach(h -> ours.computeIfAbsent(h.platformItem(), k -> new ArrayList<>()).add(h));
    List<CheckedShell.Item> items = new ArrayList<>();
    for (Held h : kept.items()) {
      item(p.id(), h, ours.getOrDefault(h.id(), List.of()), held, all).ifPresent(items::add);
    }
    Optional<CountedDays> days =
        Optional.ofNullable(all.goes().get(p.id())).map(g -> g.days().days());
    ZoneId zone = days.map(d -> d.calendar().zone()).orElse(clock.getZone());
    return new CheckedShell(
        items,
        all.unread().getOrDefault(p.id(), List.of()).stream().map(Looks.Unread::why).toList(),
        lacks(p, kept.items(), ours, held, all),
        arrivals(p.id(), held, all),
        idOf(p, all.addresses().get(p.platform())),
        days,
        all.troubles().getOrDefault(p.id(), List.of()).stream()
            .map(t -> new CheckedShell.ToolTrouble(t.host(), t.name(), t.standing()))
            .toList(),
        kept.open(),
        all.words().in(p.id()),
        LocalDateTime.ofInstant(clock.instant(), zone));
  }

  private static Function<String, Optional<String>> idOf(Place p, ShellAddresses addresses) {
    return a -> addresses.asItem(p.shell(), a).map(i -> i.id());
  }

  private static Given given(Holding h) {
    return new Given(h.master().toString(), h.base().key());
  }

  private static Optional<CheckedShell.Item> item(
      UUID section, Held h, List<Holding> ours, Map<UUID, UUID> held, All all) {
    Fingerprints f = h.aspects();
    Parsed.Forms forms = all.forms();
    Optional<Parsed.Said> said = forms.said(f.get(Aspect.WORDING));
    if (said.isEmpty()) {
      return Optional.empty(); // it was read by a server that was before this table
    }
    return Optional.of(
        new CheckedShell.Item(
            h,
            said.get().wording(),
            said.get().facts(),
            forms.grading(f.get(Aspect.GRADING)).orElseThrow(),
            forms.timing(f.get(Aspect.TIMING)).orElseThrow(),
            forms.visibility(f.get(Aspect.VISIBILITY)).orElseThrow(),
            ours.stream().map(CheckedShells::given).toList(),
            ours.stream().findFirst().flatMap(o -> meant(section, h, o, held, all))));
  }

  private static Optional<CheckedShell.Meant> meant(
      UUID section, Held here, Holding o, Map<UUID, UUID> held, All all) {
    Base b = o.base();
    Fingerprints sent = b.sent();
    Parsed.Forms forms = all.forms();
    Optional<Parsed.Said> said = forms.said(sent.get(Aspect.WORDING));
    boolean known =
        said.isPresent()
            && forms.grading(sent.get(Aspect.GRADING)).isPresent()
            && forms.timing(sent.get(Aspect.TIMING)).isPresent()
            && forms.visibility(sent.get(Aspect.VISIBILITY)).isPresent();
    if (!known) {
      return Optional.empty(); // its links could not all be written yet
    }
    Optional<VersionFacts.Facts> version =
        Optional.ofNullable(held.get(o.master())).map(all.facts()::get);
    Optional<Node> node = version.flatMap(v -> v.version().tree().get(b.key()));
    Set<Aspect> own = here.aspects().differing(b.shown());
    own.removeAll(b.accepted());
    return Optional.of(
        new CheckedShell.Meant(
            node.map(Node::rule).orElse(EditRule.ADAPTABLE),
            version.map(v -> v.has(b.key())).orElse(true),
            forms.grading(sent.get(Aspect.GRADING)).orElseThrow(),
            forms.timing(sent.get(Aspect.TIMING)).orElseThrow(),
            forms.visibility(sent.get(Aspect.VISIBILITY)).orElseThrow(),
            said.get().facts(),
            own,
            version.map(v -> v.blanks().getOrDefault(b.key(), List.of())).orElse(List.of()),
            version.map(v -> v.banks(b.key())).orElse(Set.of()),
            Optional.ofNullable(held.get(o.master()))
                .map(v -> all.remarks().of(section, v, b.key()))
                .orElse(List.of())));
  }

  /** What is there under the same kind and title, whoever brought it, is not missing. */
  private static List<CheckedShell.Lack> lacks(
      Place p, List<Held> items, Map<String, List<Holding>> ours, Map<UUID, UUID> held, All all) {
    Set<String> there = items.stream().map(Held::id).collect(Collectors.toSet());
    Set<String> called =
        items.stream()
            .map(h -> h.kind() + " " + Titles.folded(h.title()))
            .collect(Collectors.toSet());
    Map<UUID, Map<ItemKey, Holding>> byMaster = new HashMap<>();
    ours.values()
        .forEach(
            of ->
                of.forEach(
                    h ->
                        byMaster
                            .computeIfAbsent(h.master(), k -> new HashMap<>())
                            .put(h.base().key(), h)));
    List<CheckedShell.Lack> lacks = new ArrayList<>();
    held.forEach(
        (master, version) -> {
          Map<ItemKey, Holding> mine = byMaster.getOrDefault(master, Map.of());
          for (Node n : all.facts().get(version).meant(p.facts()).nodes()) {
            Holding h = mine.get(n.key());
            boolean here =
                h != null && there.contains(h.platformItem())
                    || called.contains(n.kind() + " " + Titles.folded(n.title()));
            if (!here && n.kind() != Kind.MODULE) {
              lacks.add(
                  new CheckedShell.Lack(
                      new Given(master.toString(), n.key()), n.title(), h != null));
            }
          }
        });
    return lacks;
  }

  private static List<CheckedShell.Arrival> arrivals(UUID section, Map<UUID, UUID> held, All all) {
    Set<UUID> masters = new HashSet<>(held.keySet());
    all.expected()
        .forEach(
            (m, of) -> {
              if (of.containsKey(section)) {
                masters.add(m);
              }
            });
    return masters.stream()
        .map(
            m ->
                new CheckedShell.Arrival(
                    m.toString(),
                    all.codes().get(m),
                    Optional.ofNullable(held.get(m))
                        .map(v -> all.facts().get(v).version().number()),
                    Optional.ofNullable(all.expected().getOrDefault(m, Map.of()).get(section))))
        .sorted(Comparator.comparing(CheckedShell.Arrival::code))
        .toList();
  }
}
