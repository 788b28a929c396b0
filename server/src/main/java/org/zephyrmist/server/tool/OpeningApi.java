package org.zephyrmist.server.tool;

import jakarta.validation.constraints.NotNull;
import java.util.List;
import java.util.UUID;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.tool.LinkState;
import org.zephyrmist.server.people.SignedIn;

/** First openings: what instructors have to open once before their students can. */
@RestController
@RequestMapping(path = "/api/tools/openings", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("isAuthenticated()")
class OpeningApi {
  private final FirstOpenings openings;

  OpeningApi(FirstOpenings openings) {
    this.openings = openings;
  }

  /**
   * Something to be opened.
   *
   * @param link where it is found; absent where the platform has no interface
   * @param answers whether the tool asks which course it is: a new copy, for this section alone
   */
  record Opening(
      @NotNull UUID section,
      @NotNull String code,
      @NotNull String title,
      @NotNull String host,
      @NotNull String tool,
      @NotNull LinkState.Reason reason,
      String link,
      boolean answers) {}

  /** Of one's own sections. */
  @GetMapping("/mine")
  List<Opening> mine(@AuthenticationPrincipal SignedIn who) {
    return openings.mine(who);
  }
}
