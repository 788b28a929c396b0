package org.zephyrmist.server.coverage;

import static org.zephyrmist.server.db.Tables.CAMPUS;
import static org.zephyrmist.server.db.Tables.COURSE;
import static org.zephyrmist.server.db.Tables.COVERAGE_RULE;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.TREE_ITEM;
import static org.zephyrmist.server.db.Tables.VERSION;

import jakarta.validation.constraints.NotNull;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.server.content.Bodies;
import org.zephyrmist.server.content.ItemView;
import org.zephyrmist.server.ledger.Across;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.section.Instructors;
import org.zephyrmist.server.web.Refusal;

/** One item across all sections of a term. */
@Component
class Variants {
  private static final int MOST_VIEWS = 60;
  private final DSLContext db;
  private final Reach reach;
  private final Across across;
  private final Bodies bodies;
  private final Instructors instructors;

  Variants(DSLContext db, Reach reach, Across across, Bodies bodies, Instructors instructors) {
    this.db = db;
    this.reach = reach;
    this.across = across;
    this.bodies = bodies;
    this.instructors = instructors;
  }

  /**
   * An item in a version.
   *
   * @param forms what it says in each aspect, as numbers that are equal for what is equal
   */
  record VariantVersion(int number, @NotNull int[] forms, @NotNull ItemView view) {}

  /**
   * An item in a section.
   *
   * @param number of the version it came from last; 0 if it never came
   * @param here what it says in each aspect; absent if it is not there
   * @param changed aspects that the section changed
   * @param accepted of which the section's own was accepted
   */
  record VariantSection(
      @NotNull UUID section,
      @NotNull String code,
      @NotNull String campus,
      @NotNull String instructors,
      int number,
      int[] here,
      @NotNull Set<Aspect> changed,
      @NotNull Set<Aspect> accepted,
      String by,
      String changedAt) {}

  /** A form that sections gave the item; of very many the first are told. */
  record VariantView(@NotNull int[] forms, @NotNull ItemView view) {}

  /**
   * @param versions that have the item, the newest last
   */
  record ItemVariants(
      @NotNull String masterCode,
      @NotNull Kind kind,
      @NotNull String title,
      @NotNull EditRule rule,
      int newest,
      @NotNull List<VariantVersion> versions,
      @NotNull List<VariantSection> sections,
      @NotNull List<VariantView> views) {}

  /** Numbers for fingerprints, equal for equal ones. */
  private static final class Numbers {
    private final Map<Fingerprint, Integer> known = new HashMap<>();

    int[] of(Fingerprints f) {
      int[] all = new int[Aspect.values().length];
      for (Aspect a : Aspect.values()) {
        all[a.ordinal()] = known.computeIfAbsent(f.get(a), k -> known.size());
      }
      return all;
    }
  }

  /** An item as a version has it. */
  private record InVersion(
      int number, UUID id, Kind kind, String title, EditRule rule, Fingerprints aspects) {}

  ItemVariants of(UUID term, UUID master, ItemKey key, SignedIn who) {
    String code =
        db.select(MASTER.CODE)
            .from(MASTER)
            .where(MASTER.ID.eq(master))
            .and(reach.masters(who))
            .fetchOptional(MASTER.CODE)
            .orElseThrow(() -> Refusal.notFound("master"));
    List<InVersion> versions = versions(master, key);
    if (versions.isEmpty()) {
      throw Refusal.notFound("item");
    }
    InVersion last = versions.get(versions.size() - 1);
    Numbers numbers = new Numbers();
    Map<UUID, Across.InSection> held =
        across.item(master, key, SECTION.TERM_ID.eq(term).and(reach.sections(who)));
    Map<Fingerprints, int[]> told = new LinkedHashMap<>();
    List<VariantSection> sections = sections(term, master, versions, held, numbers, told, who);
    Map<Fingerprint, String> forms = forms(versions, told);
    return new ItemVariants(
        code,
        last.kind(),
        last.title(),
        last.rule(),
        newest(master),
        versions.stream()
            .map(
                v ->
                    new VariantVersion(
                        v.number(),
                        numbers.of(v.aspects()),
                        view(key, v.kind(), v.aspects(), forms)))
            .toList(),
        sections,
        told.entrySet().stream()
            .map(e -> new VariantView(e.getValue(), view(key, last.kind(), e.getKey(), forms)))
            .toList());
  }

  private int newest(UUID master) {
    return db.select(DSL.coalesce(DSL.max(VERSION.NUMBER), 0))
        .from(VERSION)
        .where(VERSION.MASTER_ID.eq(master))
        .fetchSingle()
        .value1();
  }

