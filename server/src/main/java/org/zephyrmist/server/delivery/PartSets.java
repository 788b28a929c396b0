package org.zephyrmist.server.delivery;

import static org.zephyrmist.server.db.Tables.PART_SET;
import static org.zephyrmist.server.db.Tables.PERSON;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.Arrays;
import java.util.List;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.dao.DuplicateKeyException;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Titles;
import org.zephyrmist.server.people.Role;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** Parts by their kinds and titles under a name, for deliveries of every master. */
@Component
public class PartSets {
  private final DSLContext db;
  private final Clock clock;

  PartSets(DSLContext db, Clock clock) {
    this.db = db;
    this.clock = clock;
  }

  /** A set as it is to be kept. */
  public record Wanted(String name, List<Kind> kinds, List<String> titles) {}

  List<PartSetApi.NamedParts> all(SignedIn who) {
    return db.select(PART_SET.fields())
        .select(PERSON.NAME)
        .from(PART_SET)
        .join(PERSON)
        .on(PERSON.ID.eq(PART_SET.MADE_BY))
        .orderBy(PART_SET.NAME)
        .fetch(
            r ->
                new PartSetApi.NamedParts(
                    r.get(PART_SET.ID),
                    r.get(PART_SET.NAME),
                    Arrays.stream(r.get(PART_SET.KINDS)).map(Kind::valueOf).toList(),
                    List.of(r.get(PART_SET.TITLES)),
                    r.get(PERSON.NAME),
                    who.role() == Role.ADMINISTRATOR || who.id().equals(r.get(PART_SET.MADE_BY))));
  }

  @Transactional
  public UUID keep(Wanted w, SignedIn who) {
    UUID id = UUID.randomUUID();
    Said said = said(w);
    try {
      db.insertInto(PART_SET)
          .set(PART_SET.ID, id)
          .set(PART_SET.NAME, said.name())
          .set(PART_SET.KINDS, said.kinds())
          .set(PART_SET.TITLES, said.titles())
          .set(PART_SET.MADE_BY, who.id())
          .set(PART_SET.MADE_AT, OffsetDateTime.now(clock))
          .execute();
    } catch (DuplicateKeyException e) {
      throw taken(said.name());
    }
    return id;
  }

  @Transactional
  void change(UUID set, Wanted w, SignedIn who) {
    Said said = said(w);
    try {
      int changed =
          db.update(PART_SET)
              .set(PART_SET.NAME, said.name())
              .set(PART_SET.KINDS, said.kinds())
              .set(PART_SET.TITLES, said.titles())
              .where(own(set, who))
              .execute();
      found(changed);
    } catch (DuplicateKeyException e) {
      throw taken(said.name());
    }
  }

  @Transactional
  void drop(UUID set, SignedIn who) {
    found(db.deleteFrom(PART_SET).where(own(set, who)).execute());
  }

  private static Condition own(UUID set, SignedIn who) {
    return PART_SET
        .ID
        .eq(set)
        .and(who.role() == Role.ADMINISTRATOR ? DSL.noCondition() : PART_SET.MADE_BY.eq(who.id()));
  }

  private static void found(int rows) {
    if (rows == 0) {
      throw Refusal.notFound("set");
    }
  }

  private static Refusal taken(String name) {
    return new Refusal(
        HttpStatus.CONFLICT, "There is a set “" + name + "”.", "Choose another name.");
  }

  private record Said(String name, String[] kinds, String[] titles) {}

  private static Said said(Wanted w) {
    String name = Titles.clean(w.name());
    if (name.isBlank()) {
      throw Refusal.bad("A set needs a name.", "Say which parts these are.");
    }
    String[] kinds = w.kinds().stream().distinct().sorted().map(Kind::name).toArray(String[]::new);
    String[] titles =
        w.titles().stream()
            .map(Titles::clean)
            .filter(t -> !Titles.folded(t).isEmpty())
            .distinct()
            .toArray(String[]::new);
    if (kinds.length + titles.length == 0) {
      throw Refusal.bad("A set needs kinds or words of titles.", "Say which parts these are.");
    }
    return new Said(name, kinds, titles);
  }
}
