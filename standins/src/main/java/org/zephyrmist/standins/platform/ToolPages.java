package org.zephyrmist.standins.platform;

import jakarta.servlet.http.HttpServletRequest;
import java.time.Clock;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.server.ResponseStatusException;
import org.zephyrmist.core.lti.Login;
import org.zephyrmist.core.lti.Registration;
import org.zephyrmist.core.tool.BasicLaunch;
import org.zephyrmist.core.tool.Privacy;
import org.zephyrmist.core.tool.RelinkRule.Link;
import org.zephyrmist.standins.db.tables.records.ToolDataRecord;

/** Tool links of a shell as people open them, and what its instructor can set for a host. */
@Controller
class ToolPages {
  private final Shells shells;
  private final ShellTools tools;
  private final Clock clock;
  private final Logins logins;
  private final ToolAddresses where;

  ToolPages(Shells shells, ShellTools tools, Clock clock, Logins logins, ToolAddresses where) {
    this.shells = shells;
    this.tools = tools;
    this.clock = clock;
    this.logins = logins;
    this.where = where;
  }

  /** A form that sends itself to the tool. */
  @GetMapping("/shells/{shell}/items/{item}/open")
  String open(
      @PathVariable String shell,
      @PathVariable String item,
      @RequestParam(defaultValue = "false") boolean work,
      @RequestParam(defaultValue = "A student") String student,
      HttpServletRequest q,
      Model model) {
    if (!tools.support(shell)) {
      throw new ResponseStatusException(
          HttpStatus.FORBIDDEN, "External tools are switched off in this shell");
    }
    Wire.Item at =
        shells.items(shell).stream()
            .filter(i -> i.id().equals(item) && i.launch().containsKey("address"))
            .findFirst()
            .orElseThrow(() -> new ResponseStatusException(HttpStatus.NOT_FOUND));
    String address = at.launch().get("address").toString();
    String host = ShellTools.host(address);
    ToolDataRecord data = tools.data(shell, host);
    String base = q.getScheme() + "://" + q.getServerName() + ":" + q.getServerPort();
    String person = work ? "An instructor" : student;
    Optional<Registration> registration = ShellTools.registration(data);
    if (registration.isPresent()) {
      String id = logins.begun(shell, item, person, work);
      Login login = new Login(base, address, registration.get(), id, id);
      return form(login.parameters(), login.registration().login(), at, model);
    }
    BasicLaunch launch = launch(shells.get(shell), at, data, work, person, base);
    SortedMap<String, String> form =
        new TreeMap<>(
            data.getKey().isEmpty()
                ? launch.parameters()
                : launch.signed(
                    data.getKey(),
                    data.getSecret(),
                    clock.instant(),
                    UUID.randomUUID().toString()));
    tools.opened(shell, host, work, person);
    return form(form, address, at, model);
  }

  private String form(SortedMap<String, String> form, String to, Wire.Item at, Model model) {
    model.addAttribute("form", form);
    model.addAttribute("to", where.to(to));
    model.addAttribute("title", at.wording().title());
    return "launch";
  }

  static BasicLaunch launch(
      Wire.Shell shell,
      Wire.Item at,
      ToolDataRecord data,
      boolean instructor,
      String person,
      String base) {
    SortedMap<String, String> sent = new TreeMap<>();
    if (at.launch().get("parameters") instanceof Map<?, ?> all) {
      all.forEach((k, v) -> sent.put(k.toString(), v.toString()));
    }
    if (!data.getCourse().isEmpty()) {
      sent.put("tool_course", data.getCourse());
    }
    String host = ShellTools.host(at.launch().get("address").toString());
    return new BasicLaunch(
        new Link(at.launch().get("address").toString(), sent),
        at.id(),
        at.wording().title(),
        new BasicLaunch.Course(shell.id(), shell.course(), shell.title()),
        new BasicLaunch.Person(
            Integer.toHexString(person.hashCode()),
            person,
            "",
            instructor ? BasicLaunch.Role.INSTRUCTOR : BasicLaunch.Role.LEARNER),
        new Privacy(true, false),
        at.points()
            .filter(p -> !instructor)
            .map(
                p ->
                    new BasicLaunch.GradeReturn(
                        base + "/lti/outcomes", OutcomePages.result(shell.id(), at.id(), person))),
        "practice.example",
        Optional.of(base + "/shells/" + shell.id() + "/tools/" + host + "/back"));
  }

  /** Where a tool sends people back to, with what it has to say. */
  @GetMapping("/shells/{shell}/tools/{host}/back")
  String back(
      @PathVariable String shell,
      @PathVariable String host,
      @RequestParam(name = "lti_msg", defaultValue = "") String said,
      @RequestParam(name = "lti_errormsg", defaultValue = "") String wrong,
      Model model) {
    tools.said(shell, host, said.isEmpty() ? wrong : said);
    model.addAttribute("shell", shells.get(shell));
    model.addAttribute("said", said.isEmpty() ? wrong : said);
    return "tool-back";
  }

  /** What an instructor enters for a host by hand. */
  @PostMapping("/shells/{shell}/tools/{host}")
  String enter(
      @PathVariable String shell,
      @PathVariable String host,
      @RequestParam String key,
      @RequestParam String secret) {
    tools.write(
        java.util.List.of(
            new ShellTools.Data(shell, host, key.strip(), secret.strip(), null, null)),
        ShellTools.By.PERSON);
    return "redirect:/shells/" + shell + "?work=true";
  }
}
