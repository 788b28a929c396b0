package org.zephyrmist.core.delivery;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Sample;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.core.tree.Tree;

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

  private static final ItemKey KEY = new ItemKey("exercise");
  private static final Tree TREE = Sample.tree(node(VERSION));

  private static Node node(Wording w) {
    Node n = Sample.in(null, "exercise", Kind.ASSIGNMENT);
    return n.withAspects(n.aspects().with(Aspect.WORDING, print(w)));
  }

  private static Fingerprint print(Wording w) {
    return Fingerprint.of(AspectForms.form(w));
  }

  private static Base base(Wording sent) {
    Fingerprints f = node(sent).aspects();
    return new Base(KEY, Kind.ASSIGNMENT, "Exercise", "p", f, f);
  }

  private static Map<Fingerprint, String> forms(Wording... all) {
    return Arrays.stream(all).collect(Collectors.toMap(w -> print(w), AspectForms::form));
  }

  private static Fingerprint becomes(Map<ItemKey, Base> bases, Wording... known) {
    Attachments.Bare bare = Attachments.leftOut(TREE, bases, forms(known));
    return bare.tree().get(KEY).orElseThrow().aspects().get(Aspect.WORDING);
  }

  @Test
  void aTreeSaysForEachSectionWhatItKeeps() {
    Wording none = VERSION.withAttached(List.of());
    Wording old = VERSION.withAttached(List.of(OLD));
    assertThat(becomes(Map.of(), VERSION)).isEqualTo(print(none));
    assertThat(becomes(Map.of(KEY, base(old)), VERSION, old)).isEqualTo(print(old));
    assertThat(becomes(Map.of(KEY, base(VERSION)), VERSION))
        .as("it has what the version says")
        .isEqualTo(print(VERSION));
    assertThat(becomes(Map.of(KEY, base(old)), VERSION))
        .as("what was sent is not known")
        .isEqualTo(print(VERSION));
    assertThat(Attachments.wordings(TREE, List.of(base(old))))
        .containsExactlyInAnyOrder(print(VERSION), print(old));
  }

  @Test
  void inAForecastOnlyAnotherTextHasMoved() {
    Wording old = VERSION.withAttached(List.of(OLD));
    Wording text = old.withHtml("<p>Draw.</p>");
    for (Wording sent : List.of(old, text)) {
      Forecast.Holds h = new Forecast.Holds(base(sent), Optional.empty(), new BitSet());
      Base as = Attachments.leftOut(TREE, List.of(h), forms(VERSION, sent)).get(0).base();
      assertThat(as.sent().get(Aspect.WORDING))
          .isEqualTo(sent == old ? print(VERSION) : print(text));
    }
  }
}
