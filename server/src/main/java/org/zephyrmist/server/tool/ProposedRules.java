package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.CARTRIDGE;
import static org.zephyrmist.server.db.Tables.EDITION;
import static org.zephyrmist.server.db.Tables.RELINK_RULE;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.tool.Moves;
import org.zephyrmist.core.tool.Moves.Move;
import org.zephyrmist.core.tool.Moves.Proposal;
import org.zephyrmist.server.content.Trees;

/** Rules that newest editions propose, whose launch addresses are not those of the ones before. */
@Component
class ProposedRules {
  private static final Set<Kind> LAUNCHED =
      EnumSet.of(Kind.TOOL_LINK, Kind.ASSIGNMENT, Kind.WEB_LINK);
  private static final int MOST = 500;
  private final DSLContext db;
  private final Trees trees;

  /** By tree of the newer edition; editions never change. */
  private final Cache<UUID, List<Proposal>> known = Caffeine.newBuilder().maximumSize(MOST).build();

  ProposedRules(DSLContext db, Trees trees) {
    this.db = db;
    this.trees = trees;
  }

  /**
   * What an edition proposes.
   *
   * @param edition its number
   */
  record Proposed(String cartridge, int edition, Proposal rule) {}

  /** But for what a rule says already. */
  List<Proposed> all() {
    Set<String> kept =
        db.select(RELINK_RULE.FROM_PATTERN).from(RELINK_RULE).fetchSet(RELINK_RULE.FROM_PATTERN);
    var older = EDITION.as("older");
    List<Proposed> all = new ArrayList<>();
    db.select(CARTRIDGE.TITLE, EDITION.NUMBER, EDITION.TREE_ID, older.TREE_ID)
        .from(EDITION)
        .join(older)
        .on(older.CARTRIDGE_ID.eq(EDITION.CARTRIDGE_ID))
        .and(older.NUMBER.eq(EDITION.NUMBER.minus(1)))
        .join(CARTRIDGE)
        .on(CARTRIDGE.ID.eq(EDITION.CARTRIDGE_ID))
        .orderBy(CARTRIDGE.TITLE, EDITION.NUMBER.desc())
        .limit(MOST)
        .fetch()
        .forEach(
            r -> {
              for (Proposal p : known.get(r.value3(), tree -> of(r.value4(), tree))) {
                if (!kept.contains(p.from().text())) {
                  all.add(new Proposed(r.value1(), r.value2(), p));
                }
              }
            });
    return all;
  }

  private List<Proposal> of(UUID older, UUID newer) {
    Map<ItemKey, String> before = new HashMap<>();
    launched(older).forEach(i -> before.put(i.key(), i.content().launch().address()));
    List<Move> moves = new ArrayList<>();
    for (Item i : launched(newer)) {
      String was = before.getOrDefault(i.key(), "");
      String is = i.content().launch().address();
      if (!was.isEmpty() && !is.isEmpty() && !was.equals(is)) {
        moves.add(new Move(was, is));
      }
    }
    return Moves.of(moves);
  }

  private List<Item> launched(UUID tree) {
    return trees.items(
        trees.tree(tree).nodes().stream().filter(n -> LAUNCHED.contains(n.kind())).toList());
  }
}
