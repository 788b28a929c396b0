package org.zephyrmist.server.master;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.core.delivery.Attachments;
import org.zephyrmist.core.delivery.Needs;
import org.zephyrmist.server.content.Questions;
import org.zephyrmist.server.content.Trees;

/** What the items of versions need; a version never changes, so it is read once. */
@Component
public class VersionNeeds {
  private static final int KEPT = 24;
  private final Trees trees;
  private final Questions questions;
  private final Cache<UUID, Known> known = Caffeine.newBuilder().maximumSize(KEPT).build();

  private record Known(Needs needs, int attaching) {}

  VersionNeeds(Trees trees, Questions questions) {
    this.trees = trees;
    this.questions = questions;
  }

  public Needs of(Versions.Version v) {
    return known.get(v.id(), id -> read(v)).needs();
  }

  /** How many items of it have files attached. */
  public int attaching(Versions.Version v) {
    return known.get(v.id(), id -> read(v)).attaching();
  }

  private Known read(Versions.Version v) {
    List<Item> items = trees.items(v.tree().nodes());
    Map<String, ItemKey> banks = new HashMap<>();
    questions
        .idents(items.stream().filter(i -> i.kind() == Kind.QUESTION_BANK).toList())
        .forEach((key, ident) -> banks.putIfAbsent(ident, key));
    List<Item> quizzes = items.stream().filter(i -> i.kind() == Kind.QUIZ).toList();
    return new Known(
        Needs.of(v.tree(), items, questions.of(quizzes), banks),
        (int) items.stream().map(Wording::of).filter(Attachments::stand).count());
  }
}
