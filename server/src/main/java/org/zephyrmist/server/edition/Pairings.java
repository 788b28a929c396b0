package org.zephyrmist.server.edition;

import static org.zephyrmist.server.db.Tables.EDITION;
import static org.zephyrmist.server.db.Tables.PAIR_DECISION;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.edition.Entry;
import org.zephyrmist.core.edition.Pairing;
import org.zephyrmist.core.question.QuestionSet;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;
import org.zephyrmist.server.content.Questions;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** Pairs of two editions; editions never change, so a pairing is remembered. */
@Component
class Pairings {
  private final DSLContext db;
  private final Trees trees;
  private final Questions questions;
  private final Clock clock;
  private final Events events;

  private record Of(UUID older, UUID newer, Pairing.Decided decided) {}

  private final Cache<Of, Pairing> known = Caffeine.newBuilder().maximumSize(20).build();

  Pairings(DSLContext db, Trees trees, Questions questions, Clock clock, Events events) {
    this.db = db;
    this.trees = trees;
    this.questions = questions;
    this.clock = clock;
    this.events = events;
  }

  Pairing of(UUID older, UUID newer) {
    return known.get(
        new Of(older, newer, decided(older, newer)),
        of -> Pairing.of(entries(older), entries(newer), of.decided()));
  }

  Tree tree(UUID edition) {
    return trees.tree(
        db.select(EDITION.TREE_ID)
            .from(EDITION)
            .where(EDITION.ID.eq(edition))
            .fetchOptional(EDITION.TREE_ID)
            .orElseThrow(() -> Refusal.notFound("edition")));
  }

  private List<Entry> entries(UUID edition) {
    List<Node> nodes = tree(edition).nodes();
    List<Item> items = trees.items(nodes);
    Map<ItemKey, QuestionSet> asked = questions.of(items);
    return items.stream().map(i -> Entry.of(i, Optional.ofNullable(asked.get(i.key())))).toList();
  }

  Pairing.Decided decided(UUID older, UUID newer) {
    Map<ItemKey, Optional<ItemKey>> all = new HashMap<>();
    db.selectFrom(PAIR_DECISION)
        .where(PAIR_DECISION.OLDER.eq(older))
        .and(PAIR_DECISION.NEWER.eq(newer))
        .forEach(
            r ->
                all.put(
                    new ItemKey(r.getOlderKey()),
                    Optional.ofNullable(r.getNewerKey()).map(ItemKey::new)));
    return new Pairing.Decided(all);
  }

  /**
   * Remembers what somebody decided, for every master that is built on the older edition.
   *
   * @param became none: the item is gone
   */
  @Transactional
  public void decide(UUID older, UUID newer, ItemKey key, Optional<ItemKey> became, SignedIn who) {
    Node of = tree(older).get(key).orElseThrow(() -> Refusal.notFound("item"));
    Tree there = tree(newer);
    became.ifPresent(
        b -> {
          Node n = there.get(b).orElseThrow(() -> Refusal.notFound("item"));
          if (n.kind() != of.kind()) {
            throw Refusal.bad(
                "“" + of.title() + "” and “" + n.title() + "” are of different kinds.",
                "Choose an item of the same kind.");
          }
          db.deleteFrom(PAIR_DECISION)
              .where(PAIR_DECISION.OLDER.eq(older))
              .and(PAIR_DECISION.NEWER.eq(newer))
              .and(PAIR_DECISION.NEWER_KEY.eq(b.value()))
              .execute();
        });
    db.insertInto(PAIR_DECISION)
        .set(PAIR_DECISION.OLDER, older)
        .set(PAIR_DECISION.NEWER, newer)
        .set(PAIR_DECISION.OLDER_KEY, key.value())
        .set(PAIR_DECISION.NEWER_KEY, became.map(ItemKey::value).orElse(null))
        .set(PAIR_DECISION.DECIDED_BY, who.id())
        .set(PAIR_DECISION.DECIDED_AT, OffsetDateTime.now(clock))
        .onDuplicateKeyUpdate()
        .set(PAIR_DECISION.NEWER_KEY, became.map(ItemKey::value).orElse(null))
        .set(PAIR_DECISION.DECIDED_BY, who.id())
        .set(PAIR_DECISION.DECIDED_AT, OffsetDateTime.now(clock))
        .execute();
    String said =
        became.flatMap(there::get).map(n -> "is “" + n.title() + "” now").orElse("is gone");
    events.add(who.id(), "decided a pair", of.title(), said);
  }

  /** Takes a decision back. */
  @Transactional
  public void forget(UUID older, UUID newer, ItemKey key) {
    db.deleteFrom(PAIR_DECISION)
        .where(PAIR_DECISION.OLDER.eq(older))
        .and(PAIR_DECISION.NEWER.eq(newer))
        .and(PAIR_DECISION.OLDER_KEY.eq(key.value()))
        .execute();
  }
}
