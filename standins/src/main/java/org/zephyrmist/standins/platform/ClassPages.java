package org.zephyrmist.standins.platform;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.List;
import org.springframework.format.annotation.DateTimeFormat;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.util.UriUtils;

/** What students do in a shell, and what its instructor does for the class: opening it, grading. */
@Controller
class ClassPages {
  private final Shells shells;
  private final Classes classes;

  ClassPages(Shells shells, Classes classes) {
    this.shells = shells;
    this.classes = classes;
  }

  @PostMapping("/shells/{shell}/items/{item}/work")
  String handIn(
      @PathVariable String shell,
      @PathVariable String item,
      @RequestParam(defaultValue = "A student") String student,
      @RequestParam(defaultValue = "My work") String text) {
    shells.handIn(shell, item, student, text);
    return seen(shell, item, student);
  }

  @PostMapping("/shells/{shell}/items/{item}/post")
  String post(
      @PathVariable String shell,
      @PathVariable String item,
      @RequestParam(defaultValue = "A student") String student,
      @RequestParam(defaultValue = "My thoughts") String text) {
    shells.post(shell, item, student, text);
    return seen(shell, item, student);
  }

  private static String seen(String shell, String item, String student) {
    return "redirect:/shells/"
        + UriUtils.encodePathSegment(shell, StandardCharsets.UTF_8)
        + "?item="
        + item
        + "&student="
        + UriUtils.encode(student, StandardCharsets.UTF_8);
  }

  @PostMapping("/shells/{shell}/items/{item}/grade")
  String grade(
      @PathVariable String shell, @PathVariable String item, @RequestParam BigDecimal points) {
    shells.grade(shell, item, points);
    return "redirect:/shells/" + shell + "?work=true&item=" + item;
  }

  @GetMapping("/shells/{shell}/grades")
  String grades(@PathVariable String shell, Model model) {
    Gradebook book = new Gradebook(shells.items(shell));
    List<Gradebook.Row> rows = classes.rows(shell, book);
    model.addAttribute("shell", shells.get(shell));
    model.addAttribute("book", book);
    model.addAttribute("rows", rows);
    return "grades";
  }

  /** From when until when students may enter; empty: no bound. */
  @PostMapping("/shells/{shell}/term")
  String term(
      @PathVariable String shell,
      @RequestParam(required = false) @DateTimeFormat(iso = DateTimeFormat.ISO.DATE)
          LocalDate opens,
      @RequestParam(required = false) @DateTimeFormat(iso = DateTimeFormat.ISO.DATE)
          LocalDate closes) {
    classes.open(shell, opens, closes);
    return "redirect:/shells/" + shell + "?work=true";
  }
}
