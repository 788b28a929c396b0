package org.zephyrmist.server.library;

import static org.zephyrmist.server.db.Tables.TREE;

import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.edition.Entry;
import org.zephyrmist.core.question.QuestionSet;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.server.content.Questions;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.queue.Job;
import org.zephyrmist.server.queue.Outcome;

/** Keeps what the items of a source say, so that they can be searched; a text once. */
@Component
class KeepWords implements Job {
  private static final int BATCH = 500;

  /** Characters of a text that are searched. */
  private static final int MOST = 200_000;

  /** How PostgreSQL calls the languages it knows the endings of (its manual, chapter 12). */
  private static final Map<String, String> LANGUAGES =
      Map.ofEntries(
          Map.entry("da", "danish"),
          Map.entry("de", "german"),
          Map.entry("en", "english"),
          Map.entry("es", "spanish"),
          Map.entry("fi", "finnish"),
          Map.entry("fr", "french"),
          Map.entry("it", "italian"),
          Map.entry("nl", "dutch"),
          Map.entry("no", "norwegian"),
          Map.entry("pt", "portuguese"),
          Map.entry("sv", "swedish"));

  private final DSLContext db;
  private final Trees trees;
  private final Questions questions;

  KeepWords(DSLContext db, Trees trees, Questions questions) {
    this.db = db;
    this.trees = trees;
    this.questions = questions;
  }

  @Override
  public String name() {
    return "keep-words";
  }

  /** Drafts and editions whose words are not known, a few at a time. */
  @Override
  public Collection<UUID> strays() {
    return db.fetch(
            "select t.id from tree t where not t.words_known and (exists (select 1 from edition e"
                + " where e.tree_id = t.id) or exists (select 1 from master m where"
                + " m.draft_tree_id = t.id)) limit 20")
        .map(r -> r.get(0, UUID.class));
  }

  @Override
  public Outcome run(UUID tree) {
    // before the reading: what changes meanwhile makes the words unknown again
    db.update(TREE).set(TREE.WORDS_KNOWN, true).where(TREE.ID.eq(tree)).execute();
    String language = language(tree);
    List<Node> unknown = unknown(tree);
    for (int from = 0; from < unknown.size(); from += BATCH) {
      keep(unknown.subList(from, Math.min(unknown.size(), from + BATCH)), language);
    }
    return Outcome.ENDED;
  }

  private List<Node> unknown(UUID tree) {
    Set<String> keys =
        db
            .fetch(
                "select t.item_key from tree_item t where t.tree_id = ? and not exists (select 1"
                    + " from words w where w.fingerprint = substring(t.aspects from 1 for 32))",
                tree)
            .map(r -> r.get(0, String.class))
            .stream()
            .collect(Collectors.toSet());
    return keys.isEmpty()
        ? List.of()
        : trees.tree(tree).nodes().stream().filter(n -> keys.contains(n.key().value())).toList();
  }

  private void keep(List<Node> nodes, String language) {
    List<Item> items = trees.items(nodes);
    Map<ItemKey, QuestionSet> asked = questions.of(items);
    Map<Fingerprint, String> texts = new HashMap<>();
    for (int i = 0; i < nodes.size(); i++) {
      Item item = items.get(i);
      List<String> more =
          Optional.ofNullable(asked.get(item.key())).map(QuestionSet::texts).orElse(List.of());
      String words = item.title() + " " + Entry.words(item.content(), more);
      texts.put(
          nodes.get(i).aspects().get(Aspect.WORDING),
          words.substring(0, Math.min(MOST, words.length())));
    }
    db.query(
            "insert into words (fingerprint, language, text) select f, ?::regconfig,"
                + " to_tsvector(?::regconfig, t) from unnest(?::bytea[], ?::text[]) x(f, t) on"
                + " conflict do nothing",
            language,
            language,
            texts.keySet().stream().map(Fingerprint::bytes).toArray(byte[][]::new),
            texts.values().toArray(String[]::new))
        .execute();
  }

  /** Of the edition's language, or of the edition that a master was built on; else English. */
  private String language(UUID tree) {
    String said =
        db.fetchOptional(
                "select coalesce(e.report -> 'facts' ->> 'language', '') from edition e where"
                    + " e.tree_id = ? or e.id = (select m.edition_id from master m where"
                    + " m.draft_tree_id = ?) limit 1",
                tree,
                tree)
            .map(r -> r.get(0, String.class))
            .orElse("");
    String primary = said.strip().toLowerCase(Locale.ROOT).split("[-_]")[0];
    return primary.isEmpty() ? "english" : LANGUAGES.getOrDefault(primary, "simple");
  }
}
