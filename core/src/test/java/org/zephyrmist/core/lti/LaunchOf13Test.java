package org.zephyrmist.core.lti;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.zephyrmist.core.lti.Tools.FLYFLOOR;
import static org.zephyrmist.core.lti.Tools.ISSUER;
import static org.zephyrmist.core.lti.Tools.KEY;
import static org.zephyrmist.core.lti.Tools.NOW;

import com.nimbusds.jose.crypto.RSASSAVerifier;
import com.nimbusds.jose.jwk.JWKSet;
import com.nimbusds.jwt.SignedJWT;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.zephyrmist.core.tool.BasicLaunch;
import org.zephyrmist.core.tool.BasicLaunch.Course;
import org.zephyrmist.core.tool.BasicLaunch.Person;
import org.zephyrmist.core.tool.BasicLaunch.Role;
import org.zephyrmist.core.tool.Privacy;
import org.zephyrmist.core.tool.RelinkRule.Link;

class LaunchOf13Test {
  private static final Map<String, String> REQUEST =
      Map.of(
          "scope", "openid",
          "response_type", "id_token",
          "response_mode", "form_post",
          "prompt", "none",
          "client_id", "larkmoor-7",
          "redirect_uri", "https://flyfloor.example/launch",
          "login_hint", "h1",
          "nonce", "n1",
          "state", "s1");

  private static BasicLaunch launch(Privacy privacy) {
    return new BasicLaunch(
        new Link("https://flyfloor.example/r/drill", new TreeMap<>(Map.of("resource", "drill"))),
        "p7",
        "Fly cue drill",
        new Course("s3", "110-03", "Stage lighting"),
        new Person("u9", "Agnes Pell", "agnes@larkmoor.example", Role.LEARNER),
        privacy,
        Optional.empty(),
        "larkmoor",
        Optional.empty());
  }

  private static Map<String, Object> claims(Privacy privacy, Optional<String> lineItem) {
    return new Messages(ISSUER, FLYFLOOR, "n1", NOW).resourceLink(launch(privacy), lineItem);
  }

  @Test
  void theLoginSaysWhoBeginsItAndWhereItIsToLead() {
    assertThat(
            new Login(ISSUER, "https://flyfloor.example/r/drill", FLYFLOOR, "h1", "m1")
                .parameters())
        .containsEntry("iss", ISSUER)
        .containsEntry("client_id", "larkmoor-7")
        .containsEntry("lti_deployment_id", "d1")
        .containsEntry("login_hint", "h1");
  }

  @Test
  void aRequestThatHoldsIsAnswered() {
    assertThat(AuthenticationRequest.of(REQUEST, FLYFLOOR))
        .isEqualTo(
            new AuthenticationRequest("https://flyfloor.example/launch", "s1", "n1", "h1", ""));
  }

  @ParameterizedTest
  @CsvSource({
    "scope, email, invalid_scope",
    "response_type, code, unsupported_response_type",
    "response_mode, query, invalid_request",
    "prompt, login, invalid_request",
    "client_id, larkmoor-8, unauthorized_client",
    "redirect_uri, https://flyfloor.example/launch/else, invalid_request",
    "redirect_uri, https://thief.example/launch, invalid_request",
    "nonce, '', invalid_request",
    "login_hint, '', invalid_request"
  })
  void eachParameterThatDoesNotHoldHasItsError(String name, String value, String code) {
    Map<String, String> spoilt = new HashMap<>(REQUEST);
    spoilt.put(name, value);
    assertThatThrownBy(() -> AuthenticationRequest.of(spoilt, FLYFLOOR))
        .isInstanceOfSatisfying(OidcError.class, e -> assertThat(e.code()).isEqualTo(code));
  }

  @Test
  void theMessageHasWhatTheStandardRequires() {
    assertThat(claims(Privacy.NOTHING, Optional.empty()))
        .containsEntry("iss", ISSUER)
        .containsEntry("aud", "larkmoor-7")
        .containsEntry("nonce", "n1")
        .containsEntry(Messages.LTI + "version", "1.3.0")
        .containsEntry(Messages.LTI + "deployment_id", "d1")
        .containsEntry(Messages.LTI + "target_link_uri", "https://flyfloor.example/r/drill")
        .containsEntry(Messages.LTI + "custom", Map.of("resource", "drill"))
        .containsEntry(
            Messages.LTI + "roles",
            List.of("http://purl.imsglobal.org/vocab/lis/v2/membership#Learner"))
        .doesNotContainKey("https://purl.imsglobal.org/spec/lti-ags/claim/endpoint");
  }

  @Test
  void nameAndMailAreSentOnlyWhereTheConnectionSaysSo() {
    assertThat(claims(Privacy.NOTHING, Optional.empty()).toString())
        .doesNotContain("Agnes", "agnes@");
    assertThat(claims(new Privacy(true, false), Optional.empty()))
        .containsEntry("name", "Agnes Pell")
        .doesNotContainKey("email");
  }

  @Test
  void scoresAreAskedForWhereThereIsALineItem() {
    assertThat(claims(Privacy.NOTHING, Optional.of("https://larkmoor.example/l/7")).toString())
        .contains("lineitem=https://larkmoor.example/l/7", Messages.SCORE);
  }

  @Test
  void theTokenIsSignedByTheKeyThatIsInTheSet() throws Exception {
    SignedJWT jwt = SignedJWT.parse(KEY.signed(claims(Privacy.NOTHING, Optional.empty())));
    JWKSet keys = JWKSet.parse(KEY.publicSet());
    assertThat(jwt.verify(new RSASSAVerifier(keys.getKeyByKeyId("t1").toRSAKey()))).isTrue();
    assertThat(keys.containsNonPublicKeys()).isFalse();
    assertThat(SigningKey.of(KEY.secret()).publicSet()).isEqualTo(KEY.publicSet());
    assertThat(KEY.toString()).doesNotContain("\"d\"");
  }

  @ParameterizedTest
  @CsvSource({"8, 10, 20, 16", "0, 5, 20, 0", "12, 10, 20, 24", "25, 25, 20, 20"})
  void scoresAreScaledToThePointsTheyCountFor(
      double given, double maximum, double points, double counts) {
    assertThat(new Score(given, maximum).of(points)).isEqualTo(counts);
  }

  @ParameterizedTest
  @CsvSource({"-1, 10", "1, 0", "NaN, 10", "1, -5", "Infinity, 3"})
  void whatIsNoScoreIsRefused(double given, double maximum) {
    assertThatThrownBy(() -> new Score(given, maximum)).isInstanceOf(OidcError.class);
  }

  @Test
  void aRegistrationThatCannotBeUsedSaysWhy() {
    assertThat(FLYFLOOR.wrong()).isEmpty();
    assertThat(
            new Registration(
                    "c", "d", "flyfloor", List.of("https://f.example/l"), "https://f.example/k")
                .wrong())
        .hasValueSatisfying(w -> assertThat(w).contains("“flyfloor” is no address"));
    assertThat(new Registration("c", "", "", List.of(), "").wrong()).isPresent();
  }
}
