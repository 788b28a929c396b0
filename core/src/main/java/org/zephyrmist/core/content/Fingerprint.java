package org.zephyrmist.core.content;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Arrays;
import java.util.HexFormat;

/** SHA-256 (FIPS 180-4) over a canonical form. */
public final class Fingerprint implements Comparable<Fingerprint> {
  /** Length in bytes. */
  public static final int LENGTH = 32;

  private final byte[] bytes;

  private Fingerprint(byte[] bytes) {
    this.bytes = bytes;
  }

  /** Of a text, by its UTF-8 bytes. */
  public static Fingerprint of(String canonical) {
    return new Fingerprint(sha256().digest(canonical.getBytes(StandardCharsets.UTF_8)));
  }

  /** From 32 bytes of a digest. */
  public static Fingerprint of(byte[] digest) {
    if (digest.length != LENGTH) {
      throw new IllegalArgumentException("A fingerprint has 32 bytes, not " + digest.length);
    }
    return new Fingerprint(digest.clone());
  }

  /** From a packed form that holds a digest from a place on. */
  static Fingerprint at(byte[] packed, int from) {
    return new Fingerprint(Arrays.copyOfRange(packed, from, from + LENGTH));
  }

  /** From 64 hexadecimal digits. */
  public static Fingerprint parse(String hex) {
    return of(HexFormat.of().parseHex(hex));
  }

  /** A new SHA-256 digest, for streams. */
  public static MessageDigest sha256() {
    try {
      return MessageDigest.getInstance("SHA-256");
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException("Every Java platform has SHA-256", e);
    }
  }

  public byte[] bytes() {
    return bytes.clone();
  }

  public String hex() {
    return HexFormat.of().formatHex(bytes);
  }

  @Override
  public boolean equals(Object o) {
    return o instanceof Fingerprint f && Arrays.equals(bytes, f.bytes);
  }

  /** A part of a digest is as good as all of it. */
  @Override
  public int hashCode() {
    return bytes[0] << 24 | (bytes[1] & 0xff) << 16 | (bytes[2] & 0xff) << 8 | bytes[3] & 0xff;
  }

  @Override
  public int compareTo(Fingerprint o) {
    return Arrays.compareUnsigned(bytes, o.bytes);
  }

  @Override
  public String toString() {
    return hex();
  }
}
