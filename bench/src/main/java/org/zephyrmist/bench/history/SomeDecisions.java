package org.zephyrmist.bench.history;

import java.util.List;
import java.util.Map;
import org.zephyrmist.stage.Caller;
import tools.jackson.databind.JsonNode;

/** What a person decides in a plan. */
final class SomeDecisions {
  private final Turn of;

  SomeDecisions(Turn of) {
    this.of = of;
  }

  /** Decides some of what is asked; whether words of a section's own may go by it. */
  boolean some(String id) {
    if (of.random().nextBoolean()) {
      return false;
    }
    JsonNode plan = of.stage().coordinator().get("/api/deliveries/" + id + "/plan");
    boolean drops = false;
    for (int l = 0; l < plan.path("lines").size(); l++) {
      JsonNode steps = plan.path("steps").get(l);
      for (int i = 0; i + 1 < steps.size(); i += 2) {
        JsonNode code = plan.path("codes").get(steps.get(i + 1).asInt());
        String kind = code.path("kind").asString();
        String reason = code.path("reason").asString();
        String take =
            kind.equals("CLASH") || reason.equals("MERGED")
                ? of.any(List.of("SECTION", "VERSION", "TOGETHER"))
                : kind.equals("TWIN") && !reason.equals("SUPPLIED")
                    ? of.any(List.of("ADOPT", "ADD", "LEAVE"))
                    : reason.equals("STUDENT_WORK")
                        ? of.any(List.of("LEAVE", "CHANGE_GRADING", "HIDE"))
                        : "";
        if (take.isEmpty() || of.random().nextInt(3) > 0) {
          continue;
        }
        String key = plan.path("rows").get(steps.get(i).asInt()).path("key").asString();
        String path =
            "/api/deliveries/"
                + id
                + "/lines/"
                + plan.path("lines").get(l).asString()
                + "/steps/"
                + key;
        try {
          of.stage()
              .coordinator()
              .put(
                  path + "/decision",
                  Map.of("take", take, "everywhere", of.random().nextBoolean()));
          drops |= take.equals("VERSION") || take.equals("TOGETHER") || take.equals("ADOPT");
          of.stage().college().awaitLeaves(id, "PLANNING");
          of.log()
              .add(
                  of.step()
                      + "   decided "
                      + take
                      + " of "
                      + key
                      + " ("
                      + kind
                      + " "
                      + reason
                      + ")");
        } catch (Caller.Failed e) {
          if (e.status >= 500) {
            throw e;
          }
        }
      }
    }
    return drops;
  }
}
