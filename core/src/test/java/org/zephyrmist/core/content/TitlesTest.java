package org.zephyrmist.core.content;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class TitlesTest {
  @ParameterizedTest
  @CsvSource({
    "- Reading 2, Reading 2",
    "-- Reading 2, Reading 2",
    "… > Reading 2, Reading 2",
    "•  (optional) Reading, (optional) Reading",
    ".NET for stage hands, .NET for stage hands",
    "*Bring gloves, *Bring gloves",
    "--, --",
    "Week 1 - Light, Week 1 - Light"
  })
  void whatOnlyIndentsATitleGoesAndItsWordsStay(String title, String plain) {
    assertThat(Titles.unindented(title)).isEqualTo(plain);
    assertThat(Titles.unindented(plain)).as("twice is once").isEqualTo(plain);
  }
}
