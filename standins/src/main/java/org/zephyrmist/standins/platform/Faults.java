package org.zephyrmist.standins.platform;

import static org.zephyrmist.standins.db.Tables.FAULT;

import java.util.List;
import java.util.Optional;
import java.util.concurrent.ThreadLocalRandom;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.standins.db.tables.records.FaultRecord;

/** The knobs: what is to go wrong, where and how often. */
@Component
class Faults {
  /** What can go wrong, in words for the page. */
  enum Kind {
    SLOW("Answers slowly"),
    REFUSE("Refuses with 403"),
    TOKEN("Says that the token is wrong (401)"),
    LIMIT("Says that it is asked too often (429)"),
    ERROR("Answers with an error of its own (5xx)"),
    CUT("Cuts the connection before it does anything"),
    DOWN("Is down: cuts every call"),
    LOSE("Does the work and loses the answer"),
    PART("Does half of a batch, then fails"),
    MEDDLE("Lets an instructor change an item just before it is written"),
    UNCONNECTED("Calls links failed whose tool is not connected in the shell");

    final String words;

    Kind(String words) {
      this.words = words;
    }

    public String getWords() {
      return words;
    }
  }

  private final DSLContext db;

  Faults(DSLContext db) {
    this.db = db;
  }

  List<FaultRecord> all() {
    return db.selectFrom(FAULT).orderBy(FAULT.ID).fetch();
  }

  void add(Wire.Fault f) {
    FaultRecord r = db.newRecord(FAULT);
    r.setShellId(f.shell() == null || f.shell().isBlank() ? null : f.shell());
    r.setKind(f.kind().name());
    r.setTimes(f.times());
    Optional.ofNullable(f.chance()).ifPresent(r::setChance);
    Optional.ofNullable(f.status()).ifPresent(r::setStatus);
    Optional.ofNullable(f.seconds()).ifPresent(r::setSeconds);
    r.insert();
  }

  /** Takes the faults of a shell away, or all of them. */
  void clear(String shell) {
    db.deleteFrom(FAULT)
        .where(shell == null || shell.isBlank() ? FAULT.ID.isNotNull() : FAULT.SHELL_ID.eq(shell))
        .execute();
  }

  /** What goes wrong with the next call; counted. */
  Optional<FaultRecord> next(String shell) {
    for (FaultRecord f :
        db.selectFrom(FAULT)
            .where(FAULT.SHELL_ID.isNull().or(FAULT.SHELL_ID.eq(shell)))
            .and(FAULT.TIMES.isNull().or(FAULT.TIMES.gt(0)))
            .orderBy(FAULT.ID)
            .fetch()) {
      boolean hit =
          ThreadLocalRandom.current().nextDouble() < f.getChance()
              && (f.getTimes() == null || counted(f));
      if (hit) {
        return Optional.of(f);
      }
    }
    return Optional.empty();
  }

  private boolean counted(FaultRecord f) {
    return db.update(FAULT)
            .set(FAULT.TIMES, FAULT.TIMES.minus(1))
            .where(FAULT.ID.eq(f.getId()))
            .and(FAULT.TIMES.gt(0))
            .execute()
        > 0;
  }
}
