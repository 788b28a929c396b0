package org.zephyrmist.core.merge;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Laws;
import org.zephyrmist.core.content.Html;

class MergeTest {
  private static List<String> drawn(Random r, int most) {
    List<String> all = new ArrayList<>();
    for (int n = r.nextInt(most + 1); n > 0; n--) {
      all.add(String.valueOf((char) ('a' + r.nextInt(4))));
    }
    return all;
  }

  private static int longest(List<String> a, List<String> b) {
    int[][] l = new int[a.size() + 1][b.size() + 1];
    for (int i = 1; i <= a.size(); i++) {
      for (int j = 1; j <= b.size(); j++) {
        l[i][j] =
            a.get(i - 1).equals(b.get(j - 1))
                ? l[i - 1][j - 1] + 1
                : Math.max(l[i - 1][j], l[i][j - 1]);
      }
    }
    return l[a.size()][b.size()];
  }

  @Test
  void anAlignmentPairsEqualElementsInOrderAndAsManyAsCanBe() {
    Laws.hold(
        r -> {
          List<String> a = drawn(r, 12);
          List<String> b = drawn(r, 12);
          int[] partner = Alignment.of(a, b);
          int last = -1;
          int pairs = 0;
          for (int i = 0; i < partner.length; i++) {
            if (partner[i] >= 0) {
              assertThat(partner[i]).isGreaterThan(last);
              assertThat(b.get(partner[i])).isEqualTo(a.get(i));
              last = partner[i];
              pairs++;
            }
          }
          assertThat(pairs).isEqualTo(longest(a, b));
        });
  }

  @Test
  void stretchesHoldTheThreeSequencesWholeAndOnlyOneSideChangedOutsideClashes() {
    Laws.hold(
        r -> {
          List<String> base = drawn(r, 10);
          List<String> ours = drawn(r, 10);
          List<String> theirs = drawn(r, 10);
          List<Merge.Stretch<String>> all = Merge.of(base, ours, theirs);
          assertThat(all.stream().flatMap(s -> s.base().stream()))
              .isEqualTo(base.stream().toList());
          assertThat(all.stream().flatMap(s -> s.ours().stream()))
              .isEqualTo(ours.stream().toList());
          assertThat(all.stream().flatMap(s -> s.theirs().stream()))
              .isEqualTo(theirs.stream().toList());
        });
  }

  @Test
  void whatOnlyOneSideChangedIsTakenAndEqualChangesAreOne() {
    Laws.hold(
        r -> {
          List<String> base = drawn(r, 10);
          List<String> other = drawn(r, 10);
          assertThat(result(Merge.of(base, base, other))).isEqualTo(other);
          assertThat(result(Merge.of(base, other, base))).isEqualTo(other);
          assertThat(result(Merge.of(base, other, other))).isEqualTo(other);
        });
  }

  private static List<String> result(List<Merge.Stretch<String>> all) {
    return all.stream().flatMap(s -> s.result().stream()).toList();
  }

  private static final String P =
      "<p>A 20-amp circuit carries 2,400 watts. Add up every lantern.</p>";

  @Test
  void otherParagraphsOfTwoSidesComeTogether() {
    TextMerge m =
        TextMerge.of(
            P + "<p>Last.</p>",
            P + "<p>Mill studio.</p><p>Last.</p>",
            "<p>First.</p>" + P + "<p>Last.</p>");
    assertThat(m.clean()).isTrue();
    assertThat(m.together()).isEqualTo("<p>First.</p>" + P + "<p>Mill studio.</p><p>Last.</p>");
  }

  @Test
  void otherWordsOfOneParagraphComeTogether() {
    String ours = P.replace("</p>", " In the Mill studio each bar has two.</p>");
    String theirs = P.replace("2,400 watts", "1,920 watts in steady use");
    TextMerge m = TextMerge.of(P, ours, theirs);
    assertThat(m.passages())
        .singleElement()
        .satisfies(p -> assertThat(p.from()).isEqualTo(Merge.From.MERGED));
    assertThat(m.together())
        .isEqualTo(
            "<p>A 20-amp circuit carries 1,920 watts in steady use. Add up every lantern."
                + " In the Mill studio each bar has two.</p>");
  }

