package org.zephyrmist.standins.tool;

import static org.zephyrmist.standins.tool.LaunchCheck.one;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.time.Clock;
import java.time.Duration;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.ui.Model;
import org.springframework.web.server.ResponseStatusException;
import org.springframework.web.util.UriComponentsBuilder;
import org.zephyrmist.standins.db.tables.records.ToolTieRecord;

/** What a tool does with somebody who comes by a launch. */
@Component
class Launches {
  private static final int MINUTE = 60;
  private final LaunchCheck check;
  private final Courses courses;
  private final Knobs knobs;
  private final Visits visits;
  private final Clock clock;

  Launches(LaunchCheck check, Courses courses, Knobs knobs, Visits visits, Clock clock) {
    this.visits = visits;
    this.check = check;
    this.courses = courses;
    this.knobs = knobs;
    this.clock = clock;
  }

  /** The name of the page that answers, or where it leads back to. */
  String launched(
      String host, String address, HttpServletRequest q, HttpServletResponse r, Model model) {
    Tool tool = knobs.at(host).orElseThrow(() -> new ResponseStatusException(HttpStatus.NOT_FOUND));
    Knobs.Set set = knobs.of(tool.host);
    Map<String, List<String>> sent = new TreeMap<>();
    q.getParameterMap().forEach((k, v) -> sent.put(k, Arrays.asList(v)));
    set.trouble();
    if (!set.movedTo().isEmpty() && !host.equals(set.movedTo())) {
      return refused(tool, sent, "This tool is found at " + set.movedTo() + " now.", r, model);
    }
    if (tool.registered) {
      return refused(tool, sent, "This tool is launched by its registration alone.", r, model);
    }
    if (!"basic-lti-launch-request".equals(one(sent, "lti_message_type"))) {
      return refused(tool, sent, "This is no launch of LTI 1.1.", r, model);
    }
    Optional<String> against =
        tool.signed ? check.against(tool, address, sent, set.clockOff()) : Optional.empty();
    if (against.isPresent()) {
      return refused(tool, sent, against.get(), r, model);
    }
    model.addAttribute("tool", tool.title);
    model.addAttribute("who", one(sent, "lis_person_name_full"));
    model.addAttribute("instructor", instructor(sent));
    model.addAttribute("title", one(sent, "context_title"));
    if (!instructor(sent) && !one(sent, "lis_outcome_service_url").isEmpty()) {
      model.addAttribute(
          "grade",
          visits.graded(
              tool.host,
              one(sent, "oauth_consumer_key"),
              one(sent, "lis_outcome_service_url"),
              one(sent, "lis_result_sourcedid")));
    }
    return letIn(tool, sent, r, model);
  }

  private String letIn(
      Tool tool, Map<String, List<String>> sent, HttpServletResponse r, Model model) {
    if (tool.asksForCourse) {
      return toOwnCourse(tool, sent, r, model);
    }
    if (tool.courseInKey) {
      Optional<String> course = courses.ofKey(tool.host, one(sent, "oauth_consumer_key"));
      return course.isEmpty()
          ? refused(tool, sent, "This key is for no course.", r, model)
          : inside(course.get(), model);
    }
    return tool.asksForAgreement ? agreed(tool, sent, r, model) : inside("", model);
  }

  /**
   * A course that the link names goes before the one that the class is tied to; one that is not
   * there yet is copied from the master.
   */
  private String toOwnCourse(
      Tool tool, Map<String, List<String>> sent, HttpServletResponse r, Model model) {
    String named = one(sent, "custom_tool_course");
    if (courses.exists(tool.host, named)) {
      return inside(named, model);
    }
    if (!named.isEmpty()) {
      if (!instructor(sent)) {
        return refused(tool, sent, "Your instructor has to open this first.", r, model);
      }
      courses.make(tool.host, named, one(sent, "context_title"), "");
      return inside(named, model);
    }
    Optional<String> tied =
        courses.tie(tool.host, one(sent, "context_id")).map(ToolTieRecord::getCourseId);
    if (tied.isPresent()) {
      if (instructor(sent)) { // who may say so anew
        ticket(tool, sent, model);
      }
      return inside(tied.get(), model);
    }
    if (!instructor(sent)) {
      return refused(tool, sent, "Your instructor has to open this first.", r, model);
    }
    model.addAttribute("courses", courses.newest(tool.host));
    return asked("tool-course", tool, sent, model);
  }

  private String agreed(
      Tool tool, Map<String, List<String>> sent, HttpServletResponse r, Model model) {
    Optional<ToolTieRecord> tie = courses.tie(tool.host, one(sent, "context_id"));
    if (tie.isPresent()) {
      long wait = Duration.between(clock.instant(), tie.get().getReadyAt().toInstant()).toSeconds();
      if (wait <= 0) {
        return inside("", model);
      }
      r.setHeader("Retry-After", "" + wait);
      return refused(
          tool,
          sent,
          "This class is made ready, which takes " + (wait / MINUTE + 1) + " minutes more.",
          r,
          model);
    }
    return instructor(sent)
        ? asked("tool-agreement", tool, sent, model)
        : refused(tool, sent, "Your instructor has to accept the agreement first.", r, model);
  }

  private String asked(String page, Tool tool, Map<String, List<String>> sent, Model model) {
    ticket(tool, sent, model);
    return page;
  }

  private void ticket(Tool tool, Map<String, List<String>> sent, Model model) {
    model.addAttribute(
        "ticket",
        courses.ticket(
            tool.host,
            one(sent, "context_id"),
            one(sent, "context_title"),
            one(sent, "launch_presentation_return_url")));
  }

  private static String inside(String course, Model model) {
    model.addAttribute("course", course);
    return "tool-inside";
  }

  private static boolean instructor(Map<String, List<String>> sent) {
    return one(sent, "roles").contains("Instructor");
  }

  /** Leads back with the reason where it can (LTI 1.1.1, section 3). */
  private static String refused(
      Tool tool, Map<String, List<String>> sent, String why, HttpServletResponse r, Model model) {
    String back = one(sent, "launch_presentation_return_url");
    if (back.startsWith("http")) {
      return "redirect:"
          + UriComponentsBuilder.fromUriString(back)
              .queryParam("lti_errormsg", "{why}")
              .encode()
              .buildAndExpand(why)
              .toUriString();
    }
    r.setStatus(HttpStatus.FORBIDDEN.value());
    model.addAttribute("tool", tool.title);
    model.addAttribute("why", why);
    return "tool-refused";
  }
}
