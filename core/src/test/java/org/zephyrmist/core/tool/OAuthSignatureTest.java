package org.zephyrmist.core.tool;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.tool.OAuthSignature.Parameter;

/** The examples of RFC 5849. */
class OAuthSignatureTest {
  private static List<Parameter> parameters(String... namesAndValues) {
    List<Parameter> all = new ArrayList<>();
    for (int i = 0; i < namesAndValues.length; i += 2) {
      all.add(new Parameter(namesAndValues[i], namesAndValues[i + 1]));
    }
    return all;
  }

  @Test
  void theBaseStringOfSection3_4_1_1() {
    String base =
        OAuthSignature.base(
            "post",
            "http://EXAMPLE.COM:80/request?b5=%3D%253D&a3=a&c%40=&a2=r%20b",
            parameters(
                "oauth_consumer_key",
                "9djdj82h48djs9d2",
                "oauth_token",
                "kkk9d7dh3k39sjv7",
                "oauth_signature_method",
                "HMAC-SHA1",
                "oauth_timestamp",
                "137131201",
                "oauth_nonce",
                "7d8f3e4a",
                "c2",
                "",
                "a3",
                "2 q"));
    assertThat(base)
        .isEqualTo(
            "POST&http%3A%2F%2Fexample.com%2Frequest&a2%3Dr%2520b%26a3%3D2%2520q%26a3%3Da%26b5"
                + "%3D%253D%25253D%26c%2540%3D%26c2%3D%26oauth_consumer_key%3D9djdj82h48djs9d2"
                + "%26oauth_nonce%3D7d8f3e4a%26oauth_signature_method%3DHMAC-SHA1"
                + "%26oauth_timestamp%3D137131201%26oauth_token%3Dkkk9d7dh3k39sjv7");
  }

  @Test
  void theRequestForATokenOfSection1_2() {
    String base =
        OAuthSignature.base(
            "POST",
            "https://photos.example.net/token",
            parameters(
                "oauth_consumer_key",
                "dpf43f3p2l4k3l03",
                "oauth_signature_method",
                "HMAC-SHA1",
                "oauth_timestamp",
                "137131201",
                "oauth_nonce",
                "walatlh",
                "oauth_token",
                "hh5s93j4hdidpola",
                "oauth_verifier",
                "hfdp7dh39dks9884"));
    assertThat(
            OAuthSignature.encoded(OAuthSignature.of(base, "kd94hf93k423kf44", "hdhd0244k9j7ao03")))
        .isEqualTo("gKgrFCywp7rO0OXSjdot%2FIHF7IU%3D");
  }

  @Test
  void theLastRequestOfSection1_2() {
    String base =
        OAuthSignature.base(
            "GET",
            "http://photos.example.net/photos?file=vacation.jpg&size=original",
            parameters(
                "oauth_consumer_key",
                "dpf43f3p2l4k3l03",
                "oauth_token",
                "nnch734d00sl2jdk",
                "oauth_signature_method",
                "HMAC-SHA1",
                "oauth_timestamp",
                "137131202",
                "oauth_nonce",
                "chapoH"));
    assertThat(OAuthSignature.of(base, "kd94hf93k423kf44", "pfkkdhi9sl3r4s00"))
        .isEqualTo("MdpQcU8iPSUjWoN/UDMsK2sui9I=");
  }

  @Test
  void whatIsNoLetterIsEncodedByteByByte() {
    assertThat(OAuthSignature.encoded("a-b._~ +%é☃")).isEqualTo("a-b._~%20%2B%25%C3%A9%E2%98%83");
  }

  @Test
  void aBodyThatIsNoFormIsSignedByItsHash() {
    // the example of OAuth Request Body Hash, draft 4, section 4.1
    assertThat(OAuthSignature.bodyHash("Hello World!".getBytes(StandardCharsets.UTF_8)))
        .isEqualTo("Lve95gjOVATpfV8EL5X4nxwjKHE=");
  }

  @Test
  void theAuthorizationHeaderIsReadWithoutItsRealm() {
    assertThat(
            OAuthSignature.authorization(
                "OAuth realm=\"Photos\", oauth_consumer_key=\"dpf43f3p2l4k3l03\","
                    + " oauth_signature=\"74KNZJeDHnMBp0EMJ9ZHt%2FXKycU%3D\""))
        .containsOnlyKeys("oauth_consumer_key", "oauth_signature")
        .containsEntry("oauth_signature", "74KNZJeDHnMBp0EMJ9ZHt/XKycU=");
  }
}
