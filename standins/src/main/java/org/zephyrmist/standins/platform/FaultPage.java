package org.zephyrmist.standins.platform;

import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** The page with the knobs. */
@Controller
class FaultPage {
  private final Faults faults;
  private final StepQueue queue;

  FaultPage(Faults faults, StepQueue queue) {
    this.queue = queue;
    this.faults = faults;
  }

  @GetMapping("/faults")
  String page(Model model) {
    model.addAttribute("kinds", Faults.Kind.values());
    model.addAttribute("faults", faults.all());
    model.addAttribute("paused", queue.paused());
    model.addAttribute("waiting", queue.waiting());
    return "faults";
  }

  @PostMapping("/faults")
  String add(
      @RequestParam Faults.Kind kind,
      @RequestParam(defaultValue = "") String shell,
      @RequestParam(required = false) Integer times,
      @RequestParam(defaultValue = "100") double percent,
      @RequestParam(defaultValue = "503") int status,
      @RequestParam(defaultValue = "5") double seconds) {
    faults.add(new Wire.Fault(shell.strip(), kind, times, percent / 100, status, seconds));
    return "redirect:/faults";
  }

  @PostMapping("/queue")
  String queue(@RequestParam boolean paused) {
    if (paused) {
      queue.pause();
    } else {
      queue.goOn();
    }
    return "redirect:/faults";
  }

  @PostMapping("/faults/none")
  String none() {
    faults.clear("");
    return "redirect:/faults";
  }
}
