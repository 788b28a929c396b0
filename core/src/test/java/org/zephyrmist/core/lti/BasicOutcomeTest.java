package org.zephyrmist.core.lti;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.math.BigDecimal;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class BasicOutcomeTest {
  private static final BasicOutcome EIGHT =
      new BasicOutcome("m<1>", "s1|i7|Bo & Co", new BigDecimal("0.8"));

  @Test
  void whatAToolSendsIsReadAsItWasMeant() {
    assertThat(BasicOutcome.of(EIGHT.request())).isEqualTo(EIGHT);
  }

  @ParameterizedTest
  @CsvSource({
    "0.8, 1.01, a score is a number from 0 to 1",
    "0.8, -0.1, a score is a number from 0 to 1",
    "0.8, eight, a score is a number from 0 to 1",
    "replaceResultRequest, deleteResultRequest, no replaceResultRequest",
    "<language>en, <language>de, has to be en",
    "sourcedId, other, sourcedId is missing"
  })
  void eachFlawIsNamed(String from, String to, String said) {
    String spoilt = EIGHT.request().replace(from, to);
    assertThatThrownBy(() -> BasicOutcome.of(spoilt))
        .isInstanceOf(OidcError.class)
        .hasMessageContaining(said);
  }

  @Test
  void whatIsNoXmlIsNoOutcome() {
    assertThatThrownBy(() -> BasicOutcome.of("{}")).isInstanceOf(OidcError.class);
    assertThatThrownBy(
            () -> BasicOutcome.of("<!DOCTYPE x [<!ENTITY e SYSTEM \"file:///etc/passwd\">]>&e;"))
        .isInstanceOf(OidcError.class);
  }

  @Test
  void theAnswerSaysWhetherItWasTaken() {
    assertThat(BasicOutcome.answer("m1", ""))
        .contains("<imsx_codeMajor>success", "re m1", "<replaceResultResponse/>");
    assertThat(BasicOutcome.answer("m1", "no such result"))
        .contains("<imsx_codeMajor>failure", "<imsx_description>no such result");
  }
}
