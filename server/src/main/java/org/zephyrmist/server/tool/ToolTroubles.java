package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.SECTION;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.tool.LinkState;

/** Hosts whose links do not work, in many sections at once. */
@Component
public class ToolTroubles {
  private final ToolHosts hosts;
  private final ToolSections sections;

  ToolTroubles(ToolHosts hosts, ToolSections sections) {
    this.hosts = hosts;
    this.sections = sections;
  }

  /**
   * A host.
   *
   * @param name of its tool
   */
  public record Trouble(String host, String name, LinkState.Standing standing) {}

  /** By section; sections without any are left out. */
  public Map<UUID, List<Trouble>> of(Collection<UUID> of) {
    ToolHosts.Picture p = hosts.of(sections.where(SECTION.ID.eq(DSL.any(of.toArray(UUID[]::new)))));
    Map<UUID, List<Trouble>> all = new HashMap<>();
    p.cells().stream()
        .filter(c -> c.state().standing() != LinkState.Standing.WORKS)
        .forEach(
            c ->
                all.computeIfAbsent(c.section().id(), k -> new ArrayList<>())
                    .add(new Trouble(c.host(), p.name(c.host()), c.state().standing())));
    return all;
  }
}
