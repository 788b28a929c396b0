package org.zephyrmist.server.content;

import static org.zephyrmist.server.db.Tables.CAMPUS;
import static org.zephyrmist.server.db.Tables.COLLEGE_VALUE;
import static org.zephyrmist.server.db.Tables.COURSE;
import static org.zephyrmist.server.db.Tables.PERSON;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.SECTION_INSTRUCTOR;
import static org.zephyrmist.server.db.Tables.TERM;

import jakarta.validation.constraints.NotNull;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.content.RosterValue;
import org.zephyrmist.server.people.Events;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** Values that stand in texts: what the roster says of a section, and what the college says. */
@Component
public class Values {
  private static final String NAME = "[a-z][a-z0-9-]{0,39}";
  private final DSLContext db;
  private final Events events;

  Values(DSLContext db, Events events) {
    this.db = db;
    this.events = events;
  }

  /**
   * A value.
   *
   * @param words what people call it
   * @param text in the section asked about; absent where nothing is known
   * @param college whether it is the college's, not the roster's
   */
  public record Value(@NotNull String name, @NotNull String words, String text, boolean college) {}

  /** Names of all values that texts may use. */
  public Set<String> names() {
    Set<String> all = new HashSet<>(colleges().keySet());
    for (RosterValue v : RosterValue.values()) {
      all.add(v.value());
    }
    return all;
  }

  /** Texts by name in a section; a value without a text is left out. */
  public Function<String, Optional<String>> in(UUID section) {
    Map<String, String> all = texts(section);
    return name -> Optional.ofNullable(all.get(name));
  }

  /** All of them, the roster's first. */
  List<Value> list(Optional<UUID> section) {
    Map<String, String> texts = section.map(this::texts).orElseGet(this::colleges);
    List<Value> all = new ArrayList<>();
    for (RosterValue v : RosterValue.values()) {
      all.add(new Value(v.value(), v.words(), texts.get(v.value()), false));
    }
    db.selectFrom(COLLEGE_VALUE)
        .orderBy(COLLEGE_VALUE.WORDS)
        .forEach(r -> all.add(new Value(r.getName(), r.getWords(), r.getText(), true)));
    return all;
  }

  private Map<String, String> colleges() {
    Map<String, String> all =
        new HashMap<>(
            db.select(COLLEGE_VALUE.NAME, COLLEGE_VALUE.TEXT)
                .from(COLLEGE_VALUE)
                .fetchMap(COLLEGE_VALUE.NAME, COLLEGE_VALUE.TEXT));
    all.values().removeIf(String::isBlank);
    return all;
  }

  private Map<String, String> texts(UUID section) {
    Map<String, String> all = colleges();
    db.select(SECTION.CODE, SECTION.TITLE, COURSE.CODE, COURSE.TITLE, TERM.TITLE, CAMPUS.NAME)
        .from(SECTION)
        .join(COURSE)
        .on(COURSE.ID.eq(SECTION.COURSE_ID))
        .join(CAMPUS)
        .on(CAMPUS.ID.eq(SECTION.CAMPUS_ID))
        .leftJoin(TERM)
        .on(TERM.ID.eq(SECTION.TERM_ID))
        .where(SECTION.ID.eq(section))
        .forEach(
            r -> {
              all.put(RosterValue.SECTION_CODE.value(), r.value1());
              all.put(RosterValue.SECTION_TITLE.value(), r.value2());
              all.put(RosterValue.COURSE_CODE.value(), r.value3());
              all.put(RosterValue.COURSE_TITLE.value(), r.value4());
              all.put(RosterValue.TERM.value(), r.value5());
              all.put(RosterValue.CAMPUS.value(), r.value6());
            });
    var people =
        db.select(PERSON.NAME, PERSON.EMAIL)
            .from(SECTION_INSTRUCTOR)
            .join(PERSON)
            .on(PERSON.ID.eq(SECTION_INSTRUCTOR.PERSON_ID))
            .where(SECTION_INSTRUCTOR.SECTION_ID.eq(section))
            .orderBy(PERSON.NAME, PERSON.ID)
            .fetch();
    all.put(RosterValue.INSTRUCTOR.value(), joined(people.getValues(PERSON.NAME)));
    all.put(RosterValue.INSTRUCTOR_MAIL.value(), joined(people.getValues(PERSON.EMAIL)));
    all.values().removeIf(t -> t == null || t.isBlank());
    return all;
  }

  private static String joined(List<String> texts) {
    return texts.stream().filter(Objects::nonNull).collect(Collectors.joining(", "));
  }

  @Transactional
  void put(String name, String words, String text, SignedIn who) {
    if (!name.matches(NAME) || RosterValue.named(name).isPresent()) {
      throw Refusal.bad(
          "“" + name + "” is not the name of a value of the college.",
          "Use small letters, digits and hyphens, and none of the roster's names.");
    }
    db.insertInto(COLLEGE_VALUE)
        .values(name, words.strip(), text.strip())
        .onConflict(COLLEGE_VALUE.NAME)
        .doUpdate()
        .setAllToExcluded()
        .execute();
    events.add(who.id(), "set the value", words.strip(), text.strip());
  }

  @Transactional
  void remove(String name, SignedIn who) {
    if (db.deleteFrom(COLLEGE_VALUE).where(COLLEGE_VALUE.NAME.eq(name)).execute() == 0) {
      return;
    }
    events.add(who.id(), "took away the value", name, "");
  }
}
