package org.zephyrmist.core.lti;

import com.nimbusds.jose.JOSEException;
import com.nimbusds.jose.JOSEObjectType;
import com.nimbusds.jose.JWSAlgorithm;
import com.nimbusds.jose.JWSHeader;
import com.nimbusds.jose.crypto.RSASSASigner;
import com.nimbusds.jose.jwk.JWKSet;
import com.nimbusds.jose.jwk.KeyUse;
import com.nimbusds.jose.jwk.RSAKey;
import com.nimbusds.jose.jwk.gen.RSAKeyGenerator;
import com.nimbusds.jwt.JWTClaimsSet;
import com.nimbusds.jwt.SignedJWT;
import java.text.ParseException;
import java.util.Map;

/** A key that messages are signed with, RS256 (1EdTech Security Framework 1.0, section 6.1). */
public final class SigningKey {
  private static final int BITS = 2048;
  private final RSAKey key;

  private SigningKey(RSAKey key) {
    this.key = key;
  }

  /**
   * A new one.
   *
   * @param id by which it is found in the key set
   */
  public static SigningKey generated(String id) {
    try {
      return new SigningKey(
          new RSAKeyGenerator(BITS)
              .keyID(id)
              .keyUse(KeyUse.SIGNATURE)
              .algorithm(JWSAlgorithm.RS256)
              .generate());
    } catch (JOSEException e) {
      throw new IllegalStateException("Java has no RSA", e);
    }
  }

  /** As {@link #secret} gave it. */
  public static SigningKey of(String secret) {
    try {
      return new SigningKey(RSAKey.parse(secret));
    } catch (ParseException e) {
      throw new IllegalArgumentException("This is no key", e);
    }
  }

  /** With its private part, to be kept closed (RFC 7517). */
  public String secret() {
    return key.toJSONString();
  }

  /** The set of its public part (RFC 7517, section 5). */
  public String publicSet() {
    return new JWKSet(key.toPublicJWK()).toString();
  }

  /** Signed as it is sent (RFC 7519). */
  public String signed(Map<String, Object> claims) {
    try {
      SignedJWT jwt =
          new SignedJWT(
              new JWSHeader.Builder(JWSAlgorithm.RS256)
                  .keyID(key.getKeyID())
                  .type(JOSEObjectType.JWT)
                  .build(),
              JWTClaimsSet.parse(claims));
      jwt.sign(new RSASSASigner(key));
      return jwt.serialize();
    } catch (JOSEException | ParseException e) {
      throw new IllegalStateException("These claims cannot be signed", e);
    }
  }

  @Override
  public String toString() {
    return "SigningKey[" + key.getKeyID() + "]";
  }
}
