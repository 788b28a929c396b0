package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.SECTION_TOOL;
import static org.zephyrmist.server.db.Tables.TOOL_TASK;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.tool.TaskSides;
import org.zephyrmist.server.db.tables.records.ToolTaskRecord;
import org.zephyrmist.server.platform.PlatformGateway.ToolHost;
import org.zephyrmist.server.platform.PlatformGateway.ToolTask;

/** Tasks that are done in tools, as their platforms tell of them. */
@Component
class ToolTasks {
  private final DSLContext db;

  ToolTasks(DSLContext db) {
    this.db = db;
  }

  /**
   * What platforms told now, and nothing else, is known of these sections.
   *
   * @param sections by shell
   */
  void keep(Map<String, UUID> sections, List<ToolHost> told) {
    db.deleteFrom(TOOL_TASK).where(TOOL_TASK.SECTION_ID.in(sections.values())).execute();
    List<ToolTaskRecord> rows = new ArrayList<>();
    for (ToolHost h : told) {
      for (ToolTask t : h.tasks()) {
        ToolTaskRecord r = db.newRecord(TOOL_TASK);
        r.setSectionId(sections.get(h.shell()));
        r.setPlatformItem(t.item());
        r.setHost(h.host());
        r.setTitle(t.title());
        r.setPoints(t.sides().points().orElse(null));
        r.setOutOf(t.sides().outOf().orElse(null));
        r.setDue(t.sides().due().orElse(null));
        r.setToolDue(t.sides().toolDue().orElse(null));
        rows.add(r);
      }
    }
    db.batchInsert(rows).execute();
  }

  /** A task in a section. */
  record Task(UUID section, String platformItem, String title, TaskSides sides) {}

  /** Tasks of a host in sections. */
  List<Task> of(String host, Collection<UUID> sections) {
    return db.selectFrom(TOOL_TASK)
        .where(TOOL_TASK.HOST.eq(host))
        .and(TOOL_TASK.SECTION_ID.eq(DSL.any(sections.toArray(UUID[]::new))))
        .orderBy(TOOL_TASK.TITLE, TOOL_TASK.SECTION_ID)
        .fetch(
            r ->
                new Task(
                    r.getSectionId(),
                    r.getPlatformItem(),
                    r.getTitle(),
                    new TaskSides(
                        Optional.ofNullable(r.getPoints()),
                        Optional.ofNullable(r.getOutOf()),
                        Optional.ofNullable(r.getDue()),
                        Optional.ofNullable(r.getToolDue()))));
  }

  /** In how many of these sections a score came back from a host. */
  int scored(String host, Collection<UUID> sections) {
    return db.fetchCount(
        SECTION_TOOL,
        SECTION_TOOL
            .HOST
            .eq(host)
            .and(SECTION_TOOL.SECTION_ID.eq(DSL.any(sections.toArray(UUID[]::new))))
            .and(SECTION_TOOL.SCORED_AT.isNotNull()));
  }
}
