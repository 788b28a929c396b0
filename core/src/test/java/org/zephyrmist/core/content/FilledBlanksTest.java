package org.zephyrmist.core.content;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Laws;

class FilledBlanksTest {
  private static final List<String> HOURS = List.of("office hours", "room");
  private static final String DELIVERED =
      "<h2>Who teaches</h2><p>I am in [room] at [office hours].</p><ul><li>[room]</li></ul>";

  private static Map<String, String> of(String here) {
    return FilledBlanks.of(HOURS, DELIVERED, here);
  }

  @Test
  void whatStandsInThePlaceOfABlankIsWhatItWasFilledWith() {
    assertThat(of(DELIVERED.replace("[room]", "B 12").replace("[office hours]", "<b>Mon</b> 2")))
        .isEqualTo(Map.of("room", "B 12", "office hours", "<b>Mon</b> 2"));
  }

  @Test
  void aBlankThatIsOpenOrEmptiedIsNotFilled() {
    assertThat(of(DELIVERED)).isEmpty();
    assertThat(of(DELIVERED.replace("[office hours]", ""))).isEmpty();
    assertThat(of(DELIVERED.replace("[office hours]", "noon"))).containsOnlyKeys("office hours");
  }

  @Test
  void itIsFoundWhereItsSentenceMoved() {
    assertThat(of("<p>Welcome!</p><p>I am in B 12 at [office hours].</p>"))
        .isEqualTo(Map.of("room", "B 12"));
  }

  @Test
  void aSentenceThatWasRewrittenTellsNothing() {
    assertThat(of("<h2>Who teaches</h2><p>Find me backstage.</p><ul></ul>")).isEmpty();
  }

  @Test
  void halfAnElementIsNotTaken() {
    assertThat(
            FilledBlanks.of(
                List.of("x"), "<p>At <i>[x]</i> or [x].</p>", "<p>At <i>a</i> or <b>c</b>.</p>"))
        .isEqualTo(Map.of("x", "a"));
  }

  @Test
  void aNewerTextIsFilledWithWhatIsKnown() {
    assertThat(
            FilledBlanks.fill(
                "<p>Room: [room]; hours: [office hours]; key: [key]</p>",
                Map.of("room", "B&amp;12", "office hours", "[room]")))
        .isEqualTo("<p>Room: B&amp;12; hours: [room]; key: [key]</p>");
  }

  @Test
  void manyBlanksInALongSentenceAreFoundAtOnce() {
    List<String> labels = IntStream.range(0, 30).mapToObj(i -> "n" + i).toList();
    String blanks = labels.stream().map(l -> "a [" + l + "] a").collect(Collectors.joining());
    String other = "<p>" + "a a ".repeat(50_000) + "b</p>";
    assertThat(FilledBlanks.of(labels, "<p>" + blanks + "</p>", other)).isEmpty();
    assertThat(
            FilledBlanks.of(
                labels,
                "<p>" + blanks + "</p>",
                "<p>" + blanks.replaceAll("\\[n(\\d+)\\]", "x$1") + "</p>"))
        .hasSize(30)
        .containsEntry("n7", "x7");
  }

  @Test
  void whatWasFilledInIsFoundAgain() {
    List<String> said =
        List.of("Mon 2 to 4", "<b>by the loading dock</b>", "B 12", "1 &lt; 2", "ask", "Room");
    String delivered = Html.canonical(DELIVERED);
    Laws.hold(
        random -> {
          Map<String, String> filled = new HashMap<>();
          HOURS.forEach(h -> filled.put(h, said.get(random.nextInt(said.size()))));
          String here = FilledBlanks.fill(delivered, filled);
          assertThat(FilledBlanks.of(HOURS, delivered, here)).isEqualTo(filled);
          assertThat(FilledBlanks.fill(here, filled)).isEqualTo(here);
        });
  }
}
