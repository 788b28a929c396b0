package org.zephyrmist.core.lti;

import com.nimbusds.jose.JOSEException;
import com.nimbusds.jose.JWSAlgorithm;
import com.nimbusds.jose.crypto.RSASSAVerifier;
import com.nimbusds.jose.jwk.JWK;
import com.nimbusds.jose.jwk.JWKSet;
import com.nimbusds.jwt.JWTClaimsSet;
import com.nimbusds.jwt.SignedJWT;
import java.text.ParseException;
import java.time.Duration;
import java.time.Instant;
import java.util.Date;

/**
 * What a tool signs: answers to deep linking, and assertions by which it asks for a token (1EdTech
 * Security Framework 1.0, sections 5.2.2 and 4.1).
 */
public final class SignedByTool {
  private static final Duration SKEW = Duration.ofMinutes(1);
  private static final Duration OLDEST = Duration.ofHours(1);

  private SignedByTool() {}

  /**
   * @param keySet of the tool, as it was got
   * @param client that it has to be from
   * @param audience that it has to be for
   * @throws OidcError for the first thing that is wrong
   */
  static JWTClaimsSet claims(
      String jwt, String keySet, String client, String audience, Instant now) {
    try {
      SignedJWT signed = SignedJWT.parse(jwt);
      verify(signed, JWKSet.parse(keySet));
      JWTClaimsSet c = signed.getJWTClaimsSet();
      if (!client.equals(c.getIssuer())) {
        throw wrong("iss is " + c.getIssuer() + ", not the client " + client);
      }
      if (!c.getAudience().contains(audience)) {
        throw wrong("aud does not name " + audience);
      }
      time(c, now);
      return c;
    } catch (ParseException e) {
      throw wrong("this is no signed JWT, or there is no key set where the tool says");
    }
  }

  /**
   * The client of a tool that asks for a token, if its assertion holds (RFC 7523, section 3).
   *
   * @return id of the assertion, which may not be used again
   */
  public static String assertion(
      String jwt, String keySet, String client, String audience, Instant now) {
    JWTClaimsSet c = claims(jwt, keySet, client, audience, now);
    if (!client.equals(c.getSubject())) {
      throw wrong("sub is not the client " + client);
    }
    if (c.getJWTID() == null) {
      throw wrong("jti is missing");
    }
    return c.getJWTID();
  }

  /** Whom it says it is from; nothing of it is checked yet. */
  public static String issuer(String jwt) {
    try {
      String issuer = SignedJWT.parse(jwt).getJWTClaimsSet().getIssuer();
      return issuer == null ? "" : issuer;
    } catch (ParseException e) {
      throw wrong("this is no signed JWT");
    }
  }

  private static void verify(SignedJWT signed, JWKSet keys) {
    if (!JWSAlgorithm.RS256.equals(signed.getHeader().getAlgorithm())) {
      throw wrong("it is not signed with RS256");
    }
    JWK key = keys.getKeyByKeyId(signed.getHeader().getKeyID());
    if (key == null) {
      throw wrong("the key " + signed.getHeader().getKeyID() + " is not in the tool’s key set");
    }
    try {
      if (!signed.verify(new RSASSAVerifier(key.toRSAKey().toRSAPublicKey()))) {
        throw wrong("the signature does not fit");
      }
    } catch (JOSEException | ClassCastException e) {
      throw wrong("the key " + key.getKeyID() + " is none of RSA");
    }
  }

  private static void time(JWTClaimsSet c, Instant now) {
    Date ends = c.getExpirationTime();
    Date made = c.getIssueTime();
    if (ends == null || made == null) {
      throw wrong("exp or iat is missing");
    }
    if (ends.toInstant().isBefore(now.minus(SKEW))) {
      throw wrong("it has expired: the clock of one of the two is off, or it took too long");
    }
    boolean odd =
        made.toInstant().isAfter(now.plus(SKEW)) || made.toInstant().isBefore(now.minus(OLDEST));
    if (odd) {
      throw wrong("iat is not of now: the clock of one of the two is off");
    }
  }

  static OidcError wrong(String what) {
    return new OidcError("invalid_request", what);
  }
}
