package org.zephyrmist.server.line;

import java.util.List;
import java.util.Map;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.delivery.Base;
import org.zephyrmist.core.delivery.Meant;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.server.master.Versions.Version;
import org.zephyrmist.server.platform.PlatformGateway;
import org.zephyrmist.server.shell.Reading;

/** A plan with all that it was made from. */
record Planned(
    Line line,
    PlatformGateway gateway,
    Version version,
    Meant meant,
    Reading reading,
    Map<ItemKey, Base> bases,
    List<Step> steps) {
  /** Whether nearly all of ours is gone from the shell, and nothing is done there. */
  boolean emptied() {
    return steps.stream().anyMatch(s -> s.reason() == Step.Reason.EMPTIED);
  }
}
