package org.zephyrmist.server.platform;

import static org.zephyrmist.server.db.Tables.KEPT_ITEM;
import static org.zephyrmist.server.db.Tables.KEPT_SHELL;

import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.InsertSetMoreStep;
import org.jooq.Query;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.server.content.Bodies;
import org.zephyrmist.server.db.tables.records.KeptItemRecord;
import org.zephyrmist.server.platform.KeptShells.Known;
import org.zephyrmist.server.platform.PlatformGateway.Write;
import org.zephyrmist.server.platform.PlatformGateway.Written;

/** Writes into what is kept of shells that nobody can ask. */
@Component
public class KeptWrites {
  private final DSLContext db;
  private final Bodies bodies;
  private final Clock clock;
  private final KeptShells shells;

  KeptWrites(DSLContext db, Bodies bodies, Clock clock, KeptShells shells) {
    this.db = db;
    this.bodies = bodies;
    this.clock = clock;
    this.shells = shells;
  }

  /** Writes into what the shell will be; what was written under a key is not written again. */
  @Transactional
  public Map<String, Written> apply(UUID section, List<Write> writes) {
    begin(section);
    Map<String, KeptItemRecord> rows =
        db.selectFrom(KEPT_ITEM)
            .where(KEPT_ITEM.SECTION_ID.eq(section))
            .and(KEPT_ITEM.MEANT)
            .fetchMap(KEPT_ITEM.ITEM);
    readAhead(writes, rows);
    Set<String> forms = new HashSet<>();
    List<Query> all = new ArrayList<>();
    Map<String, Written> answers = new LinkedHashMap<>();
    for (Write w : writes) {
      String id = id(w);
      KeptItemRecord row = rows.get(id);
      boolean done = row != null && row.getRevision().equals(w.key());
      if (w instanceof Write.Add a && row == null) {
        all.add(upsert(section, id, a.kind(), a.key(), a.forms(), forms));
      } else if (w instanceof Write.Update u && !done) {
        KeptItemRecord seen = asSeen(row, id, u.revision());
        Map<Aspect, String> whole = new EnumMap<>(forms(seen));
        whole.putAll(u.forms());
        all.add(upsert(section, id, seen.getKind(), u.key(), whole, forms));
      } else if (w instanceof Write.Remove r && row != null) {
        asSeen(row, id, r.revision());
        all.add(
            db.deleteFrom(KEPT_ITEM)
                .where(KEPT_ITEM.SECTION_ID.eq(section))
                .and(KEPT_ITEM.MEANT)
                .and(KEPT_ITEM.ITEM.eq(id)));
      }
      answers.put(w.key(), new Written(id, w.key(), ""));
    }
    bodies.keep(forms);
    db.batch(all).execute();
    return answers;
  }

  /** The forms of what is updated come in one query. */
  private void readAhead(List<Write> writes, Map<String, KeptItemRecord> rows) {
    Set<Fingerprint> wanted = new HashSet<>();
    for (Write w : writes) {
      if (w instanceof Write.Update u && rows.containsKey(u.id())) {
        wanted.addAll(Fingerprints.unpack(rows.get(u.id()).getAspects()).asMap().values());
      }
    }
    bodies.get(wanted);
  }

  /** What is added is called by the key under which it is. */
  private static String id(Write w) {
    if (w instanceof Write.Update u) {
      return u.id();
    }
    return w instanceof Write.Remove r ? r.id() : w.key();
  }

  private Map<Aspect, String> forms(KeptItemRecord r) {
    Fingerprints f = Fingerprints.unpack(r.getAspects());
    return f.forms(bodies.get(f.asMap().values()));
  }

  private static KeptItemRecord asSeen(KeptItemRecord row, String id, String revision) {
    if (row == null) {
      throw PlatformException.conflict("Item " + id + " is not there.");
    }
    if (revision != null && !revision.equals(row.getRevision())) {
      throw PlatformException.conflict("Item " + id + " is not as it was read.");
    }
    return row;
  }

