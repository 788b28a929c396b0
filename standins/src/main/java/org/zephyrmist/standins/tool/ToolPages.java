package org.zephyrmist.standins.tool;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.math.BigDecimal;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.server.ResponseStatusException;
import org.springframework.web.util.UriComponentsBuilder;
import org.zephyrmist.standins.db.tables.records.ToolTicketRecord;

/**
 * The tools as a browser meets them. The tool of a host stands below {@code /at/} and the host's
 * name; signed is its real address, {@code https://} and the same path.
 */
@Controller
class ToolPages {
  private final Launches launches;
  private final Courses courses;
  private final Knobs knobs;
  private final Grades grades;
  private final Visits visits;

  ToolPages(Launches launches, Courses courses, Knobs knobs, Grades grades, Visits visits) {
    this.visits = visits;
    this.grades = grades;
    this.launches = launches;
    this.courses = courses;
    this.knobs = knobs;
  }

  /**
   * A tool and how it is set.
   *
   * @param set what is set at it
   */
  record Line(Tool tool, Knobs.Set set) {
    public String host() {
      return tool.host;
    }

    public String title() {
      return tool.title;
    }
  }

  @GetMapping("/")
  String list(Model model) {
    model.addAttribute(
        "tools",
        java.util.Arrays.stream(Tool.values()).map(t -> new Line(t, knobs.of(t.host))).toList());
    return "tools";
  }

  @PostMapping("/tools/{host}/knobs")
  String set(
      @PathVariable String host,
      @RequestParam(defaultValue = "false") boolean down,
      @RequestParam(defaultValue = "0") int slow,
      @RequestParam(defaultValue = "0") int minutes,
      @RequestParam(defaultValue = "0") int clockOff,
      @RequestParam(defaultValue = "") String movedTo,
      @RequestParam(defaultValue = "") String due) {
    Tool.at(host).orElseThrow(() -> new ResponseStatusException(HttpStatus.NOT_FOUND));
    knobs.set(host, new Knobs.Set(down, slow, minutes, clockOff, movedTo.strip(), due.strip()));
    return "redirect:/";
  }

  @PostMapping("/tools/{host}/keys")
  String key(@PathVariable String host, @RequestParam String key, @RequestParam String secret) {
    Tool.at(host).orElseThrow(() -> new ResponseStatusException(HttpStatus.NOT_FOUND));
    knobs.keys(host, java.util.List.of(new Knobs.Key(key.strip(), secret.strip(), "")));
    return "redirect:/";
  }

  @PostMapping("/at/{host}/**")
  String launch(
      @PathVariable String host, HttpServletRequest q, HttpServletResponse r, Model model) {
    String path = q.getRequestURI().substring(("/at/" + host).length());
    return launches.launched(host, "https://" + host + path, q, r, model);
  }

  /** Nobody gets in by themselves but where all may. */
  @GetMapping("/at/{host}/**")
  String visit(@PathVariable String host, HttpServletResponse r, Model model) {
    Tool tool = knobs.at(host).orElseThrow(() -> new ResponseStatusException(HttpStatus.NOT_FOUND));
    model.addAttribute("tool", tool.title);
    if (tool == Tool.PROMPTDESK) {
      model.addAttribute("course", "");
      return "tool-inside";
    }
    r.setStatus(HttpStatus.FORBIDDEN.value());
    model.addAttribute("why", "Come from the page of your class.");
    return "tool-refused";
  }

  /** The instructor's answer to which course the class comes to. */
  @PostMapping("/answer/course")
  String course(
      @RequestParam String ticket, @RequestParam(defaultValue = "") String course, Model model) {
    ToolTicketRecord t = ticket(ticket);
    if (!course.isEmpty() && !courses.exists(t.getHost(), course)) {
      throw new ResponseStatusException(HttpStatus.BAD_REQUEST, "No course " + course);
    }
    return back(t, "Tied to course " + courses.pair(t, course), model);
  }

  /** The question once more, for an instructor whose class comes to the wrong course. */
  @PostMapping("/answer/anew")
  String anew(@RequestParam String ticket, Model model) {
    ToolTicketRecord t = courses.open(ticket).orElseThrow(ToolPages::answered);
    model.addAttribute("tool", Tool.at(t.getHost()).orElseThrow().title);
    model.addAttribute("title", t.getTitle());
    model.addAttribute("courses", courses.newest(t.getHost()));
    model.addAttribute("ticket", ticket);
    return "tool-course";
  }

  @PostMapping("/answer/agreement")
  String agreement(@RequestParam String ticket, Model model) {
    ToolTicketRecord t = ticket(ticket);
    courses.agree(t, knobs.of(t.getHost()).minutes());
    return back(t, "Agreement accepted", model);
  }

  /** A grade goes back to whoever launched it. */
  @PostMapping("/answer/grade")
  String grade(@RequestParam String visit, @RequestParam BigDecimal points, Model model) {
    var v = visits.get(visit);
    String said = grades.send(v.getHost(), v.getClient(), v.getLineItem(), v.getPerson(), points);
    model.addAttribute("tool", Tool.at(v.getHost()).orElseThrow().title);
    model.addAttribute(
        "why",
        said.contains("<imsx_codeMajor>success")
            ? "The grade went to your class."
            : "Your class did not take the grade: " + said);
    return "tool-refused";
  }

  private ToolTicketRecord ticket(String id) {
    return courses.used(id).orElseThrow(ToolPages::answered);
  }

  private static ResponseStatusException answered() {
    return new ResponseStatusException(
        HttpStatus.BAD_REQUEST, "This was answered before. Open the link again.");
  }

  /** Tells whoever sent the instructor (LTI 1.1.1, section 3, "lti_msg"). */
  private String back(ToolTicketRecord t, String said, Model model) {
    if (t.getBack().startsWith("http")) {
      return "redirect:"
          + UriComponentsBuilder.fromUriString(t.getBack())
              .queryParam("lti_msg", "{said}")
              .encode()
              .buildAndExpand(said)
              .toUriString();
    }
    Optional<Tool> tool = Tool.at(t.getHost());
    model.addAttribute("tool", tool.orElseThrow().title);
    model.addAttribute("course", said);
    return "tool-inside";
  }
}
