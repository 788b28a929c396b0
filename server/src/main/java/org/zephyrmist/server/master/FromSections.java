package org.zephyrmist.server.master;

import static org.zephyrmist.server.db.Tables.SECTION;

import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.server.content.Bodies;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.db.tables.records.MasterRecord;
import org.zephyrmist.server.ledger.Across;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** Takes what a section made of an item into the draft, so that all may have it. */
@Component
class FromSections {
  private final DSLContext db;
  private final Reach reach;
  private final Across across;
  private final Trees trees;
  private final Bodies bodies;
  private final DraftEdits edits;

  FromSections(
      DSLContext db, Reach reach, Across across, Trees trees, Bodies bodies, DraftEdits edits) {
    this.db = db;
    this.reach = reach;
    this.across = across;
    this.trees = trees;
    this.bodies = bodies;
    this.edits = edits;
  }

  @Transactional
  public void take(
      MasterRecord master, ItemKey key, UUID section, Set<Aspect> aspects, SignedIn who) {
    String code =
        db.select(SECTION.CODE)
            .from(SECTION)
            .where(SECTION.ID.eq(section))
            .and(reach.sections(who))
            .fetchOptional(SECTION.CODE)
            .orElseThrow(() -> Refusal.notFound("section"));
    Fingerprints here =
        across.item(master.getId(), key, SECTION.ID.eq(section)).values().stream()
            .findFirst()
            .flatMap(h -> h.holding().here())
            .orElseThrow(() -> Refusal.notFound("item in this section"));
    if (aspects.contains(Aspect.PLACE)) {
      throw Refusal.bad(
          "Where an item stands is not taken from a section.", "Move it in the outline.");
    }
    edits.begin(master);
    UUID tree = master.getDraftTreeId();
    Item i = trees.item(tree, key);
    if (aspects.contains(Aspect.WORDING) && valued(tree, key)) {
      throw Refusal.bad(
          "This text holds values or notes of the master, which the section has filled in.",
          "Bring the change over by hand.");
    }
    Fingerprints becomes = AspectForms.fingerprints(i).with(aspects, here);
    bodies.keep(AspectForms.of(i).values());
    Map<Fingerprint, String> forms = bodies.get(becomes.asMap().values());
    Item to = AspectForms.item(key, i.kind(), i.rule(), becomes.forms(forms));
    edits.step(
        master,
        List.of(key),
        "took “" + to.title() + "” as section " + code + " has it",
        who,
        () -> trees.put(tree, List.of(to)));
  }

  private boolean valued(UUID tree, ItemKey key) {
    return trees.marked(trees.tree(tree)).stream().anyMatch(m -> m.key().equals(key));
  }
}