  /**
   * @param kept gets the forms, which are still to be kept
   */
  private Query upsert(
      UUID section,
      String id,
      Kind kind,
      String revision,
      Map<Aspect, String> forms,
      Set<String> kept) {
    kept.addAll(forms.values());
    return row(section, true, new Item(id, kind, forms), revision)
        .onConflict(KEPT_ITEM.SECTION_ID, KEPT_ITEM.MEANT, KEPT_ITEM.ITEM)
        .doUpdate()
        .set(KEPT_ITEM.PARENT, DSL.excluded(KEPT_ITEM.PARENT))
        .set(KEPT_ITEM.ASPECTS, DSL.excluded(KEPT_ITEM.ASPECTS))
        .set(KEPT_ITEM.REVISION, DSL.excluded(KEPT_ITEM.REVISION));
  }

  private InsertSetMoreStep<KeptItemRecord> row(
      UUID section, boolean meant, Item i, String revision) {
    return db.insertInto(KEPT_ITEM)
        .set(KEPT_ITEM.SECTION_ID, section)
        .set(KEPT_ITEM.MEANT, meant)
        .set(KEPT_ITEM.ITEM, i.id())
        .set(KEPT_ITEM.KIND, i.kind())
        .set(KEPT_ITEM.PARENT, AspectForms.place(i.forms().get(Aspect.PLACE)).parent().orElse(null))
        .set(KEPT_ITEM.ASPECTS, AspectForms.fingerprints(i.forms()).pack())
        .set(KEPT_ITEM.REVISION, revision);
  }

  /** From now on a package waits: what the shell will be begins as what it is. */
  private void begin(UUID section) {
    db.insertInto(KEPT_SHELL)
        .set(KEPT_SHELL.SECTION_ID, section)
        .set(KEPT_SHELL.STATE, UUID.randomUUID().toString())
        .set(KEPT_SHELL.KNOWN, Known.NOTHING.name())
        .set(KEPT_SHELL.KNOWN_AT, OffsetDateTime.now(clock))
        .onConflictDoNothing()
        .execute();
    boolean first =
        db.update(KEPT_SHELL)
                .set(KEPT_SHELL.PACKAGE_AT, OffsetDateTime.now(clock))
                .where(KEPT_SHELL.SECTION_ID.eq(section))
                .and(KEPT_SHELL.PACKAGE_AT.isNull())
                .execute()
            > 0;
    if (first) {
      db.query(
              "insert into kept_item (section_id, meant, item, kind, parent, aspects, revision)"
                  + " select section_id, true, item, kind, parent, aspects, revision"
                  + " from kept_item where section_id = ? and not meant",
              section)
          .execute();
    }
  }

  /** An item of a shell, with the forms of its aspects in the shell's terms. */
  public record Item(String id, Kind kind, Map<Aspect, String> forms) {}

  /** A package was exported from the shell, and this is what it holds; no package waits now. */
  @Transactional
  public void exported(UUID section, List<Item> items) {
    begin(section);
    Map<String, KeptItemRecord> before =
        db.selectFrom(KEPT_ITEM)
            .where(KEPT_ITEM.SECTION_ID.eq(section))
            .and(KEPT_ITEM.MEANT)
            .fetchMap(KEPT_ITEM.ITEM);
    shells.ends(List.of(section), Known.EXPORTED);
    shells.delete(section, true);
    shells.delete(section, false);
    Set<String> forms = new HashSet<>();
    items.forEach(i -> forms.addAll(i.forms().values()));
    bodies.keep(forms);
    List<Query> all = new ArrayList<>();
    for (Item i : items) {
      byte[] aspects = AspectForms.fingerprints(i.forms()).pack();
      KeptItemRecord old = before.get(i.id());
      boolean same = old != null && Arrays.equals(old.getAspects(), aspects);
      all.add(row(section, false, i, same ? old.getRevision() : UUID.randomUUID().toString()));
    }
    db.batch(all).execute();
  }
}
