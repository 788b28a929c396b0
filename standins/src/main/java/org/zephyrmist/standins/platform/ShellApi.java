package org.zephyrmist.standins.platform;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.util.List;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The API for programs; every call needs the token. */
@RestController
@RequestMapping(path = "/api", produces = MediaType.APPLICATION_JSON_VALUE)
class ShellApi {
  private static final int PAGE = 500;
  private final Shells shells;
  private final Steps steps;
  private final Files files;

  ShellApi(Shells shells, Steps steps, Files files) {
    this.shells = shells;
    this.steps = steps;
    this.files = files;
  }

  /** Shells in order of id, 500 at a time, after the given id. */
  @GetMapping("/shells")
  List<Wire.Shell> list(@RequestParam(defaultValue = "") String after) {
    return shells.list(after, PAGE);
  }

  /** Makes shells, or leaves them as they are. */
  @PostMapping("/shells")
  void make(@RequestBody List<Wire.Shell> made) {
    shells.make(made);
  }

  @GetMapping("/shells/{shell}/items")
  List<Wire.Item> items(@PathVariable String shell) {
    shells.mayFail(shell);
    return shells.items(shell);
  }

  @PostMapping("/shells/{shell}/steps")
  Wire.Answers apply(@PathVariable String shell, @RequestBody Wire.Steps body) {
    shells.mayFail(shell);
    return new Wire.Answers(steps.apply(shell, body.steps(), "Zephyrmist"));
  }

  /** Which of these files are not here yet. */
  @PostMapping("/files/missing")
  Wire.Hashes missing(@RequestBody Wire.Hashes asked) {
    return new Wire.Hashes(files.missing(asked.sha256()));
  }

  @PutMapping(path = "/files/{sha256}", consumes = MediaType.ALL_VALUE)
  void upload(@PathVariable String sha256, HttpServletRequest request) throws IOException {
    files.store(sha256, request.getContentType(), request.getInputStream());
  }

  /** The next so many calls on a shell are answered with this status. */
  @PostMapping("/shells/{shell}/fault")
  void fault(@PathVariable String shell, @RequestBody Wire.Fault fault) {
    shells.fault(shell, fault);
  }
}
