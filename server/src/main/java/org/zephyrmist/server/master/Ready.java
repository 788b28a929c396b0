package org.zephyrmist.server.master;

import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import org.jooq.JSONB;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.check.Finding;
import org.zephyrmist.core.check.Guard;
import org.zephyrmist.core.check.Readiness;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.tree.Tree;
import org.zephyrmist.server.content.Files;
import org.zephyrmist.server.content.FrameHosts;
import org.zephyrmist.server.content.Questions;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.content.Values;
import org.zephyrmist.server.db.tables.records.MasterRecord;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Whether drafts are ready to be frozen, and what masters are limited to. */
@Component
class Ready {
  private static final TypeReference<TreeMap<Kind, Integer>> MOST = new TypeReference<>() {};
  private final Trees trees;
  private final Files files;
  private final FrameHosts frames;
  private final Questions questions;
  private final Values values;
  private final JsonMapper json;

  Ready(
      Trees trees,
      Files files,
      FrameHosts frames,
      Questions questions,
      Values values,
      JsonMapper json) {
    this.trees = trees;
    this.files = files;
    this.frames = frames;
    this.questions = questions;
    this.values = values;
    this.json = json;
  }

  /** What is to be looked at in a draft; some queries for however many items. */
  List<Finding> findings(MasterRecord master) {
    Tree tree = trees.tree(master.getDraftTreeId());
    List<Item> items = trees.items(tree.nodes());
    List<Item> banks = items.stream().filter(i -> i.kind() == Kind.QUESTION_BANK).toList();
    List<Item> quizzes = items.stream().filter(i -> i.kind() == Kind.QUIZ).toList();
    return Readiness.of(
        new Readiness.Draft(
            tree,
            items,
            guard(master),
            kept(items),
            frames.approved(),
            values.names(),
            questions.of(quizzes),
            new HashSet<>(questions.idents(banks).values())));
  }

  private Set<String> kept(List<Item> items) {
    Map<String, String> named = new TreeMap<>();
    items.forEach(
        i ->
            References.files(i.content().html())
                .forEach(f -> named.putIfAbsent(f.sha256(), f.name())));
    return files.refs(named).keySet();
  }

  Guard guard(MasterRecord master) {
    return new Guard(json.readValue(master.getGuard().data(), MOST));
  }

  JSONB stored(SortedMap<Kind, Integer> most) {
    return JSONB.valueOf(json.writeValueAsString(most));
  }
}
