package org.zephyrmist.server.tool;

import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.server.people.Events;

/** A tool that worked in the test before and does no longer is one event, whatever it touches. */
@Component
class StoppedTools {
  private final DSLContext db;
  private final Events events;

  StoppedTools(DSLContext db, Events events) {
    this.db = db;
    this.events = events;
  }

  /** Tells of the hosts that stopped in a round of tests, each once. */
  void tell(UUID round) {
    db.fetch(
            "select n.host, count(distinct n.section_id)::int, min(n.said) from launch_test n where"
                + " n.round = ? and n.outcome <> 'OPENED' and (select b.outcome from launch_test b"
                + " where b.section_id = n.section_id and b.host = n.host and b.role = n.role and"
                + " b.id < n.id order by b.id desc limit 1) = 'OPENED' group by n.host",
            round)
        .forEach(
            r ->
                events.add(
                    null,
                    "stopped opening",
                    r.get(0, String.class),
                    r.get(1, Integer.class) + " sections: " + r.get(2, String.class),
                    "/tools?host=" + r.get(0, String.class)));
  }
}
