package org.zephyrmist.standins.tool;

import static org.zephyrmist.standins.db.Tables.TOOL_LOGIN;

import com.nimbusds.jose.JOSEException;
import com.nimbusds.jose.JWSAlgorithm;
import com.nimbusds.jose.crypto.RSASSAVerifier;
import com.nimbusds.jose.jwk.JWK;
import com.nimbusds.jose.jwk.JWKSet;
import com.nimbusds.jwt.JWTClaimsSet;
import com.nimbusds.jwt.SignedJWT;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.text.ParseException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.Date;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.standins.db.tables.records.ToolLoginRecord;
import org.zephyrmist.standins.db.tables.records.ToolPlatformRecord;

/**
 * Whether a message of LTI 1.3 is one (1EdTech Security Framework 1.0, section 5.1.3; LTI 1.3 core,
 * section 5.3). Written apart from what signs, so that neither proves only itself.
 */
@Component
class MessageCheck {
  static final String LTI = "https://purl.imsglobal.org/spec/lti/claim/";
  private static final int SKEW = 60;
  private final HttpClient client =
      HttpClient.newBuilder().connectTimeout(Duration.ofSeconds(5)).build();
  private final Map<String, JWKSet> keys = new ConcurrentHashMap<>();
  private final DSLContext db;
  private final Platforms platforms;
  private final Clock clock;

  MessageCheck(DSLContext db, Platforms platforms, Clock clock) {
    this.db = db;
    this.platforms = platforms;
    this.clock = clock;
  }

  /** What speaks against a message, in a sentence. */
  static final class Refused extends Exception {
    private static final long serialVersionUID = 1;

    Refused(String why) {
      super(why);
    }
  }

  /** A message that holds, and from whom. */
  record Message(ToolPlatformRecord platform, JWTClaimsSet claims) {
    String text(String name) {
      return claims.getClaim(LTI + name) instanceof String s ? s : "";
    }

    Map<?, ?> object(String name) {
      return claims.getClaim(LTI + name) instanceof Map<?, ?> m ? m : Map.of();
    }
  }

  Message message(String host, String jwt, String state, int clockOff) throws Refused {
    ToolLoginRecord login =
        db.deleteFrom(TOOL_LOGIN)
            .where(TOOL_LOGIN.STATE.eq(state))
            .and(TOOL_LOGIN.HOST.eq(host))
            .returning()
            .fetchOptional()
            .orElseThrow(() -> new Refused("This launch was used before, or nobody began it."));
    ToolPlatformRecord p =
        platforms
            .get(host, login.getIssuer(), login.getClient())
            .orElseThrow(() -> new Refused("Its registration was taken away."));
    try {
      SignedJWT signed = SignedJWT.parse(jwt);
      signature(signed, p);
      JWTClaimsSet c = signed.getJWTClaimsSet();
      claims(c, p, login, clock.instant().plusSeconds(clockOff));
      return new Message(p, c);
    } catch (ParseException e) {
      throw new Refused("The id token is none.");
    }
  }

  private void signature(SignedJWT signed, ToolPlatformRecord p) throws Refused {
    if (!JWSAlgorithm.RS256.equals(signed.getHeader().getAlgorithm())) {
      throw new Refused("The id token is not signed with RS256.");
    }
    JWK key = key(p.getKeys(), String.valueOf(signed.getHeader().getKeyID()));
    try {
      if (!signed.verify(new RSASSAVerifier(key.toRSAKey()))) {
        throw new Refused("The signature is wrong: the platform’s key is another one.");
      }
    } catch (JOSEException e) {
      throw new Refused("The platform’s key is none of RSA.");
    }
  }

  /** Keys are got anew where one is not known. */
  private JWK key(String address, String id) throws Refused {
    JWKSet known = keys.get(address);
    JWK key = known == null ? null : known.getKeyByKeyId(id);
    if (key != null) {
      return key;
    }
    try {
      HttpResponse<String> r =
          client.send(
              HttpRequest.newBuilder(URI.create(address)).timeout(Duration.ofSeconds(5)).build(),
              HttpResponse.BodyHandlers.ofString());
      JWKSet got = JWKSet.parse(r.body());
      keys.put(address, got);
      key = got.getKeyByKeyId(id);
    } catch (IOException | ParseException e) {
      throw new Refused("The platform’s keys cannot be got at " + address + ".");
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
    if (key == null) {
      throw new Refused("The key " + id + " is not in the platform’s key set.");
    }
    return key;
  }

  private static void claims(JWTClaimsSet c, ToolPlatformRecord p, ToolLoginRecord l, Instant now)
      throws Refused, ParseException {
    check(p.getIssuer().equals(c.getIssuer()), "iss is not the platform.");
    check(c.getAudience().contains(p.getClient()), "aud is not this client.");
    String azp = c.getStringClaim("azp");
    check(
        azp == null ? c.getAudience().size() == 1 : azp.equals(p.getClient()),
        "azp is not this client.");
    check(
        time(c.getExpirationTime(), now.minusSeconds(SKEW), now.plusSeconds(3600)),
        "The id token has expired, or a clock is off.");
    check(
        time(c.getIssueTime(), now.minusSeconds(600), now.plusSeconds(SKEW)),
        "The id token is not of now: a clock is off.");
    check(l.getNonce().equals(c.getStringClaim("nonce")), "nonce is another one.");
    check("1.3.0".equals(c.getClaim(LTI + "version")), "version is not 1.3.0.");
    check(
        c.getClaim(LTI + "deployment_id") instanceof String d
            && Arrays.asList(p.getDeployments()).contains(d),
        "The deployment " + c.getClaim(LTI + "deployment_id") + " is not known here.");
    check(c.getClaim(LTI + "roles") instanceof List<?>, "roles are missing.");
    check(c.getClaim(LTI + "target_link_uri") instanceof String, "target_link_uri is missing.");
    boolean link = "LtiResourceLinkRequest".equals(c.getClaim(LTI + "message_type"));
    check(
        link || "LtiDeepLinkingRequest".equals(c.getClaim(LTI + "message_type")),
        "message_type is none that this tool knows.");
    check(
        !link
            || c.getClaim(LTI + "resource_link") instanceof Map<?, ?> m
                && m.get("id") instanceof String,
        "resource_link has no id.");
  }

  private static boolean time(Date at, Instant from, Instant to) {
    return at != null && !at.toInstant().isBefore(from) && !at.toInstant().isAfter(to);
  }

  private static void check(boolean holds, String why) throws Refused {
    if (!holds) {
      throw new Refused(why);
    }
  }
}
