package org.zephyrmist.server.tool;

import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.lti.Registration;
import org.zephyrmist.core.tool.Privacy;
import org.zephyrmist.server.web.Refusal;

/** Tools that resources can be picked in: registered, and approved where that is asked for. */
@Component
public class PickingTools {
  private final ToolConnections connections;

  PickingTools(ToolConnections connections) {
    this.connections = connections;
  }

  /**
   * A tool.
   *
   * @param privacy what it is told of whoever picks
   */
  public record PickingTool(
      UUID connection, String name, Registration registration, Privacy privacy) {}

  public List<PickingTool> all() {
    return connections.all().stream()
        .filter(c -> c.registration().isPresent() && c.connection().mayServe())
        .map(
            c ->
                new PickingTool(
                    UUID.fromString(c.connection().id()),
                    c.connection().name(),
                    c.registration().orElseThrow(),
                    c.privacy()))
        .toList();
  }

  public PickingTool get(UUID connection) {
    return all().stream()
        .filter(t -> t.connection().equals(connection))
        .findFirst()
        .orElseThrow(
            () ->
                Refusal.bad(
                    "This tool is not registered, or not approved any more.",
                    "Choose another one, or ask an administrator."));
  }
}
