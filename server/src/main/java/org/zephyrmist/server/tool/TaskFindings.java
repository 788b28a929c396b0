package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.SECTION;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.tool.DateMode;
import org.zephyrmist.core.tool.TaskSides;
import org.zephyrmist.core.tool.TaskSides.Differs;
import org.zephyrmist.core.tool.TaskSides.Mend;
import org.zephyrmist.server.ledger.HeldVersions;
import org.zephyrmist.server.ledger.HeldVersions.Known;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.tool.ToolSections.ToolSection;

/** Where shells and a tool do not agree on points or dates of a task. */
@Component
class TaskFindings {
  private final DSLContext db;
  private final Reach reach;
  private final ToolSections sections;
  private final ToolHosts hosts;
  private final ToolTasks tasks;
  private final HeldVersions held;

  TaskFindings(
      DSLContext db,
      Reach reach,
      ToolSections sections,
      ToolHosts hosts,
      ToolTasks tasks,
      HeldVersions held) {
    this.db = db;
    this.reach = reach;
    this.sections = sections;
    this.hosts = hosts;
    this.tasks = tasks;
    this.held = held;
  }

  /**
   * The same disagreement in some sections.
   *
   * @param item of a master; none for a task of the sections' own
   * @param here what the shells say
   * @param there what the tool says
   */
  record Finding(
      Differs differs,
      String title,
      Optional<Known> item,
      String code,
      String here,
      String there,
      Mend mend,
      List<UUID> sections) {}

  /**
   * A host in the sections of a term.
   *
   * @param tasks how many, in all sections
   * @param scored in how many sections a score came back
   */
  record Found(int tasks, int scored, List<Finding> findings) {}

  private record Key(
      Differs differs, String title, Optional<Known> item, String here, String there, Mend mend) {}

  Found of(UUID term, String host, SignedIn who) {
    List<ToolSection> all = sections.where(SECTION.TERM_ID.eq(term).and(reach.sections(who)));
    List<UUID> ids = all.stream().map(ToolSection::id).toList();
    List<ToolTasks.Task> here = tasks.of(host, ids);
    List<ToolTasks.Task> apart = here.stream().filter(t -> !t.sides().differs().isEmpty()).toList();
    Map<UUID, DateMode> modes = modes(host, all, apart);
    Map<String, Known> items =
        held.known(
            apart.stream().map(ToolTasks.Task::section).distinct().toArray(UUID[]::new),
            apart.stream().map(ToolTasks.Task::platformItem).distinct().toList());
    Map<Key, List<UUID>> same = new LinkedHashMap<>();
    for (ToolTasks.Task t : apart) {
      DateMode mode = modes.getOrDefault(t.section(), DateMode.SENT_ONCE);
      Optional<Known> item = Optional.ofNullable(items.get(t.section() + t.platformItem()));
      for (Differs d : t.sides().differs()) {
        Key key =
            new Key(
                d,
                t.title(),
                item,
                said(d, t.sides(), true),
                said(d, t.sides(), false),
                TaskSides.mend(d, mode));
        same.computeIfAbsent(key, k -> new ArrayList<>()).add(t.section());
      }
    }
    Map<UUID, String> codes = codes(same.keySet());
    List<Finding> findings = new ArrayList<>();
    same.forEach(
        (k, in) ->
            findings.add(
                new Finding(
                    k.differs(),
                    k.title(),
                    k.item(),
                    k.item().map(i -> codes.get(i.master())).orElse(""),
                    k.here(),
                    k.there(),
                    k.mend(),
                    in)));
    return new Found(here.size(), tasks.scored(host, ids), findings);
  }

  private static String said(Differs d, TaskSides s, boolean here) {
    return switch (d) {
      case POINTS ->
          (here ? s.points() : s.outOf()).orElseThrow().stripTrailingZeros().toPlainString();
      case DATE -> (here ? s.seen() : s.enforced()).orElseThrow().toString();
    };
  }

  /** Who leads in dates, by section, as the connection says that serves it there. */
  private Map<UUID, DateMode> modes(
      String host, List<ToolSection> all, List<ToolTasks.Task> apart) {
    List<UUID> asked = apart.stream().map(ToolTasks.Task::section).distinct().toList();
    Map<UUID, DateMode> modes = new HashMap<>();
    if (asked.isEmpty()) {
      return modes;
    }
    ToolHosts.Picture p = hosts.of(all.stream().filter(s -> asked.contains(s.id())).toList());
    Map<String, DateMode> byConnection = new HashMap<>();
    p.connections().forEach(c -> byConnection.put(c.connection().id(), c.dates()));
    p.cells().stream()
        .filter(c -> c.host().equals(host))
        .forEach(
            c ->
                c.state()
                    .connection()
                    .ifPresent(x -> modes.put(c.section().id(), byConnection.get(x.id()))));
    return modes;
  }

  private Map<UUID, String> codes(Collection<Key> keys) {
    List<UUID> masters =
        keys.stream()
            .map(k -> k.item().map(Known::master).orElse(null))
            .filter(Objects::nonNull)
            .distinct()
            .toList();
    return db.select(MASTER.ID, MASTER.CODE)
        .from(MASTER)
        .where(MASTER.ID.in(masters))
        .fetchMap(MASTER.ID, MASTER.CODE);
  }
}
