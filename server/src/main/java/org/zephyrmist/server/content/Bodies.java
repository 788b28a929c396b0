package org.zephyrmist.server.content;

import static org.jooq.impl.DSL.any;
import static org.zephyrmist.server.db.Tables.BODY;

import java.util.Collection;
import java.util.HashMap;
import java.util.Map;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Fingerprint;

/** Canonical forms, once each. */
@Component
public class Bodies {
  private final DSLContext db;
  private final Stored stored = new Stored();

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

  /** The forms with these fingerprints; all of them are here, or it is an error. */
  public Map<Fingerprint, String> get(Collection<Fingerprint> wanted) {
    byte[][] keys = wanted.stream().distinct().map(Fingerprint::bytes).toArray(byte[][]::new);
    Map<Fingerprint, String> found = new HashMap<>();
    db.selectFrom(BODY)
        .where(BODY.FINGERPRINT.eq(any(keys)))
        .forEach(r -> found.put(Fingerprint.of(r.getFingerprint()), r.getForm()));
    if (found.size() < keys.length) {
      throw new IllegalStateException("Bodies are missing: " + (keys.length - found.size()));
    }
    return found;
  }
}
