package org.zephyrmist.standins.platform;

import java.math.BigDecimal;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.server.ResponseStatusException;
import org.zephyrmist.core.lti.Score;

/**
 * Points, dates and scores of a task that is done in a tool (LTI Assignment and Grade Services
 * 2.0). What the tool says of points and dates is kept beside the task's own, which stay. The
 * platform's clock shows UTC.
 */
@RestController
@RequestMapping("/lti/shells/{shell}/items/{item}")
class GradePages {
  private static final String LINE_ITEM = "application/vnd.ims.lis.v2.lineitem+json";
  private final Shells shells;
  private final ShellTools tools;
  private final Logins logins;
  private final Scores scores;
  private final ToolTasks tasks;

  GradePages(Shells shells, ShellTools tools, Logins logins, Scores scores, ToolTasks tasks) {
    this.shells = shells;
    this.tools = tools;
    this.logins = logins;
    this.scores = scores;
    this.tasks = tasks;
  }

  /** A task that the bearer's tool is for, and the host of that. */
  private record Task(Wire.Item item, String host) {}

  private Task task(String shell, String item, String bearer) {
    Wire.Item at =
        shells.items(shell).stream()
            .filter(i -> i.id().equals(item))
            .findFirst()
            .orElseThrow(() -> new ResponseStatusException(HttpStatus.NOT_FOUND));
    String host = ShellTools.host(String.valueOf(at.launch().get("address")));
    Optional<String> who = logins.client(bearer.replaceFirst("^Bearer ", ""));
    if (who.isEmpty()) {
      throw new ResponseStatusException(HttpStatus.UNAUTHORIZED);
    }
    if (!who.get().equals(tools.data(shell, host).getKey())) {
      throw new ResponseStatusException(HttpStatus.FORBIDDEN);
    }
    return new Task(at, host);
  }

  /** Section 3.2. */
  @GetMapping(produces = LINE_ITEM)
  Map<String, Object> get(
      @PathVariable String shell,
      @PathVariable String item,
      @RequestHeader(name = "Authorization", defaultValue = "") String bearer) {
    Wire.Item at = task(shell, item, bearer).item();
    Map<String, Object> all = new LinkedHashMap<>();
    at.points().ifPresent(p -> all.put("scoreMaximum", p));
    all.put("label", at.wording().title());
    all.put("resourceLinkId", item);
    Object due = at.timing().get("due");
    if (due != null) {
      all.put("endDateTime", LocalDateTime.parse(due.toString()).atOffset(ZoneOffset.UTC) + "");
    }
    return all;
  }

  /** What a tool says of its task, section 3.2. */
  record LineItem(BigDecimal scoreMaximum, String label, OffsetDateTime endDateTime) {}

  @PutMapping(consumes = LINE_ITEM)
  void put(
      @PathVariable String shell,
      @PathVariable String item,
      @RequestHeader(name = "Authorization", defaultValue = "") String bearer,
      @RequestBody LineItem said) {
    Task t = task(shell, item, bearer);
    if (said.scoreMaximum() == null || said.scoreMaximum().signum() <= 0) {
      throw new ResponseStatusException(HttpStatus.BAD_REQUEST, "scoreMaximum is missing");
    }
    tasks.said(
        shell,
        item,
        t.host(),
        said.scoreMaximum(),
        Optional.ofNullable(said.endDateTime())
            .map(d -> d.withOffsetSameInstant(ZoneOffset.UTC).toLocalDateTime()));
  }

  record ScoreSent(
      String userId,
      Double scoreGiven,
      Double scoreMaximum,
      String activityProgress,
      String gradingProgress,
      String timestamp) {}

  /** Section 3.4. */
  @PostMapping(path = "/scores", consumes = "application/vnd.ims.lis.v1.score+json")
  ResponseEntity<Void> score(
      @PathVariable String shell,
      @PathVariable String item,
      @RequestHeader(name = "Authorization", defaultValue = "") String bearer,
      @RequestBody ScoreSent s) {
    Task t = task(shell, item, bearer);
    if (s.userId() == null || s.scoreGiven() == null || s.scoreMaximum() == null) {
      throw new ResponseStatusException(
          HttpStatus.BAD_REQUEST, "userId, scoreGiven or scoreMaximum is missing");
    }
    scores.put(shell, item, t.host(), s.userId(), new Score(s.scoreGiven(), s.scoreMaximum()));
    return ResponseEntity.noContent().build();
  }
}
