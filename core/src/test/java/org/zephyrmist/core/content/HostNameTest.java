package org.zephyrmist.core.content;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class HostNameTest {
  @Test
  void capitalsAndBlanksAroundItAreNoOtherHost() {
    assertThat(HostName.of(" CueBench.Example ")).contains("cuebench.example");
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "",
        "localhost",
        "127.0.0.1",
        "https://a.example",
        "a.example/x",
        "a..example",
        "-a.example",
        "a.example:8080",
        "a b.example",
        "me@a.example"
      })
  void whatIsMoreOrLessThanAHostIsNone(String given) {
    assertThat(HostName.of(given)).isEmpty();
  }
}
