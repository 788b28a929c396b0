package org.zephyrmist.server.check;

import static org.zephyrmist.server.db.Tables.CHECK_CHOICE;

import java.util.EnumMap;
import java.util.Map;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.check.Check;
import org.zephyrmist.core.check.Weight;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.SignedIn;

/** Which checks a college looks at, and how bad each is there. */
@Component
class CheckChoices {
  private final DSLContext db;
  private final Events events;

  CheckChoices(DSLContext db, Events events) {
    this.db = db;
    this.events = events;
  }

  record Choice(boolean looked, Weight weight) {}

  /** Of all checks. */
  Map<Check, Choice> all() {
    Map<Check, Choice> all = new EnumMap<>(Check.class);
    for (Check c : Check.values()) {
      all.put(c, new Choice(true, c.weight()));
    }
    db.selectFrom(CHECK_CHOICE)
        .forEach(r -> all.put(r.getCheckName(), new Choice(r.getLooked(), r.getWeight())));
    return all;
  }

  @Transactional
  void put(Check check, Choice choice, SignedIn who) {
    db.insertInto(CHECK_CHOICE)
        .values(check, choice.looked(), choice.weight())
        .onConflict(CHECK_CHOICE.CHECK_NAME)
        .doUpdate()
        .setAllToExcluded()
        .execute();
    String how =
        choice.looked() ? choice.weight().name().toLowerCase().replace('_', ' ') : "not looked at";
    events.add(who.id(), "set the check", check.title("…"), how, "/checks");
  }
}
