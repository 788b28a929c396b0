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

/**
 * A plan with all that it was made from.
 *
 * @param emptied whether the shell was found emptied before the line began
 */
record Planned(
    Line line,
    PlatformGateway gateway,
    Version version,
    Meant meant,
    Reading reading,
    Map<ItemKey, Base> bases,
    List<Step> steps,
    boolean emptied) {
  /** Whether nothing is done in the shell because it was emptied. */
  boolean untouched() {
    return steps.stream().anyMatch(s -> s.reason() == Step.Reason.EMPTIED);
  }
}
