package org.zephyrmist.standins.tool;

import java.util.List;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.server.ResponseStatusException;

/** For programs that set the scene; every call needs the token. */
@RestController
@RequestMapping("/api/{host}")
class KnobApi {
  private final Knobs knobs;
  private final Courses courses;
  private final Platforms platforms;
  private final String token;

  KnobApi(
      Knobs knobs, Courses courses, Platforms platforms, @Value("${practice.token}") String token) {
    this.knobs = knobs;
    this.courses = courses;
    this.platforms = platforms;
    this.token = token;
  }

  record Course(String id, String title, String term) {}

  private void check(String authorization, String host) {
    if (!("Bearer " + token).equals(authorization)) {
      throw new ResponseStatusException(HttpStatus.UNAUTHORIZED);
    }
    if (Tool.at(host).isEmpty()) {
      throw new ResponseStatusException(HttpStatus.NOT_FOUND, "No tool at " + host);
    }
  }

  @PutMapping("/knobs")
  void set(
      @PathVariable String host,
      @RequestHeader(name = "Authorization", defaultValue = "") String authorization,
      @RequestBody Knobs.Set s) {
    check(authorization, host);
    knobs.set(host, s);
  }

  /** Gives keys out, or gives them another secret. */
  @PostMapping("/keys")
  void keys(
      @PathVariable String host,
      @RequestHeader(name = "Authorization", defaultValue = "") String authorization,
      @RequestBody List<Knobs.Key> keys) {
    check(authorization, host);
    knobs.keys(host, keys);
  }

  /** Tells the tool of a platform that launches it. */
  @PutMapping("/platforms")
  void register(
      @PathVariable String host,
      @RequestHeader(name = "Authorization", defaultValue = "") String authorization,
      @RequestBody Platforms.Registered r) {
    check(authorization, host);
    platforms.put(host, r);
  }

  @DeleteMapping("/keys/{key}")
  void forget(
      @PathVariable String host,
      @PathVariable String key,
      @RequestHeader(name = "Authorization", defaultValue = "") String authorization) {
    check(authorization, host);
    knobs.forget(host, key);
  }

  /** A class that comes to a course already; without one it has accepted the agreement. */
  record Tie(String context, String course) {}

  @PostMapping("/ties")
  void ties(
      @PathVariable String host,
      @RequestHeader(name = "Authorization", defaultValue = "") String authorization,
      @RequestBody List<Tie> all) {
    check(authorization, host);
    courses.tie(host, all);
  }

  @PostMapping("/courses")
  void courses(
      @PathVariable String host,
      @RequestHeader(name = "Authorization", defaultValue = "") String authorization,
      @RequestBody List<Course> all) {
    check(authorization, host);
    all.forEach(c -> courses.make(host, c.id(), c.title(), c.term()));
  }
}
