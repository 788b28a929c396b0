package org.zephyrmist.server.master;

import static org.zephyrmist.server.db.Tables.CAMPUS;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.TERM;

import java.io.IOException;
import java.io.OutputStream;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.cartridge.CartridgeFacts;
import org.zephyrmist.core.cartridge.CartridgeWriter;
import org.zephyrmist.core.cartridge.PackageChoices;
import org.zephyrmist.core.cartridge.PackageFormat;
import org.zephyrmist.core.cartridge.PackageLoss;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.delivery.InSection;
import org.zephyrmist.core.delivery.Meant;
import org.zephyrmist.core.delivery.Parts;
import org.zephyrmist.core.delivery.SectionFacts;
import org.zephyrmist.core.question.QuestionSet;
import org.zephyrmist.core.tree.Tree;
import org.zephyrmist.server.content.Files;
import org.zephyrmist.server.content.FrameHosts;
import org.zephyrmist.server.content.Questions;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.content.Values;
import org.zephyrmist.server.db.tables.records.MasterRecord;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** Versions, or parts of them, as packages that other systems take. */
@Component
class Packages {
  /** Begins the identifier of every package that is written here. */
  static final String OURS = "zephyrmist:";

  private final DSLContext db;
  private final Masters masters;
  private final Trees trees;
  private final Files files;
  private final Questions questions;
  private final Reach reach;
  private final Values values;
  private final FrameHosts frames;

  Packages(
      DSLContext db,
      Masters masters,
      Trees trees,
      Files files,
      Questions questions,
      Reach reach,
      Values values,
      FrameHosts frames) {
    this.frames = frames;
    this.values = values;
    this.reach = reach;
    this.db = db;
    this.masters = masters;
    this.trees = trees;
    this.files = files;
    this.questions = questions;
  }

  /**
   * What of a master is wanted.
   *
   * @param version 0 is the draft
   * @param parts modules and items, with all below; empty for everything
   * @param section whose campus decides what applies; none for everything
   */
  record Wanted(MasterRecord master, int version, Set<ItemKey> parts, Optional<For> section) {}

  List<PackageLoss> losses(Wanted w, PackageChoices choices) {
    return PackageLoss.of(
        items(w), choices, f -> questions.read(f).orElse(new QuestionSet(List.of())));
  }

  int size(Wanted w) {
    return tree(w).size();
  }

  void write(Wanted w, PackageChoices choices, OutputStream out) throws IOException {
    MasterRecord m = w.master();
    String term = w.section().map(For::term).orElse("");
    CartridgeFacts facts =
        new CartridgeFacts(
            m.getTitle(),
            "",
            "",
            "",
            choices.format().words(),
            false,
            OURS + m.getId() + ":" + w.version() + (term.isEmpty() ? "" : ":" + term),
            "",
            "",
            List.of(),
            "",
            "");
    CartridgeWriter.write(out, facts, items(w), choices, files::open);
  }

  /**
   * An order for a package, as it can be kept.
   *
   * @param section it is filled in for; absent for none
   */
  record Order(
      UUID master,
      int version,
      Set<String> parts,
      UUID section,
      PackageFormat format,
      boolean parameters,
      boolean grading,
      boolean instructorsOnly) {}

  /** Writes what was ordered; who ordered it was allowed to. */
  void write(Order o, OutputStream out) throws IOException {
    MasterRecord master = db.selectFrom(MASTER).where(MASTER.ID.eq(o.master())).fetchSingle();
    Set<ItemKey> parts = new HashSet<>();
    o.parts().forEach(p -> parts.add(new ItemKey(p)));
    Optional<For> section =
        Optional.ofNullable(o.section()).flatMap(s -> section(SECTION.ID.eq(s)));
    write(
        new Wanted(master, o.version(), parts, section),
        new PackageChoices(
            o.format(), o.parameters(), o.grading(), o.instructorsOnly(), frames.approved()),
        out);
  }

  private List<Item> items(Wanted w) {
    Tree chosen = tree(w);
    InSection becomes =
        InSection.of(
            chosen,
            trees.marked(chosen),
            w.section().map(s -> values.in(s.id())).orElse(name -> Optional.empty()));
    Map<ItemKey, Item> other = new HashMap<>();
    becomes.items().forEach(i -> other.put(i.key(), i));
    Map<ItemKey, Item> all = new HashMap<>(other);
    trees
        .items(becomes.tree().nodes().stream().filter(n -> !other.containsKey(n.key())).toList())
        .forEach(i -> all.put(i.key(), i));
    return becomes.tree().nodes().stream().map(n -> all.get(n.key())).toList();
  }

  /** In outline order, with the modules that what is wanted stands in. */
  private Tree tree(Wanted w) {
    Tree all = trees.tree(masters.tree(w.master(), w.version()));
    Set<ItemKey> chosen = new HashSet<>();
    w.parts().forEach(p -> all.subtree(p).forEach(n -> chosen.add(n.key())));
    Parts parts = w.parts().isEmpty() ? Parts.EVERYTHING : Parts.only(chosen);
    return w.section()
        .map(s -> Meant.of(all, parts, s.facts()).items())
        .orElseGet(() -> chosenOf(all, parts))
        .only(n -> !n.appliesTo().nobody());
  }

  private static Tree chosenOf(Tree all, Parts parts) {
    Set<ItemKey> kept = new HashSet<>();
    for (ItemKey k : parts.keys().orElse(Set.of())) {
      kept.add(k);
      all.above(k).forEach(n -> kept.add(n.key()));
    }
    return all.only(n -> parts.include(n.key()) || kept.contains(n.key()));
  }

  /**
   * A section that a package is for.
   *
   * @param id the section
   * @param term its title
   */
  record For(UUID id, String term, SectionFacts facts) {}

  For section(UUID id, SignedIn who) {
    return section(SECTION.ID.eq(id).and(reach.sections(who)))
        .orElseThrow(() -> Refusal.notFound("section"));
  }

  private Optional<For> section(Condition which) {
    return db.select(TERM.TITLE, CAMPUS.SOURCED_ID, SECTION.ID)
        .from(SECTION)
        .join(CAMPUS)
        .on(CAMPUS.ID.eq(SECTION.CAMPUS_ID))
        .leftJoin(TERM)
        .on(TERM.ID.eq(SECTION.TERM_ID))
        .where(which)
        .fetchOptional(
            r ->
                new For(
                    r.value3(),
                    Optional.ofNullable(r.value1()).orElse(""),
                    new SectionFacts(r.value2(), "", Set.of())));
  }
}
