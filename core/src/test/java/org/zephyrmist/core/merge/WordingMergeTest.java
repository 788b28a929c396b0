package org.zephyrmist.core.merge;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Laws;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Html;
import org.zephyrmist.core.content.Wording;

class WordingMergeTest {
  private static final Wording BASE =
      Wording.of("Loads", "<p>It carries 2400 watts.</p><ul><li>one</li><li>two</li></ul>");

  private static WordingMerge merged(Wording ours, Wording theirs) {
    return WordingMerge.of(BASE, ours, theirs).orElseThrow();
  }

  @Test
  void aTitleIsMergedApartFromTheTextBelowIt() {
    WordingMerge m =
        merged(BASE.withTitle("Loads, Karl"), BASE.withHtml(BASE.html().replace("2400", "1920")));
    assertThat(m.clean()).isTrue();
    assertThat(m.wording().title()).isEqualTo("Loads, Karl");
    assertThat(m.wording().html()).contains("1920");
  }

  @Test
  void ofTwoTitlesOursStaysAndSomebodyIsAsked() {
    WordingMerge m = merged(BASE.withTitle("Karl"), BASE.withTitle("Weights"));
    assertThat(m.clean()).isFalse();
    assertThat(m.wording().title()).isEqualTo("Karl");
  }

  @Test
  void wordsWithinListsAreMerged() {
    WordingMerge m =
        merged(
            BASE.withHtml(BASE.html().replace("<li>one", "<li>one and Karl")),
            BASE.withHtml(BASE.html().replace("<li>two", "<li>two and more")));
    assertThat(m.clean()).isTrue();
    assertThat(m.wording().html()).contains("one and Karl").contains("two and more");
  }

  @Test
  void filesThatBothExchangedCannotStandSideBySide() {
    FileRef a = new FileRef("a".repeat(64), "a.pdf", "application/pdf", 1);
    FileRef b = new FileRef("b".repeat(64), "b.pdf", "application/pdf", 1);
    assertThat(WordingMerge.of(BASE, BASE.withFile(Optional.of(a)), BASE.withFile(Optional.of(b))))
        .isEmpty();
    assertThat(merged(BASE.withAttached(List.of(a)), BASE.withAttached(List.of(b))).wording())
        .extracting(Wording::attached)
        .isEqualTo(List.of(a, b));
  }

  @Test
  void noWordOfEitherSideIsLost() {
    Laws.hold(
        random -> {
          String[] pieces = {
            "<p>one two</p>", "<p>three</p>", "<ul><li>four</li></ul>", "<h2>x</h2>"
          };
          Wording base = Wording.of("T", Html.canonical(Laws.text(random, 6, pieces)));
          Wording ours = base.withHtml(Html.canonical(base.html() + "<p>mine</p>"));
          Wording theirs = base.withHtml(Html.canonical("<p>theirs</p>" + base.html()));
          String both = WordingMerge.of(base, ours, theirs).orElseThrow().wording().html();
          assertThat(both).contains("mine").contains("theirs");
        });
  }
}
