package org.zephyrmist.standins.platform;

import java.util.List;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** External tools of shells, for programs; secrets are written and never given. */
@RestController
@RequestMapping(path = "/api/tools", produces = MediaType.APPLICATION_JSON_VALUE)
class ToolApi {
  private final ShellTools tools;

  ToolApi(ShellTools tools) {
    this.tools = tools;
  }

  record Asked(List<String> shells) {}

  record Support(List<String> shells, boolean on) {}

  @PostMapping("/look")
  List<ShellTools.Host> look(@RequestBody Asked asked) {
    return tools.of(asked.shells());
  }

  /** Writes key and secret of hosts; what else is set there stays. Twice is the same as once. */
  @PutMapping("/data")
  void write(@RequestBody List<ShellTools.Data> data) {
    tools.write(data, ShellTools.By.PROGRAM);
  }

  /** The same, as if it had come with a package. */
  @PutMapping("/packaged")
  void packaged(@RequestBody List<ShellTools.Data> data) {
    tools.write(data, ShellTools.By.PACKAGE);
  }

  record Openings(List<ShellTools.Opening> openings) {}

  /** Openings as if instructors had made them. */
  @PostMapping("/openings")
  void openings(@RequestBody Openings o) {
    tools.opened(o.openings());
  }

  @PutMapping("/support")
  void support(@RequestBody Support s) {
    tools.support(s.shells(), s.on());
  }
}
