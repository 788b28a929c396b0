package org.zephyrmist.standins.tool;

import com.nimbusds.jose.JOSEException;
import com.nimbusds.jose.JWSAlgorithm;
import com.nimbusds.jose.JWSHeader;
import com.nimbusds.jose.crypto.RSASSASigner;
import com.nimbusds.jose.jwk.JWKSet;
import com.nimbusds.jose.jwk.RSAKey;
import com.nimbusds.jose.jwk.gen.RSAKeyGenerator;
import com.nimbusds.jwt.JWTClaimsSet;
import com.nimbusds.jwt.SignedJWT;
import java.util.UUID;
import org.springframework.stereotype.Component;

/** The key that tools sign with, a new one whenever they are started. */
@Component
class ToolKey {
  private final RSAKey key;

  ToolKey() throws JOSEException {
    key = new RSAKeyGenerator(2048).keyID(UUID.randomUUID().toString()).generate();
  }

  String publicSet() {
    return new JWKSet(key.toPublicJWK()).toString();
  }

  String signed(JWTClaimsSet claims) {
    try {
      SignedJWT jwt =
          new SignedJWT(
              new JWSHeader.Builder(JWSAlgorithm.RS256).keyID(key.getKeyID()).build(), claims);
      jwt.sign(new RSASSASigner(key));
      return jwt.serialize();
    } catch (JOSEException e) {
      throw new IllegalStateException(e);
    }
  }
}
