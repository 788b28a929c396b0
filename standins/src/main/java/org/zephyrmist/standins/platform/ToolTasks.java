package org.zephyrmist.standins.platform;

import static org.zephyrmist.standins.db.Tables.ITEM;
import static org.zephyrmist.standins.db.Tables.TOOL_SCORE;
import static org.zephyrmist.standins.db.Tables.TOOL_TASK;

import java.math.BigDecimal;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;

/** Tasks that are done in tools: what the shell has of them, and what the tool says. */
@Component
class ToolTasks {
  private final DSLContext db;

  ToolTasks(DSLContext db) {
    this.db = db;
  }

  /**
   * @param points in the shell; null if it is not graded
   * @param outOf of how many points it is in the tool; null if that never said
   * @param due in the shell, local; null if there is none
   * @param toolDue by which the tool goes; null if it has none, or never said
   */
  record Task(
      String item,
      String title,
      BigDecimal points,
      BigDecimal outOf,
      LocalDateTime due,
      LocalDateTime toolDue) {}

  /** By shell and host, with a blank between. */
  Map<String, List<Task>> of(Collection<String> shells) {
    Map<String, BigDecimal> scored = new HashMap<>();
    db.select(TOOL_SCORE.ITEM_ID, TOOL_SCORE.MAXIMUM)
        .from(TOOL_SCORE)
        .where(TOOL_SCORE.SHELL_ID.in(shells))
        .orderBy(TOOL_SCORE.AT)
        .forEach(r -> scored.put(r.value1(), r.value2()));
    Field<String> address = DSL.field("launch ->> 'address'", String.class);
    Field<BigDecimal> points = DSL.field("(grading ->> 'points')::numeric", BigDecimal.class);
    Field<String> due = DSL.field("timing ->> 'due'", String.class);
    Map<String, List<Task>> all = new HashMap<>();
    db.select(
            ITEM.SHELL_ID,
            ITEM.ID,
            ITEM.TITLE,
            address,
            points,
            due,
            TOOL_TASK.MAXIMUM,
            TOOL_TASK.DUE)
        .from(ITEM)
        .leftJoin(TOOL_TASK)
        .on(TOOL_TASK.ITEM_ID.eq(ITEM.ID))
        .where(ITEM.SHELL_ID.in(shells))
        .and(ITEM.KIND.eq("ASSIGNMENT"))
        .and(address.ne(""))
        .orderBy(ITEM.SHELL_ID, ITEM.ID)
        .forEach(
            r ->
                all.computeIfAbsent(
                        r.value1() + ' ' + ShellTools.host(r.value4()), k -> new ArrayList<>())
                    .add(
                        new Task(
                            r.value2(),
                            r.value3(),
                            r.value5(),
                            r.value7() == null ? scored.get(r.value2()) : r.value7(),
                            r.value6() == null ? null : LocalDateTime.parse(r.value6()),
                            r.value8())));
    return all;
  }

  /** A tool tells of its task. */
  void said(
      String shell, String item, String host, BigDecimal maximum, Optional<LocalDateTime> due) {
    db.insertInto(TOOL_TASK)
        .values(item, shell, host, maximum, due.orElse(null))
        .onConflict(TOOL_TASK.ITEM_ID)
        .doUpdate()
        .set(TOOL_TASK.MAXIMUM, maximum)
        .set(TOOL_TASK.DUE, due.orElse(null))
        .execute();
  }
}