  private List<InVersion> versions(UUID master, ItemKey key) {
    return db.select(
            VERSION.NUMBER,
            VERSION.ID,
            TREE_ITEM.KIND,
            TREE_ITEM.TITLE,
            TREE_ITEM.EDIT_RULE,
            TREE_ITEM.ASPECTS)
        .from(VERSION)
        .join(TREE_ITEM)
        .on(TREE_ITEM.TREE_ID.eq(VERSION.TREE_ID))
        .where(VERSION.MASTER_ID.eq(master))
        .and(TREE_ITEM.ITEM_KEY.eq(key.value()))
        .orderBy(VERSION.NUMBER)
        .fetch(
            r ->
                new InVersion(
                    r.value1(),
                    r.value2(),
                    r.value3(),
                    r.value4(),
                    r.value5(),
                    Fingerprints.unpack(r.value6())));
  }

  /** Sections that hold the item, hold the master, or should. */
  private List<VariantSection> sections(
      UUID term,
      UUID master,
      List<InVersion> versions,
      Map<UUID, Across.InSection> held,
      Numbers numbers,
      Map<Fingerprints, int[]> told,
      SignedIn who) {
    Map<UUID, Integer> number = new HashMap<>();
    versions.forEach(v -> number.put(v.id(), v.number()));
    Map<UUID, String> names = instructors.all();
    List<VariantSection> all = new ArrayList<>();
    Condition concerned =
        across
            .received(master)
            .or(
                DSL.exists(
                    DSL.selectOne()
                        .from(COVERAGE_RULE)
                        .where(COVERAGE_RULE.MASTER_ID.eq(master))
                        .and(
                            COVERAGE_RULE
                                .COURSE_ID
                                .isNull()
                                .or(COVERAGE_RULE.COURSE_ID.eq(SECTION.COURSE_ID)))
                        .and(
                            COVERAGE_RULE
                                .PROGRAM_ID
                                .isNull()
                                .or(
                                    SECTION.COURSE_ID.in(
                                        DSL.select(COURSE.ID)
                                            .from(COURSE)
                                            .where(
                                                COURSE.PROGRAM_ID.eq(COVERAGE_RULE.PROGRAM_ID)))))))
            .or(SECTION.ID.in(held.keySet()));
    db.select(SECTION.ID, SECTION.CODE, CAMPUS.NAME)
        .from(SECTION)
        .join(CAMPUS)
        .on(CAMPUS.ID.eq(SECTION.CAMPUS_ID))
        .where(SECTION.TERM_ID.eq(term))
        .and(reach.sections(who))
        .and(concerned)
        .orderBy(SECTION.CODE, SECTION.ID)
        .forEach(
            r ->
                all.add(
                    section(
                        r.value1(),
                        r.value2(),
                        r.value3(),
                        names.getOrDefault(r.value1(), ""),
                        Optional.ofNullable(held.get(r.value1())),
                        number,
                        numbers,
                        told)));
    return all;
  }

  private static VariantSection section(
      UUID id,
      String code,
      String campus,
      String instructors,
      Optional<Across.InSection> held,
      Map<UUID, Integer> number,
      Numbers numbers,
      Map<Fingerprints, int[]> told) {
    Optional<Fingerprints> here = held.flatMap(h -> h.holding().here());
    Set<Aspect> changed =
        held.flatMap(h -> here.map(x -> x.differing(h.holding().base().shown()))).orElse(Set.of());
    Set<Aspect> accepted = held.map(h -> h.holding().base().accepted()).orElse(Set.of());
    int[] forms = here.map(numbers::of).orElse(null);
    if (!(changed.isEmpty() && accepted.isEmpty()) && told.size() < MOST_VIEWS) {
      here.ifPresent(h -> told.put(h, forms));
    }
    return new VariantSection(
        id,
        code,
        campus,
        instructors,
        held.map(h -> number.getOrDefault(h.version(), 0)).orElse(0),
        forms,
        changed,
        accepted,
        held.flatMap(Across.InSection::by).orElse(null),
        held.flatMap(Across.InSection::changedAt).orElse(null));
  }

  private Map<Fingerprint, String> forms(List<InVersion> versions, Map<Fingerprints, int[]> told) {
    List<Fingerprint> wanted = new ArrayList<>();
    versions.forEach(v -> wanted.addAll(v.aspects().asMap().values()));
    told.keySet().forEach(f -> wanted.addAll(f.asMap().values()));
    return bodies.get(wanted);
  }

  private static ItemView view(
      ItemKey key, Kind kind, Fingerprints f, Map<Fingerprint, String> forms) {
    Item i = AspectForms.item(key, kind, EditRule.ADAPTABLE, f.forms(forms));
    return ItemView.of(i);
  }
}
