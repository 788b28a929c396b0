package org.zephyrmist.standins.platform;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.math.BigDecimal;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.multipart.MultipartFile;
import org.springframework.web.server.ResponseStatusException;
import org.zephyrmist.core.cartridge.CartridgeException;

/** A page per shell: what students see, and where its instructor can change things. */
@Controller
class ShellPages {
  private final Shells shells;
  private final Steps steps;
  private final Files files;
  private final Packages packages;
  private final WeekPlaces weeks;

  ShellPages(Shells shells, Steps steps, Files files, Packages packages, WeekPlaces weeks) {
    this.weeks = weeks;
    this.packages = packages;
    this.shells = shells;
    this.steps = steps;
    this.files = files;
  }

  /** An item with its depth in the outline, for the page. */
  record Line(Wire.Item item, int depth) {}

  @GetMapping("/")
  String list(@RequestParam(defaultValue = "") String after, Model model) {
    model.addAttribute("shells", shells.list(after, 500));
    return "shells";
  }

  /** Makes empty shells from lines of ids and titles. */
  @PostMapping("/shells")
  String make(@RequestParam String lines) {
    shells.make(
        lines
            .lines()
            .map(l -> l.split(",", 2))
            .filter(l -> !l[0].isBlank())
            .map(
                l -> {
                  String id = l[0].strip();
                  return new Wire.Shell(id, l.length > 1 ? l[1].strip() : id, "", "", 0);
                })
            .toList());
    return "redirect:/";
  }

  @GetMapping("/shells/{shell}")
  String shell(
      @PathVariable String shell,
      @RequestParam(defaultValue = "false") boolean work,
      @RequestParam(defaultValue = "") String item,
      Model model) {
    List<Wire.Item> items = shells.items(shell);
    List<Line> lines = new ArrayList<>();
    outline(items, null, 0, work, lines);
    model.addAttribute("shell", shells.get(shell));
    model.addAttribute("lines", lines);
    model.addAttribute("work", work);
    Map<String, String> titles = new HashMap<>();
    items.forEach(i -> titles.put(i.id(), i.wording().title()));
    model.addAttribute("titles", titles);
    model.addAttribute(
        "item",
        lines.stream().map(Line::item).filter(i -> i.id().equals(item)).findFirst().orElse(null));
    return "shell";
  }

  @GetMapping("/shells/{shell}/items/{item}")
  String item(@PathVariable String shell, @PathVariable String item) {
    return "redirect:/shells/" + shell + "?item=" + item;
  }

  private static void outline(
      List<Wire.Item> items, String parent, int depth, boolean all, List<Line> lines) {
    items.stream()
        .filter(i -> Objects.equals(i.parent(), parent))
        .filter(i -> all || i.forStudents())
        .sorted(Comparator.comparing(Wire.Item::rank).thenComparing(Wire.Item::id))
        .forEach(
            i -> {
              lines.add(new Line(i, depth));
              outline(items, i.id(), depth + 1, all, lines);
            });
  }

  @PostMapping("/shells/{shell}/items/{item}/text")
  String text(
      @PathVariable String shell,
      @PathVariable String item,
      @RequestParam String title,
      @RequestParam(defaultValue = "") String html) {
    Wire.Item old = find(shell, item);
    Wire.Wording wording = new Wire.Wording(title, html, old.wording().more());
    change(shell, item, wording, null, null);
    return back(shell, item);
  }

  @PostMapping("/shells/{shell}/items/{item}/due")
  String due(@PathVariable String shell, @PathVariable String item, @RequestParam String due) {
    change(shell, item, null, due.isBlank() ? Map.of() : Map.of("due", due), null);
    return back(shell, item);
  }

  @PostMapping("/shells/{shell}/items/{item}/visibility")
  String visibility(
      @PathVariable String shell, @PathVariable String item, @RequestParam boolean shown) {
    Wire.Visibility old = find(shell, item).visibility();
    change(
        shell,
        item,
        null,
        null,
        new Wire.Visibility(shown, old.instructorsOnly(), old.asks(), old.conditions()));
    return back(shell, item);
  }

  @PostMapping("/shells/{shell}/items/{item}/delete")
  String delete(@PathVariable String shell, @PathVariable String item) {
    apply(
        shell,
        new Wire.Step(key(), Wire.Op.REMOVE, item, null, null, null, null, null, null, null, null));
    return "redirect:/shells/" + shell + "?work=true";
  }

