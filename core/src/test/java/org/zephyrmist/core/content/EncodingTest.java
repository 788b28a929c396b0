package org.zephyrmist.core.content;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Laws;

/** Pages whose letters are written in another way than they say, or that say nothing. */
class EncodingTest {
  private static final String PAGE =
      "<html><head><title>Öl und Rauch</title></head><body><p>Größe: 5 €, “café” — naïve</p></body></html>";
  private static final Charset WINDOWS = Charset.forName("windows-1252");

  private static Html.Body read(byte[] page) {
    return Html.body(page, base -> UnaryOperator.identity());
  }

  @Test
  void windows1252WithoutADeclarationIsReadAsSuchAndTold() {
    Html.Body b = read(PAGE.getBytes(WINDOWS));
    assertThat(b.html()).contains("Größe: 5 €, “café” — naïve");
    assertThat(b.title()).isEqualTo("Öl und Rauch");
    assertThat(b.guessed()).contains("windows-1252");
  }

  @Test
  void aDeclarationThatIsWrongDoesNotDamageLetters() {
    String declared = PAGE.replace("<head>", "<head><meta charset=\"utf-8\">");
    assertThat(read(declared.getBytes(WINDOWS)).html()).contains("Größe: 5 €");
    assertThat(read(declared.getBytes(StandardCharsets.UTF_8)).guessed()).isEmpty();
  }

  @Test
  void aDeclarationThatFitsIsKeptTo() {
    String declared = PAGE.replace("<head>", "<head><meta charset=\"windows-1252\">");
    Html.Body b = read(declared.getBytes(WINDOWS));
    assertThat(b.html()).contains("Größe: 5 €");
    assertThat(b.guessed()).isEmpty();
  }

  @Test
  void utf16WithoutAMarkIsReadAsSuchAndTold() {
    for (Charset c : new Charset[] {StandardCharsets.UTF_16LE, StandardCharsets.UTF_16BE}) {
      Html.Body b = read(PAGE.getBytes(c));
      assertThat(b.html()).as(c.name()).contains("Größe: 5 €, “café” — naïve");
      assertThat(b.guessed()).contains(c.name());
    }
    assertThat(read(("\uFEFF" + PAGE).getBytes(StandardCharsets.UTF_16BE)).html())
        .contains("Größe");
  }

  @Test
  void whateverIsWrittenInUtf8IsNeverGuessed() {
    Laws.hold(
        random -> {
          String text = Laws.text(random, 12, "plain ", "Größe ", "€ ", "“x” ", "日本 ", "😀 ", "é");
          Html.Body b = read(("<p>" + text + "</p>").getBytes(StandardCharsets.UTF_8));
          assertThat(b.guessed()).isEmpty();
          assertThat(Html.text(b.html()).strip()).isEqualTo(text.strip());
        });
  }
}
