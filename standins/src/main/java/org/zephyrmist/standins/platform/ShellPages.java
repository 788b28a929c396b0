package org.zephyrmist.standins.platform;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Clock;
import java.time.LocalDate;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.springframework.format.annotation.DateTimeFormat;
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
  private final Classes classes;
  private final Clock clock;

  ShellPages(
      Shells shells,
      Steps steps,
      Files files,
      Packages packages,
      WeekPlaces weeks,
      Classes classes,
      Clock clock) {
    this.classes = classes;
    this.clock = clock;
    this.weeks = weeks;
    this.packages = packages;
    this.shells = shells;
    this.steps = steps;
    this.files = files;
  }

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

  /**
   * @param student who looks at it, if nobody works on it
   * @param day on which they do; today if it is not said
   */
  @GetMapping("/shells/{shell}")
  String shell(
      @PathVariable String shell,
      @RequestParam(defaultValue = "false") boolean work,
      @RequestParam(defaultValue = "") String item,
      @RequestParam(defaultValue = "A student") String student,
      @RequestParam(required = false) @DateTimeFormat(iso = DateTimeFormat.ISO.DATE) LocalDate day,
      Model model) {
    model.addAttribute("shell", shells.get(shell));
    LocalDate on = day == null ? LocalDate.now(clock) : day;
    List<Wire.Item> items = shells.items(shell);
    Classes.Term term = classes.term(shell);
    String closed = work ? "" : term.closed(on);
    List<AsStudent.Line> all = AsStudent.all(items);
    List<AsStudent.Line> lines =
        work
            ? all
            : closed.isEmpty()
                ? new AsStudent(items, on, classes.deeds(shell, student)).see(all)
                : List.of();
    AsStudent.Line at =
        lines.stream()
            .filter(
                l ->
                    item.isEmpty()
                        ? !work && l.item().sets("FRONT_PAGE")
                        : l.item().id().equals(item))
            .findFirst()
            .orElse(null);
    if (at != null && !work && at.closed().isEmpty()) {
      classes.opened(at.item().id(), student);
    }
    model.addAttribute("closed", closed);
    model.addAttribute("term", term);
    model.addAttribute("day", on);
    model.addAttribute("student", student);
    model.addAttribute("lines", work ? lines : withoutSetup(lines));
    model.addAttribute("menu", work ? List.of() : set(lines, "MENU"));
    model.addAttribute("banner", work ? List.of() : set(lines, "BANNER"));
    model.addAttribute("work", work);
    Map<String, String> titles = new HashMap<>();
    items.forEach(i -> titles.put(i.id(), i.wording().title()));
    model.addAttribute("titles", titles);
    model.addAttribute("why", at == null ? List.of() : at.closed());
    model.addAttribute("item", at == null ? null : at.item());
    return "shell";
  }

  /** What a shell is set to is no item in a student's outline. */
  private static List<AsStudent.Line> withoutSetup(List<AsStudent.Line> lines) {
    return lines.stream().filter(l -> !l.item().kind().equals("SETUP")).toList();
  }

  private static List<Wire.Item> set(List<AsStudent.Line> lines, String subject) {
    return lines.stream().map(AsStudent.Line::item).filter(i -> i.sets(subject)).limit(1).toList();
  }

  @GetMapping("/shells/{shell}/items/{item}")
  String item(@PathVariable String shell, @PathVariable String item) {
    return "redirect:/shells/" + shell + "?item=" + item;
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
