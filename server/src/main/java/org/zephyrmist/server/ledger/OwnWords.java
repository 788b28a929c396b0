package org.zephyrmist.server.ledger;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;

/** What sections have made of texts that were delivered to them. */
@Component
public class OwnWords {
  private final DSLContext db;

  OwnWords(DSLContext db) {
    this.db = db;
  }

  /**
   * @param delivered how the section showed it when it was delivered
   * @param wording what the section says there
   */
  public record OwnWord(
      UUID section,
      UUID master,
      ItemKey item,
      Kind kind,
      String title,
      Fingerprint delivered,
      Fingerprint wording) {}

  /** Of pages, assignments and discussions; by section, master and item. */
  public List<OwnWord> of(Collection<UUID> sections) {
    List<OwnWord> all = new ArrayList<>();
    db.fetch(
            "select section_id, master_id, item_key, item_kind, title, substring(here from 1 for 32)"
                + " as said, substring(shown from 1 for 32) as was from holding where section_id = any(?::uuid[]) and here is not null and"
                + " substring(here from 1 for 32) <> substring(shown from 1 for 32) and item_kind in"
                + " ('PAGE', 'ASSIGNMENT', 'DISCUSSION') order by section_id, master_id, item_key",
            (Object) sections.toArray(UUID[]::new))
        .forEach(
            r ->
                all.add(
                    new OwnWord(
                        r.get("section_id", UUID.class),
                        r.get("master_id", UUID.class),
                        new ItemKey(r.get("item_key", String.class)),
                        Kind.valueOf(r.get("item_kind", String.class)),
                        r.get("title", String.class),
                        Fingerprint.of(r.get("was", byte[].class)),
                        Fingerprint.of(r.get("said", byte[].class)))));
    return all;
  }
}
