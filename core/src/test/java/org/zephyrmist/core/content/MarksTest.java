package org.zephyrmist.core.content;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class MarksTest {
  private static final Map<String, String> VALUES =
      Map.of(
          "section-code",
          "LGT 110-04",
          "help",
          "https://help.larkmoor.example/",
          "mail",
          "a@b.example");

  private static String value(String name, String words) {
    return "<data class=\"z-value\" value=\"" + name + "\">" + words + "</data>";
  }

  private static String filled(String html) {
    return Marks.filled(html, n -> Optional.ofNullable(VALUES.get(n)));
  }

  @Test
  void aValueIsFilledIn() {
    assertThat(filled("<p>You are in " + value("section-code", "section code") + ".</p>"))
        .isEqualTo("<p>You are in LGT 110-04.</p>");
  }

  @Test
  void anAddressBecomesALinkUnlessItStandsInOne() {
    assertThat(filled("<p>" + value("help", "help") + " " + value("mail", "mail") + "</p>"))
        .isEqualTo(
            "<p><a href=\"https://help.larkmoor.example/\">https://help.larkmoor.example/</a>"
                + " <a href=\"mailto:a@b.example\">a@b.example</a></p>");
    assertThat(filled("<p><a href=\"https://x.example/\">" + value("help", "help") + "</a></p>"))
        .isEqualTo("<p><a href=\"https://x.example/\">https://help.larkmoor.example/</a></p>");
  }

  @Test
  void aValueThatNobodyKnowsKeepsItsWords() {
    assertThat(filled("<p>" + value("room", "your room") + "</p>")).isEqualTo("<p>your room</p>");
  }

  @Test
  void whatAValueSaysIsTextAndNeverMarkup() {
    String html = Marks.filled(value("x", "x"), n -> Optional.of("<img src=x onerror=alert(1)>"));
    assertThat(html).doesNotContain("<img").contains("&lt;img");
  }

  @Test
  void notesDoNotLeaveAndBlanksStandInBrackets() {
    String html =
        "<p>Hours: <span class=\"z-blank\">office hours</span></p>"
            + "<aside class=\"z-builder\"><p>Ask Quay.</p></aside>"
            + "<aside class=\"z-instructor\"><p>Key in the booth.</p></aside>";
    assertThat(filled(html)).isEqualTo("<p>Hours: [office hours]</p>");
    assertThat(Marks.blanks(html)).containsExactly("office hours");
    assertThat(Marks.instructorNotes(html)).containsExactly("<p>Key in the booth.</p>");
  }

  @Test
  void aTextWithoutMarksStaysAsItIs() {
    assertThat(filled("<p>Plain  text</p>")).isEqualTo("<p>Plain  text</p>");
  }
}
