package org.zephyrmist.server.content;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.cartridge.CartridgeException;
import org.zephyrmist.core.cartridge.StoredQuestions;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.Kind;
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

  public Optional<QuestionSet> read(FileRef f) {
    try (InputStream in = files.open(f.sha256())) {
      return Optional.of(StoredQuestions.read(f.name(), in.readAllBytes()).set());
    } catch (CartridgeException e) {
      return Optional.empty();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