  @Test
  void whereBothMadeOneChangeAndOneWentFurtherThatOneIsTaken() {
    String theirs = P.replace("2,400 watts", "1,920 watts in steady use");
    String ours = P.replace("2,400 watts", "1,920 watts in steady use: plan to 80 %");
    assertThat(TextMerge.of(P, ours, theirs).together()).isEqualTo(ours);
    assertThat(TextMerge.of(P, theirs, ours).together()).isEqualTo(ours);
  }

  @Test
  void theSameWordsChangedOtherwiseAreAClashWithBothKept() {
    TextMerge m = TextMerge.of("<p>one</p>", "<p>two</p>", "<p>three</p>");
    assertThat(m.clean()).isFalse();
    assertThat(m.together()).isEqualTo("<p>two</p><p>three</p>");
  }

  @Test
  void aTableOrListIsAWholeBlock() {
    String table = "<table><tbody><tr><td>15 A</td></tr></tbody></table>";
    TextMerge m =
        TextMerge.of(
            table,
            table.replace("15", "16"),
            table.replace("</tbody>", "<tr><td>20 A</td></tr></tbody>"));
    assertThat(Html.blocks(m.together())).hasSize(1);
    assertThat(m.together()).contains("16 A").contains("20 A");
  }

  @Test
  void mergingIsCleanWhereOneSideIsTheBase() {
    Laws.hold(
        r -> {
          String base =
              Html.canonical(
                  Laws.text(r, 6, "<p>a b</p>", "<p>c</p>", "text ", "<ul><li>x</li></ul>"));
          String other =
              Html.canonical(
                  Laws.text(r, 6, "<p>a d</p>", "<p>c</p>", "text ", "<ul><li>y</li></ul>"));
          assertThat(TextMerge.of(base, base, other).clean()).isTrue();
          assertThat(TextMerge.of(base, base, other).together()).isEqualTo(other);
          assertThat(TextMerge.of(base, other, base).together()).isEqualTo(other);
        });
  }

  @Test
  void aBlockPutBesideOneThatTheOtherChangedDoesNotClash() {
    String base = "<p>Print the sheet.</p>";
    String added = "<p>Print the sheet.</p><p>In our house there are two.</p>";
    String changed = "<p>Print two of the sheet.</p>";
    String both = "<p>Print two of the sheet.</p><p>In our house there are two.</p>";
    assertThat(TextMerge.of(base, added, changed).clean()).isTrue();
    assertThat(TextMerge.of(base, added, changed).together()).isEqualTo(both);
    assertThat(TextMerge.of(base, changed, added).together()).isEqualTo(both);
    String before = "<p>First of all.</p><p>Print the sheet.</p>";
    assertThat(TextMerge.of(base, before, changed).together())
        .isEqualTo("<p>First of all.</p><p>Print two of the sheet.</p>");
  }

  @Test
  void aParagraphThatWasChangedIsFoundAmongOthersThatWerePutInAndTakenOut() {
    TextMerge m =
        TextMerge.of(
            "<p>A circuit carries 2,400 watts.</p><p>Count each lamp.</p><p>Old.</p>",
            "<p>A circuit carries 2,400 watts.</p><p>Count each lamp, and the practicals.</p><p>More.</p>",
            "<p>A circuit carries 1,920 watts.</p><p>Count each lamp.</p><p>Old.</p>");
    assertThat(m.clean()).isTrue();
    assertThat(m.together())
        .isEqualTo(
            "<p>A circuit carries 1,920 watts.</p><p>Count each lamp, and the practicals.</p><p>More.</p>");
  }

  @Test
  void whatOneChangedAndTheOtherTookOutIsAsked() {
    TextMerge m =
        TextMerge.of(
            "<p>A circuit carries 2,400 watts.</p><p>Count each lamp.</p>",
            "<p>A circuit carries 2,300 watts.</p><p>Count each lamp now.</p><p>More.</p>",
            "<p>Count each lamp.</p>");
    assertThat(m.clean()).isFalse();
    assertThat(m.together()).contains("2,300").contains("More.");
  }
}
