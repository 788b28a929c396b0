package org.zephyrmist.standins.platform;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestAttribute;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.server.ResponseStatusException;

/** The API for programs; every call needs the token. */
@RestController
@RequestMapping(path = "/api", produces = MediaType.APPLICATION_JSON_VALUE)
class ShellApi {
  private static final int PAGE = 500;
  private final Shells shells;
  private final Steps steps;
  private final Files files;
  private final Faults faults;
  private final StepQueue queue;
  private final ShellTools tools;
  private final Classes classes;

  ShellApi(
      Shells shells,
      Steps steps,
      Files files,
      Faults faults,
      StepQueue queue,
      ShellTools tools,
      Classes classes) {
    this.classes = classes;
    this.tools = tools;
    this.queue = queue;
    this.shells = shells;
    this.steps = steps;
    this.files = files;
    this.faults = faults;
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

  /** With the state of the shell as its entity tag; a reader that has it is told so (304). */
  @GetMapping("/shells/{shell}/items")
  ResponseEntity<List<Wire.Item>> items(
      @PathVariable String shell,
      @RequestHeader(name = "If-None-Match", required = false) String known) {
    String tag = "\"" + shells.state(shell) + "\"";
    return tag.equals(known)
        ? ResponseEntity.status(HttpStatus.NOT_MODIFIED).eTag(tag).build()
        : ResponseEntity.ok()
            .eTag(tag)
            .header("Shell-Counts", shells.counts(shell))
            .header("Shell-Open", classes.term(shell).header())
            .body(shells.items(shell));
  }

  /** Lets students in on these days alone. */
  @PutMapping("/shells/{shell}/open")
  void open(@PathVariable String shell, @RequestBody Wire.Open days) {
    classes.open(shell, days.opens(), days.closes());
  }

  @PostMapping("/shells/{shell}/steps")
  ResponseEntity<?> apply(
      @PathVariable String shell,
      @RequestBody Wire.Steps body,
      @RequestAttribute(name = FaultFilter.INSIDE, required = false) Faults.Kind fault) {
    if (queue.accept(shell, body.steps())) {
      return ResponseEntity.accepted().body(new Wire.Accepted(queue.waiting()));
    }
    if (fault == Faults.Kind.MEDDLE) {
      steps.meddle(shell, body.steps());
    }
    if (fault == Faults.Kind.PART) {
      steps.apply(shell, body.steps().subList(0, body.steps().size() / 2), "Zephyrmist");
      throw new ResponseStatusException(HttpStatus.INTERNAL_SERVER_ERROR, "Half was done");
    }
    List<Wire.Answer> answers = steps.apply(shell, body.steps(), "Zephyrmist");
    return ResponseEntity.ok(
        new Wire.Answers(
            fault == Faults.Kind.UNCONNECTED
                ? unconnected(shell, body.steps(), answers)
                : answers));
  }

  /** Answers in the order of the steps; links whose host has no data here are called failed. */
  private List<Wire.Answer> unconnected(
      String shell, List<Wire.Step> steps, List<Wire.Answer> answers) {
    List<Wire.Answer> all = new ArrayList<>(answers);
    for (int i = 0; i < steps.size(); i++) {
      Map<String, Object> launch = steps.get(i).launch();
      Object address = launch == null ? null : launch.get("address");
      String host = address == null ? "" : ShellTools.host(address.toString());
      if (!host.isEmpty() && tools.data(shell, host).getKey().isEmpty()) {
        all.set(i, all.get(i).failed("External tool: no provider is set up"));
      }
    }
    return all;
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

  @GetMapping(path = "/files/{sha256}", produces = MediaType.ALL_VALUE)
  void file(@PathVariable String sha256, HttpServletResponse response) throws IOException {
    String type =
        files
            .mediaType(sha256)
            .orElseThrow(() -> new ResponseStatusException(HttpStatus.NOT_FOUND, "No such file"));
    response.setContentType(type);
    files.copy(sha256, response.getOutputStream());
  }

  /** Pauses the queue, or goes on with it. */
  @PutMapping("/queue")
  void queue(@RequestBody Wire.Queue q) {
    if (q.paused()) {
      queue.pause();
    } else {
      queue.goOn();
    }
  }

  @GetMapping("/faults")
  List<Wire.Fault> faults() {
    return faults.all().stream()
        .map(
            f ->
                new Wire.Fault(
                    f.getShellId(),
                    Faults.Kind.valueOf(f.getKind()),
                    f.getTimes(),
                    f.getChance(),
                    f.getStatus(),
                    f.getSeconds()))
        .toList();
  }

  /** Turns a knob: what is to go wrong from now on. */
  @PostMapping("/faults")
  void fault(@RequestBody Wire.Fault fault) {
    faults.add(fault);
  }

  /** Takes the faults of a shell away, or all. */
  @DeleteMapping("/faults")
  void noFaults(@RequestParam(defaultValue = "") String shell) {
    faults.clear(shell);
  }
}
