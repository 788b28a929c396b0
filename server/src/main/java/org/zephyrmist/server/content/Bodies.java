package org.zephyrmist.server.content;

import static org.jooq.impl.DSL.any;
import static org.zephyrmist.server.db.Tables.BODY;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import java.util.Set;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Fingerprint;

/** Canonical forms, once each. */
@Component
public class Bodies {
  private static final long MOST_CHARS = 32_000_000;
  private final DSLContext db;
  private final Stored stored = new Stored();

  /** Forms that were asked for; the same come again for hundreds of sections. */
  private final Cache<Fingerprint, String> used =
      Caffeine.newBuilder()
          .maximumWeight(MOST_CHARS)
          .weigher((Fingerprint f, String form) -> form.length() + Fingerprint.LENGTH)
          .build();

  Bodies(DSLContext db) {
    this.db = db;
  }

  /** Keeps all forms; those that are here already stay. One statement per call. */
  public void keep(Collection<String> forms) {
    Map<Fingerprint, String> once = new HashMap<>();
    forms.forEach(f -> once.put(Fingerprint.of(f), f));
    keep(once);
  }

  /** Keeps forms whose fingerprints are known. */
  public void keep(Map<Fingerprint, String> forms) {
    Map<Fingerprint, String> once = stored.without(forms);
    if (once.isEmpty()) {
      return;
    }
    byte[][] keys = new byte[once.size()][];
    String[] texts = new String[once.size()];
    int i = 0;
    for (Map.Entry<Fingerprint, String> e : once.entrySet()) {
      keys[i] = e.getKey().bytes();
      texts[i++] = e.getValue();
    }
    db.query(
            "insert into body (fingerprint, form) select * from unnest(?::bytea[], ?::text[])"
                + " order by 1 on conflict do nothing",
            keys,
            texts)
        .execute();
    stored.add(once.keySet());
  }

  /** Those of the forms that a pattern is found in, looked at where they are kept. */
  Set<Fingerprint> which(Collection<Fingerprint> forms, String pattern) {
    byte[][] all = forms.stream().distinct().map(Fingerprint::bytes).toArray(byte[][]::new);
    return db.select(BODY.FINGERPRINT)
        .from(BODY)
        .where(BODY.FINGERPRINT.eq(any(all)))
        .and("form ~ ?", pattern)
        .fetchSet(r -> Fingerprint.of(r.value1()));
  }

  /** The forms with these fingerprints; all of them are here, or it is an error. */
  public Map<Fingerprint, String> get(Collection<Fingerprint> wanted) {
    Map<Fingerprint, String> found = some(wanted);
    long missing = wanted.stream().filter(f -> !found.containsKey(f)).distinct().count();
    if (missing > 0) {
      throw new IllegalStateException("Bodies are missing: " + missing);
    }
    return found;
  }

  /** Those of the forms that are here. */
  public Map<Fingerprint, String> some(Collection<Fingerprint> wanted) {
    Map<Fingerprint, String> found = new HashMap<>(used.getAllPresent(wanted));
    byte[][] others =
        wanted.stream()
            .filter(f -> !found.containsKey(f))
            .distinct()
            .map(Fingerprint::bytes)
            .toArray(byte[][]::new);
    if (others.length == 0) {
      return found;
    }
    db.selectFrom(BODY)
        .where(BODY.FINGERPRINT.eq(any(others)))
        .forEach(r -> found.put(Fingerprint.of(r.getFingerprint()), r.getForm()));
    used.putAll(found);
    return found;
  }
}
