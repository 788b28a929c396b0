package org.zephyrmist.server.tool;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jooq.Condition;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.handover.HandOverKind;
import org.zephyrmist.core.tool.LinkState.Reason;
import org.zephyrmist.core.tool.Stage;

/** What somebody has to do before the tool links of sections work. */
@Component
public class ToolSteps {
  private final ToolSections sections;
  private final ToolHosts hosts;
  private final FirstOpenings openings;

  ToolSteps(ToolSections sections, ToolHosts hosts, FirstOpenings openings) {
    this.sections = sections;
    this.hosts = hosts;
    this.openings = openings;
  }

  /**
   * A step.
   *
   * @param host empty where it is about all tools of the shell
   * @param tool what the host's tool is called
   * @param link where it is done, if that is known
   * @param answers whether the tool asks which course it is
   */
  public record ToolStep(
      HandOverKind kind,
      UUID section,
      String host,
      String tool,
      Optional<String> link,
      boolean answers) {}

  /**
   * Each once.
   *
   * @param which rows of {@code section}
   */
  public List<ToolStep> of(Condition which) {
    ToolHosts.Picture picture = hosts.of(sections.where(which));
    Set<ToolStep> all = new LinkedHashSet<>();
    for (ToolHosts.Cell c : picture.cells()) {
      kind(c)
          .ifPresent(
              k -> {
                boolean shell = k == HandOverKind.SWITCH_SUPPORT_ON;
                all.add(
                    new ToolStep(
                        k,
                        c.section().id(),
                        shell ? "" : c.host(),
                        shell ? "" : picture.name(c.host()),
                        Optional.empty(),
                        false));
              });
    }
    for (OpeningApi.Opening o : openings.of(picture)) {
      all.add(
          new ToolStep(
              HandOverKind.OPEN_ONCE,
              o.section(),
              o.host(),
              o.tool(),
              Optional.ofNullable(o.link()),
              o.answers()));
    }
    return new ArrayList<>(all);
  }

  private static Optional<HandOverKind> kind(ToolHosts.Cell c) {
    if (c.state().reason() == Reason.SUPPORT_OFF) {
      return Optional.of(HandOverKind.SWITCH_SUPPORT_ON);
    }
    if (c.state().reason() == Reason.NOT_APPROVED) {
      return Optional.of(HandOverKind.APPROVE);
    }
    boolean enters = c.state().stuck().equals(Optional.of(Stage.CREDENTIALS));
    return enters && c.section().byHand()
        ? Optional.of(HandOverKind.ENTER_CREDENTIALS)
        : Optional.empty();
  }
}
