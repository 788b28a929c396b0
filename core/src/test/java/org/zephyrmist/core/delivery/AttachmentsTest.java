package org.zephyrmist.core.delivery;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Wording;

class AttachmentsTest {
  private static final FileRef OLD = new FileRef("0".repeat(64), "plan.pdf", "application/pdf", 7);
  private static final FileRef NEW = new FileRef("1".repeat(64), "plan.pdf", "application/pdf", 8);
  private static final Wording VERSION =
      Wording.of("Exercise", "<p>Draw it.</p>").withAttached(List.of(NEW));

  @Test
  void whatIsNewComesWithoutThem() {
    assertThat(Attachments.leftOut(VERSION, Optional.empty()))
        .isEqualTo(Wording.of("Exercise", "<p>Draw it.</p>"));
  }

  @Test
  void whatIsThereKeepsThoseThatCameWithItAndGetsTheNewText() {
    Wording sent = Wording.of("Exercise", "<p>Draw.</p>").withAttached(List.of(OLD));
    Wording becomes = Attachments.leftOut(VERSION, Optional.of(sent));
    assertThat(becomes.html()).isEqualTo("<p>Draw it.</p>");
    assertThat(becomes.attached()).containsExactly(OLD);
  }

  @Test
  void picturesOfQuestionsAreNoAttachments() {
    assertThat(Attachments.stand(VERSION)).isTrue();
    assertThat(Attachments.stand(VERSION.withQuestions(OLD, 3, List.of(NEW)))).isFalse();
  }
}
