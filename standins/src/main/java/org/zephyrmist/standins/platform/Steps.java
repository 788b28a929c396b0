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
  private final Shells shells;
  private final WeekPlaces weeks;

  Steps(DSLContext db, Clock clock, Json json, Shells shells, WeekPlaces weeks) {
    this.weeks = weeks;
    this.shells = shells;
    this.db = db;
    this.clock = clock;
    this.json = json;
  }

  /** All or nothing. Answers in the order of the steps. */
  @Transactional
  List<Wire.Answer> apply(String shell, List<Wire.Step> steps, String who) {
    Map<String, AnswerRecord> known =
        db.selectFrom(ANSWER)
            .where(ANSWER.KEY.in(steps.stream().map(Wire.Step::key).toList()))
            .fetchMap(ANSWER.KEY);
    Map<String, ItemRecord> held = held(shell, steps);
    List<Wire.Answer> answers = new ArrayList<>();
    List<ItemRecord> added = new ArrayList<>();
    List<ItemRecord> changed = new ArrayList<>();
    List<String> removed = new ArrayList<>();
    List<AnswerRecord> kept = new ArrayList<>();
    for (Wire.Step s : steps) {
      AnswerRecord before = known.get(s.key());
      if (before != null) {
        answers.add(new Wire.Answer(s.key(), before.getItemId(), true, before.getRevision()));
        continue;
      }
      ItemRecord r = s.op() == Wire.Op.ADD ? fresh(shell, s) : asSeen(s, held);
      if (s.place() != null && s.place().parent() != null) {
        parent(s.place().parent(), shell, added);
      }
      switch (s.op()) {
        case ADD -> added.add(r);
        case UPDATE -> changed.add(r);
        case REMOVE -> removed.add(s.id());
      }
      write(r, s, who);
      if (s.op() == Wire.Op.ADD && r.getKind().equals("MODULE") && r.getParentId() == null) {
        r.setParentId(weeks.last(shell, r.getTitle(), added.subList(0, added.size() - 1)));
      }
      kept.add(new AnswerRecord(s.key(), shell, r.getId(), r.getRevision()));
      answers.add(new Wire.Answer(s.key(), r.getId(), false, r.getRevision()));
    }
    db.batchInsert(added).execute();
    db.batchUpdate(changed).execute();
    if (!removed.isEmpty()) {
      db.deleteFrom(ITEM).where(ITEM.ID.in(removed)).and(ITEM.SHELL_ID.eq(shell)).execute();
    }
    if (!kept.isEmpty()) {
      db.batchInsert(kept).execute();
      shells.moved(shell);
    }
    return answers;
  }

  /** Whether all of these steps were done before. */
  boolean done(List<Wire.Step> steps) {
    List<String> keys = steps.stream().map(Wire.Step::key).distinct().toList();
    return db.fetchCount(ANSWER, ANSWER.KEY.in(keys)) == keys.size();
  }

  /** Whether what these steps change is still as their writer has seen it. */
  boolean fits(String shell, List<Wire.Step> steps) {
    Map<String, ItemRecord> held = held(shell, steps);
    return steps.stream()
            .filter(s -> s.op() != Wire.Op.ADD)
            .allMatch(
                s ->
                    held.containsKey(s.id())
                        && (s.revision() == null
                            || s.revision().equals(held.get(s.id()).getRevision())))
        && steps.stream()
            .filter(s -> s.place() != null && s.place().parent() != null)
            .allMatch(
                s ->
                    db.fetchExists(
                        ITEM, ITEM.ID.eq(s.place().parent()).and(ITEM.SHELL_ID.eq(shell))));
  }

  private Map<String, ItemRecord> held(String shell, List<Wire.Step> steps) {
    List<String> ids =
        steps.stream().filter(s -> s.op() != Wire.Op.ADD).map(Wire.Step::id).sorted().toList();
    return db.selectFrom(ITEM)
        .where(ITEM.ID.in(ids))
        .and(ITEM.SHELL_ID.eq(shell))
        .orderBy(ITEM.ID)
        .forUpdate()
        .fetchMap(ITEM.ID);
  }

  /** The item, if it is there and is as the writer has seen it. */
  private static ItemRecord asSeen(Wire.Step s, Map<String, ItemRecord> held) {
    ItemRecord r = held.get(s.id());
    if (r == null) {
      throw new ResponseStatusException(HttpStatus.CONFLICT, "No item " + s.id());
    }
    if (s.revision() != null && !s.revision().equals(r.getRevision())) {
      throw new ResponseStatusException(HttpStatus.CONFLICT, s.id() + " has changed");
    }
    return r;
  }

  private void parent(String parent, String shell, List<ItemRecord> added) {
    boolean there =
        added.stream().anyMatch(a -> a.getId().equals(parent))
            || db.fetchExists(ITEM, ITEM.ID.eq(parent).and(ITEM.SHELL_ID.eq(shell)));
    if (!there) {
      throw new ResponseStatusException(HttpStatus.CONFLICT, "No module " + parent);
    }
  }

  /** An instructor changes the first of the items that are about to be written. */
  @Transactional
  void meddle(String shell, List<Wire.Step> steps) {
    held(shell, steps).values().stream()
        .findFirst()
        .ifPresent(
            r -> {
              r.setHtml(r.getHtml() + "<p>Changed meanwhile.</p>");
              r.setRevision(r.getRevision() + 1);
              r.setChangedBy("the instructor");
              r.setChangedAt(OffsetDateTime.now(clock));
              r.update();
              shells.moved(shell);
            });
  }

  private ItemRecord fresh(String shell, Wire.Step s) {
    ItemRecord r = new ItemRecord();
    r.setId(UUID.randomUUID().toString().replace("-", "").substring(0, 16));
    r.setShellId(shell);
    r.setKind(s.kind());
    r.setRank("i");
    r.setRevision(0L);
    r.setGrading(json.column(Map.of()));
    r.setTiming(json.column(Map.of()));
    r.setLaunch(json.column(Map.of()));
    r.setOpening(json.column(Map.of()));
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
      r.setOpening(json.opening(s.visibility()));
    }
    if (s.launch() != null) {
      r.setLaunch(json.column(s.launch()));
    }
    r.setRevision(r.getRevision() + 1);
    r.setChangedBy(who);
    r.setChangedAt(OffsetDateTime.now(clock));
  }
}
