package org.zephyrmist.server.master;

import static org.zephyrmist.server.db.Tables.CARTRIDGE;
import static org.zephyrmist.server.db.Tables.EDITION;
import static org.zephyrmist.server.db.Tables.TREE_ITEM;

import java.util.List;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.zephyrmist.server.web.Refusal;

/** What asks for authorisation leaves only with an administrator's word for its cartridge. */
@Component
public class Consents {
  private final DSLContext db;

  Consents(DSLContext db) {
    this.db = db;
  }

  /** Refuses if a tree holds something protected that nobody consented to. */
  void check(UUID tree) {
    check(List.of(tree));
  }

  /** The same of several trees at once. */
  public void check(List<UUID> trees) {
    List<String> titles =
        db.selectDistinct(CARTRIDGE.TITLE)
            .from(TREE_ITEM)
            .join(EDITION)
            .on(EDITION.ID.eq(TREE_ITEM.ORIGIN))
            .join(CARTRIDGE)
            .on(CARTRIDGE.ID.eq(EDITION.CARTRIDGE_ID))
            .where(TREE_ITEM.TREE_ID.in(trees))
            .and(TREE_ITEM.ASKS.ne(""))
            .and(CARTRIDGE.CONSENT_AT.isNull())
            .orderBy(CARTRIDGE.TITLE)
            .fetch(CARTRIDGE.TITLE);
    if (!titles.isEmpty()) {
      throw new Refusal(
          HttpStatus.CONFLICT,
          "Parts of “"
              + String.join("”, “", titles)
              + "” ask for authorisation, and no administrator has consented that they leave.",
          "Take these items out, or ask an administrator to consent on the cartridge's page.");
    }
  }
}
