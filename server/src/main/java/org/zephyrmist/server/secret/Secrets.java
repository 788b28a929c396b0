package org.zephyrmist.server.secret;

import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.SecureRandom;
import java.util.Arrays;
import javax.crypto.Cipher;
import javax.crypto.SecretKey;
import javax.crypto.SecretKeyFactory;
import javax.crypto.spec.GCMParameterSpec;
import javax.crypto.spec.PBEKeySpec;
import javax.crypto.spec.SecretKeySpec;
import org.springframework.stereotype.Component;
import org.zephyrmist.server.Settings;

/**
 * Tokens as they are stored: AES-256-GCM (NIST SP 800-38D) with a fresh nonce each, under a key
 * derived from the setting {@code secret} (PBKDF2, RFC 8018).
 */
@Component
public class Secrets {
  private static final byte[] SALT = "zephyrmist tokens".getBytes(StandardCharsets.UTF_8);
  private static final int NONCE = 12;
  private static final int TAG_BITS = 128;
  private final SecureRandom random = new SecureRandom();
  private final String secret;
  private SecretKey key;

  Secrets(Settings settings) {
    if (settings.secret().length() < 32) {
      throw new IllegalStateException(
          "ZEPHYRMIST_SECRET is not set, or shorter than 32 characters. Set it to a long random"
              + " text and keep it: without it stored tokens cannot be read.");
    }
    secret = settings.secret();
  }

  /** Derived once, when it is first used: slow on purpose, so no start waits for it. */
  private synchronized SecretKey key() throws GeneralSecurityException {
    if (key == null) {
      PBEKeySpec spec = new PBEKeySpec(secret.toCharArray(), SALT, 100_000, 256);
      byte[] raw =
          SecretKeyFactory.getInstance("PBKDF2WithHmacSHA256").generateSecret(spec).getEncoded();
      key = new SecretKeySpec(raw, "AES");
    }
    return key;
  }

  public byte[] close(String token) {
    byte[] nonce = new byte[NONCE];
    random.nextBytes(nonce);
    byte[] sealed = cipher(Cipher.ENCRYPT_MODE, nonce, token.getBytes(StandardCharsets.UTF_8), 0);
    return ByteBuffer.allocate(NONCE + sealed.length).put(nonce).put(sealed).array();
  }

  public String open(byte[] stored) {
    byte[] nonce = Arrays.copyOf(stored, NONCE);
    return new String(cipher(Cipher.DECRYPT_MODE, nonce, stored, NONCE), StandardCharsets.UTF_8);
  }

  private byte[] cipher(int mode, byte[] nonce, byte[] data, int from) {
    try {
      Cipher cipher = Cipher.getInstance("AES/GCM/NoPadding");
      cipher.init(mode, key(), new GCMParameterSpec(TAG_BITS, nonce));
      return cipher.doFinal(data, from, data.length - from);
    } catch (GeneralSecurityException e) {
      throw new IllegalStateException(
          "A stored token cannot be read: ZEPHYRMIST_SECRET is not the one it was stored under.",
          e);
    }
  }
}
