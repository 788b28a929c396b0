package org.zephyrmist.server.content;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.cartridge.CartridgeException;
import org.zephyrmist.core.cartridge.StoredQuestions;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.question.Assessment;
import org.zephyrmist.core.question.QuestionSet;

/** Questions of quizzes and banks from their files. */
@Component
public class Questions {
  private final Files files;

  Questions(Files files) {
    this.files = files;
  }

  /** The questions of an item; none if it has none, or if its file cannot be read as questions. */
  public Optional<QuestionSet> of(Item i) {
    boolean asks = i.kind() == Kind.QUIZ || i.kind() == Kind.QUESTION_BANK;
    return asks ? i.content().madeOf().flatMap(this::read) : Optional.empty();
  }

  /** The questions of many items, their files fetched at once. */
  public Map<ItemKey, QuestionSet> of(List<Item> items) {
    Map<ItemKey, FileRef> made = made(items);
    Map<String, byte[]> contents = contents(made);
    Map<ItemKey, QuestionSet> all = new HashMap<>();
    made.forEach(
        (key, f) -> {
          byte[] qti = contents.get(f.sha256());
          if (qti != null) {
            parsed(f.name(), qti).ifPresent(set -> all.put(key, set));
          }
        });
    return all;
  }

  private static Map<ItemKey, FileRef> made(List<Item> items) {
    Map<ItemKey, FileRef> made = new HashMap<>();
    for (Item i : items) {
      if (i.kind() == Kind.QUIZ || i.kind() == Kind.QUESTION_BANK) {
        i.content().madeOf().ifPresent(f -> made.put(i.key(), f));
      }
    }
    return made;
  }

  private Map<String, byte[]> contents(Map<ItemKey, FileRef> made) {
    return files.contents(made.values().stream().map(FileRef::sha256).collect(Collectors.toSet()));
  }

  /** What banks are called by the quizzes that draw from them. */
  public Map<ItemKey, String> idents(List<Item> banks) {
    Map<ItemKey, FileRef> made = made(banks);
    Map<String, byte[]> contents = contents(made);
    Map<ItemKey, String> all = new HashMap<>();
    made.forEach(
        (key, f) -> {
          try {
            all.put(key, StoredQuestions.read(f.name(), contents.get(f.sha256())).ident());
          } catch (CartridgeException e) {
            // a bank that cannot be read is drawn from by nobody
          }
        });
    return all;
  }

  private static Optional<QuestionSet> parsed(String name, byte[] qti) {
    try {
      return Optional.of(StoredQuestions.read(name, qti).set());
    } catch (CartridgeException e) {
      return Optional.empty();
    }
  }

  /** The whole document; none if it cannot be read. */
  public Optional<Assessment> assessment(FileRef f) {
    try (InputStream in = files.open(f.sha256())) {
      return Optional.of(StoredQuestions.read(f.name(), in.readAllBytes()));
    } catch (CartridgeException e) {
      return Optional.empty();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  public Optional<QuestionSet> read(FileRef f) {
    return assessment(f).map(Assessment::set);
  }
}
