package org.zephyrmist.server.check;

import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.SECTION_INSTRUCTOR;
import static org.zephyrmist.server.db.Tables.TERM;

import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.check.CheckedShell.Strangers;
import org.zephyrmist.server.people.Role;

/** Words that have no place in a section: titles of other terms, addresses of other instructors. */
@Component
class StrangeWords {
  /** Shorter titles stand in texts by chance. */
  private static final int LEAST = 5;

  private final DSLContext db;

  StrangeWords(DSLContext db) {
    this.db = db;
  }

  /**
   * @param terms titles by id
   * @param term of each section
   * @param mails of all instructors, the part before the at sign, and what is behind it
   * @param own the same of those who teach a section
   */
  record Known(
      Map<UUID, String> terms,
      Map<UUID, UUID> term,
      Map<String, String> mails,
      Map<UUID, Set<String>> own) {
    Strangers in(UUID section) {
      String title = terms.getOrDefault(term.get(section), "");
      List<String> others =
          terms.values().stream()
              .filter(t -> t.length() >= LEAST && !title.contains(t) && !t.contains(title))
              .toList();
      Map<String, String> strange = new HashMap<>(mails);
      strange.keySet().removeAll(own.getOrDefault(section, Set.of()));
      return new Strangers(title.isEmpty() ? List.of() : others, strange);
    }
  }

  Known of(Collection<UUID> sections) {
    UUID[] ids = sections.toArray(UUID[]::new);
    Map<UUID, UUID> term = new HashMap<>();
    db.select(SECTION.ID, SECTION.TERM_ID)
        .from(SECTION)
        .where(SECTION.ID.eq(DSL.any(ids)))
        .and(SECTION.TERM_ID.isNotNull())
        .forEach(r -> term.put(r.value1(), r.value2()));
    Map<String, String> mails = new HashMap<>();
    db.select(PERSON.EMAIL)
        .from(PERSON)
        .where(PERSON.ROLE.eq(Role.INSTRUCTOR))
        .and(PERSON.EMAIL.isNotNull())
        .forEach(r -> mails.put(before(r.value1()), behind(r.value1())));
    Map<UUID, Set<String>> own = new HashMap<>();
    db.select(SECTION_INSTRUCTOR.SECTION_ID, PERSON.EMAIL)
        .from(SECTION_INSTRUCTOR)
        .join(PERSON)
        .on(PERSON.ID.eq(SECTION_INSTRUCTOR.PERSON_ID))
        .where(SECTION_INSTRUCTOR.SECTION_ID.eq(DSL.any(ids)))
        .and(PERSON.EMAIL.isNotNull())
        .forEach(
            r -> own.computeIfAbsent(r.value1(), k -> new HashSet<>()).add(before(r.value2())));
    return new Known(
        db.select(TERM.ID, TERM.TITLE).from(TERM).fetchMap(TERM.ID, TERM.TITLE), term, mails, own);
  }

  private static String before(String mail) {
    return mail.substring(0, Math.max(0, mail.indexOf('@'))).toLowerCase(Locale.ROOT);
  }

  private static String behind(String mail) {
    return mail.substring(mail.indexOf('@') + 1).toLowerCase(Locale.ROOT);
  }
}
