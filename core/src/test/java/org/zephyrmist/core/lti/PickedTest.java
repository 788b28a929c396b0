package org.zephyrmist.core.lti;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.zephyrmist.core.lti.Tools.FLYFLOOR;
import static org.zephyrmist.core.lti.Tools.ISSUER;
import static org.zephyrmist.core.lti.Tools.KEY;
import static org.zephyrmist.core.lti.Tools.NOW;
import static org.zephyrmist.core.lti.Tools.answer;

import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.zephyrmist.core.lti.Picked.Resource;
import org.zephyrmist.core.tool.RelinkRule.Link;

class PickedTest {
  private static final Map<String, Object> DRILL =
      Map.of(
          "type", "ltiResourceLink",
          "title", "Fly cue drill",
          "url", "https://flyfloor.example/r/drill",
          "custom", Map.of("resource", "drill"),
          "lineItem", Map.of("scoreMaximum", 10));

  private static Picked picked(Map<String, Object> answer) {
    return Picked.of(KEY.signed(answer), KEY.publicSet(), FLYFLOOR, ISSUER, NOW);
  }

  @Test
  void aLinkComesWithWhatItSendsAlongAndItsPoints() {
    assertThat(picked(answer(DRILL)).resources())
        .containsExactly(
            new Resource(
                true,
                "Fly cue drill",
                "",
                new Link(
                    "https://flyfloor.example/r/drill", new TreeMap<>(Map.of("resource", "drill"))),
                Optional.of(10.0)));
  }

  @Test
  void withoutAnAddressOfItsOwnTheToolsCounts() {
    Picked p = picked(answer(Map.of("type", "ltiResourceLink", "title", "All drills")));
    assertThat(p.resources().get(0).link().address()).isEqualTo("https://flyfloor.example/launch");
  }

  @Test
  void whatAMasterCannotHoldIsToldAndTheRestComes() {
    Picked p =
        picked(
            answer(
                Map.of("type", "html", "html", "<b>x</b>"),
                Map.of("type", "link", "url", "javascript:alert(1)"),
                DRILL));
    assertThat(p.resources()).hasSize(1);
    assertThat(p.left()).containsExactly("html", "link");
  }

  @ParameterizedTest
  @CsvSource({
    "iss, another, iss is another",
    "aud, https://else.example, aud does not name",
    "exp, 1, it has expired",
    "iat, 1, iat is not of now",
    "https://purl.imsglobal.org/spec/lti/claim/message_type, LtiResourceLinkRequest, message_type",
    "https://purl.imsglobal.org/spec/lti/claim/version, 1.1.0, version is not",
    "https://purl.imsglobal.org/spec/lti/claim/deployment_id, d2, deployment_id is not d1",
  })
  void eachClaimThatDoesNotHoldIsNamed(String claim, String value, String said) {
    Map<String, Object> spoilt = answer(DRILL);
    spoilt.put(claim, value.matches("\\d+") ? (Object) Long.valueOf(value) : value);
    assertThatThrownBy(() -> picked(spoilt))
        .isInstanceOf(OidcError.class)
        .hasMessageContaining(said);
  }

  @ParameterizedTest
  @CsvSource({
    "exp, exp or iat is missing",
    "https://purl.imsglobal.org/spec/lti-dl/claim/data, data of the request is missing"
  })
  void eachClaimThatIsMissingIsNamed(String claim, String said) {
    Map<String, Object> spoilt = answer(DRILL);
    spoilt.remove(claim);
    assertThatThrownBy(() -> picked(spoilt)).hasMessageContaining(said);
  }

  @Test
  void onlyTheToolsOwnKeySigns() {
    SigningKey same = SigningKey.generated("t1");
    String forged = same.signed(answer(DRILL));
    assertThatThrownBy(() -> Picked.of(forged, KEY.publicSet(), FLYFLOOR, ISSUER, NOW))
        .hasMessageContaining("the signature does not fit");
    SigningKey other = SigningKey.generated("t2");
    assertThatThrownBy(
            () -> Picked.of(other.signed(answer(DRILL)), KEY.publicSet(), FLYFLOOR, ISSUER, NOW))
        .hasMessageContaining("is not in the tool’s key set");
  }

  @Test
  void whatIsNotSignedIsNothing() {
    String unsigned = "eyJhbGciOiJub25lIn0.eyJpc3MiOiJsYXJrbW9vci03In0.";
    assertThatThrownBy(() -> Picked.of(unsigned, KEY.publicSet(), FLYFLOOR, ISSUER, NOW))
        .isInstanceOf(OidcError.class);
    assertThatThrownBy(() -> Picked.of(KEY.signed(answer(DRILL)), "<html>", FLYFLOOR, ISSUER, NOW))
        .hasMessageContaining("no key set");
  }
}
