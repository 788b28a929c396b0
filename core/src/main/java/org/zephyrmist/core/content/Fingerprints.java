package org.zephyrmist.core.content;

import java.util.Arrays;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.Map;
import java.util.Set;

/** The fingerprint of every aspect of one item. */
public final class Fingerprints {
  /** Length in bytes of the packed form: six aspects in their order, 32 bytes each. */
  public static final int PACKED = Aspect.values().length * Fingerprint.LENGTH;

  private static final Aspect[] ASPECTS = Aspect.values();
  private final Fingerprint[] of;

  private Fingerprints(Fingerprint[] of) {
    this.of = of;
  }

  /** From a map that has all six aspects. */
  public static Fingerprints of(Map<Aspect, Fingerprint> map) {
    Fingerprint[] all = new Fingerprint[ASPECTS.length];
    for (Aspect a : ASPECTS) {
      if (!map.containsKey(a)) {
        throw new IllegalArgumentException("No fingerprint for " + a);
      }
      all[a.ordinal()] = map.get(a);
    }
    return new Fingerprints(all);
  }

  /** From the packed form of 192 bytes. */
  public static Fingerprints unpack(byte[] packed) {
    if (packed.length != PACKED) {
      throw new IllegalArgumentException("Packed fingerprints have " + PACKED + " bytes");
    }
    Fingerprint[] all = new Fingerprint[ASPECTS.length];
    for (int i = 0; i < all.length; i++) {
      all[i] = Fingerprint.at(packed, i * Fingerprint.LENGTH);
    }
    return new Fingerprints(all);
  }

  /** The packed form: 192 bytes. */
  public byte[] pack() {
    byte[] packed = new byte[PACKED];
    for (int i = 0; i < of.length; i++) {
      System.arraycopy(of[i].bytes(), 0, packed, i * Fingerprint.LENGTH, Fingerprint.LENGTH);
    }
    return packed;
  }

  public Fingerprint get(Aspect aspect) {
    return of[aspect.ordinal()];
  }

  /** The same but for one aspect. */
  public Fingerprints with(Aspect aspect, Fingerprint value) {
    Fingerprint[] all = of.clone();
    all[aspect.ordinal()] = value;
    return new Fingerprints(all);
  }

  /** The same but for some aspects, which are those of the other. */
  public Fingerprints with(Set<Aspect> aspects, Fingerprints other) {
    Fingerprint[] all = of.clone();
    aspects.forEach(a -> all[a.ordinal()] = other.get(a));
    return new Fingerprints(all);
  }

  /** The aspects on which the two are not equal. */
  public Set<Aspect> differing(Fingerprints other) {
    EnumSet<Aspect> set = EnumSet.noneOf(Aspect.class);
    for (Aspect a : ASPECTS) {
      if (!get(a).equals(other.get(a))) {
        set.add(a);
      }
    }
    return set;
  }

  /** The forms that have these fingerprints, by aspect. */
  public Map<Aspect, String> forms(Map<Fingerprint, String> known) {
    EnumMap<Aspect, String> forms = new EnumMap<>(Aspect.class);
    asMap().forEach((a, print) -> forms.put(a, known.get(print)));
    return forms;
  }

  public Map<Aspect, Fingerprint> asMap() {
    EnumMap<Aspect, Fingerprint> map = new EnumMap<>(Aspect.class);
    for (Aspect a : ASPECTS) {
      map.put(a, get(a));
    }
    return map;
  }

  @Override
  public boolean equals(Object o) {
    return o instanceof Fingerprints f && Arrays.equals(of, f.of);
  }

  @Override
  public int hashCode() {
    return Arrays.hashCode(of);
  }

  @Override
  public String toString() {
    return asMap().toString();
  }
}
