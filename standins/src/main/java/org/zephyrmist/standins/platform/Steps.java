package org.zephyrmist.standins.platform;

import static org.zephyrmist.standins.db.Tables.ANSWER;
import static org.zephyrmist.standins.db.Tables.ITEM;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.server.ResponseStatusException;
import org.zephyrmist.standins.db.tables.records.AnswerRecord;
import org.zephyrmist.standins.db.tables.records.ItemRecord;

/** Carries steps out, each once however often it is sent. */
@Component
class Steps {
  private final DSLContext db;
  private final Clock clock;
  private final Json json;

  Steps(DSLContext db, Clock clock, Json json) {
    this.db = db;
    this.clock = clock;
    this.json = json;
  }

  /** All or nothing. Answers in the order of the steps. */
  @Transactional
  List<Wire.Answer> apply(String shell, List<Wire.Step> steps, String who) {
    Map<String, String> known =
        db.selectFrom(ANSWER)
            .where(ANSWER.KEY.in(steps.stream().map(Wire.Step::key).toList()))
            .fetchMap(ANSWER.KEY, ANSWER.ITEM_ID);
    List<String> ids =
        steps.stream().filter(s -> s.op() == Wire.Op.UPDATE).map(Wire.Step::id).toList();
    Map<String, ItemRecord> held =
        db.selectFrom(ITEM).where(ITEM.ID.in(ids)).and(ITEM.SHELL_ID.eq(shell)).fetchMap(ITEM.ID);
    List<Wire.Answer> answers = new ArrayList<>();
    List<ItemRecord> added = new ArrayList<>();
    List<ItemRecord> changed = new ArrayList<>();
    List<String> removed = new ArrayList<>();
    List<AnswerRecord> kept = new ArrayList<>();
    for (Wire.Step s : steps) {
      String before = known.get(s.key());
      if (before != null) {
        answers.add(new Wire.Answer(s.key(), before, true));
        continue;
      }
      String id =
          switch (s.op()) {
            case ADD -> {
              ItemRecord r = fresh(shell, s);
              write(r, s, who);
              added.add(r);
              yield r.getId();
            }
            case UPDATE -> {
              ItemRecord r = held.get(s.id());
              if (r == null) {
                throw new ResponseStatusException(HttpStatus.CONFLICT, "No item " + s.id());
              }
              write(r, s, who);
              changed.add(r);
              yield r.getId();
            }
            case REMOVE -> {
              removed.add(s.id());
              yield s.id();
            }
          };
      kept.add(new AnswerRecord(s.key(), shell, id));
      answers.add(new Wire.Answer(s.key(), id, false));
    }
    db.batchInsert(added).execute();
    db.batchUpdate(changed).execute();
    if (!removed.isEmpty()) {
      db.deleteFrom(ITEM).where(ITEM.ID.in(removed)).and(ITEM.SHELL_ID.eq(shell)).execute();
    }
    db.batchInsert(kept).execute();
    return answers;
  }

  private ItemRecord fresh(String shell, Wire.Step s) {
    ItemRecord r = new ItemRecord();
    r.setId(UUID.randomUUID().toString().replace("-", "").substring(0, 16));
    r.setShellId(shell);
    r.setKind(s.kind());
    r.setRank("i");
    r.setGrading(json.column(Map.of()));
    r.setTiming(json.column(Map.of()));
    r.setLaunch(json.column(Map.of()));
    return r;
  }

  private void write(ItemRecord r, Wire.Step s, String who) {
    if (s.wording() != null) {
      r.setTitle(s.wording().title());
      r.setHtml(Tidy.html(s.wording().html()));
      r.setWording(json.column(s.wording().more()));
    }
    if (s.grading() != null) {
      r.setGrading(json.column(s.grading()));
    }
    if (s.timing() != null) {
      r.setTiming(json.column(s.timing()));
    }
    if (s.place() != null) {
      r.setParentId(s.place().parent());
      r.setRank(s.place().rank());
    }
    if (s.visibility() != null) {
      r.setShown(s.visibility().shown());
      r.setInstructorsOnly(s.visibility().instructorsOnly());
    }
    if (s.launch() != null) {
      r.setLaunch(json.column(s.launch()));
    }
    r.setChangedBy(who);
    r.setChangedAt(OffsetDateTime.now(clock));
  }
}
