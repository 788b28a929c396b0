package org.zephyrmist.server.tool;

import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.zephyrmist.core.lti.Registration;
import org.zephyrmist.server.web.Refusal;

/**
 * What is entered of a registration besides its client (LTI 1.3 core, section 3.1.3).
 *
 * @param deployment a pattern of the section's values
 * @param launches addresses that messages may be sent to
 */
public record EnteredRegistration(
    @NotNull @Size(max = 400) String deployment,
    @NotNull @Size(max = 2000) String login,
    @NotNull @Size(max = 20) List<@NotNull @Size(max = 2000) String> launches,
    @NotNull @Size(max = 2000) String keySet) {
  /** As it counts; what is wrong with it is refused. */
  Registration of(String client) {
    Registration r =
        new Registration(
            client,
            deployment.strip(),
            login.strip(),
            launches.stream().map(String::strip).toList(),
            keySet.strip());
    r.wrong()
        .ifPresent(
            w -> {
              throw Refusal.bad(w, "Enter what the tool’s maker gave you.");
            });
    return r;
  }
}