  @PostMapping("/shells/{shell}/add")
  String add(
      @PathVariable String shell,
      @RequestParam String title,
      @RequestParam(defaultValue = "") String html,
      @RequestParam(defaultValue = "") String parent) {
    apply(
        shell,
        new Wire.Step(
            key(),
            Wire.Op.ADD,
            null,
            null,
            "PAGE",
            new Wire.Wording(title, html, Map.of()),
            null,
            null,
            new Wire.Place(parent.isEmpty() ? null : parent, "z"),
            new Wire.Visibility(true, false, null, null),
            null));
    return "redirect:/shells/" + shell + "?work=true";
  }

  @PostMapping("/shells/{shell}/items/{item}/work")
  String handIn(
      @PathVariable String shell,
      @PathVariable String item,
      @RequestParam(defaultValue = "A student") String student,
      @RequestParam(defaultValue = "My work") String text) {
    shells.handIn(shell, item, student, text);
    return "redirect:/shells/" + shell + "?item=" + item;
  }

  @PostMapping("/shells/{shell}/items/{item}/post")
  String post(
      @PathVariable String shell,
      @PathVariable String item,
      @RequestParam(defaultValue = "A student") String student,
      @RequestParam(defaultValue = "My thoughts") String text) {
    shells.post(shell, item, student, text);
    return "redirect:/shells/" + shell + "?item=" + item;
  }

  @PostMapping("/shells/{shell}/items/{item}/grade")
  String grade(
      @PathVariable String shell, @PathVariable String item, @RequestParam BigDecimal points) {
    shells.grade(shell, item, points);
    return back(shell, item);
  }

  /** Gives the shell a fixed number of places for weeks. */
  @PostMapping("/shells/{shell}/weeks")
  String weeks(@PathVariable String shell, @RequestParam int places) {
    if (places < 1 || places > 60) {
      throw new ResponseStatusException(HttpStatus.BAD_REQUEST, "From 1 to 60 places");
    }
    weeks.set(shell, places, steps);
    return "redirect:/shells/" + shell + "?work=true";
  }

  /** Brings a Common Cartridge in. */
  @PostMapping("/shells/{shell}/package")
  String bringIn(@PathVariable String shell, @RequestParam MultipartFile file) throws IOException {
    Path here = java.nio.file.Files.createTempFile("package", ".imscc");
    try {
      file.transferTo(here);
      packages.bringIn(shell, here);
    } catch (CartridgeException e) {
      throw new ResponseStatusException(HttpStatus.BAD_REQUEST, e.getMessage(), e);
    } finally {
      java.nio.file.Files.deleteIfExists(here);
    }
    return "redirect:/shells/" + shell + "?work=true";
  }

  /** Gives the shell out as a Common Cartridge. */
  @GetMapping("/shells/{shell}/package")
  void giveOut(@PathVariable String shell, HttpServletResponse response) throws IOException {
    shells.get(shell);
    response.setContentType("application/zip");
    response.setHeader("Content-Disposition", "attachment; filename=\"" + shell + ".imscc\"");
    packages.giveOut(shell, response.getOutputStream());
  }

  /** Students get only what an item shown to them holds or names. */
  @GetMapping("/files/{sha256}/{name}")
  void file(
      @PathVariable String sha256,
      @PathVariable String name,
      @RequestParam(defaultValue = "false") boolean work,
      @RequestHeader(defaultValue = "") String referer,
      HttpServletResponse response)
      throws IOException {
    boolean instructor = work || referer.contains("work=true");
    String type =
        files
            .mediaType(sha256)
            .filter(t -> instructor || files.forStudents(sha256))
            .orElseThrow(() -> new ResponseStatusException(HttpStatus.NOT_FOUND));
    boolean inline = type.startsWith("image/") && !type.contains("svg");
    response.setContentType(type);
    response.setHeader("X-Content-Type-Options", "nosniff");
    response.setHeader("Content-Disposition", inline ? "inline" : "attachment");
    files.copy(sha256, response.getOutputStream());
  }

  private void change(
      String shell,
      String item,
      Wire.Wording wording,
      Map<String, Object> timing,
      Wire.Visibility visibility) {
    apply(
        shell,
        new Wire.Step(
            key(),
            Wire.Op.UPDATE,
            item,
            null,
            null,
            wording,
            null,
            timing,
            null,
            visibility,
            null));
  }

  private void apply(String shell, Wire.Step step) {
    steps.apply(shell, List.of(step), "the instructor");
  }

  private Wire.Item find(String shell, String item) {
    return shells.items(shell).stream()
        .filter(i -> i.id().equals(item))
        .findFirst()
        .orElseThrow(() -> new ResponseStatusException(HttpStatus.NOT_FOUND));
  }

  private static String key() {
    return UUID.randomUUID().toString();
  }

  private static String back(String shell, String item) {
    return "redirect:/shells/" + shell + "?work=true&item=" + item;
  }
}
