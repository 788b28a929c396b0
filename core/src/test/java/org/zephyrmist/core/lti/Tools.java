package org.zephyrmist.core.lti;

import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** A tool that is registered, and its key. */
final class Tools {
  static final Instant NOW = Instant.parse("2027-01-11T09:00:00Z");
  static final String ISSUER = "https://larkmoor.example";
  static final SigningKey KEY = SigningKey.generated("t1");
  static final Registration FLYFLOOR =
      new Registration(
          "larkmoor-7",
          "d1",
          "https://flyfloor.example/login",
          List.of("https://flyfloor.example/launch", "https://flyfloor.example/pick"),
          "https://flyfloor.example/keys");

  private Tools() {}

  /** An answer to deep linking that holds, to be spoilt. */
  static Map<String, Object> answer(Object... items) {
    Map<String, Object> all = new LinkedHashMap<>();
    all.put("iss", FLYFLOOR.client());
    all.put("aud", ISSUER);
    all.put("iat", NOW.getEpochSecond());
    all.put("exp", NOW.plusSeconds(300).getEpochSecond());
    all.put("nonce", "n1");
    all.put(Messages.LTI + "message_type", "LtiDeepLinkingResponse");
    all.put(Messages.LTI + "version", "1.3.0");
    all.put(Messages.LTI + "deployment_id", FLYFLOOR.deployment());
    all.put(Messages.DEEP + "data", "pick-1");
    all.put(Messages.DEEP + "content_items", List.of(items));
    return all;
  }
}
