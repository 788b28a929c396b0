package org.zephyrmist.server.library;

import jakarta.validation.constraints.NotNull;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.edition.SecondLook;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.platform.PlatformException;
import org.zephyrmist.server.web.Refusal;

/** Two sources, versions or shells side by side. */
@RestController
@RequestMapping(path = "/api/library/beside", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class SecondLookApi {
  private static final int LISTED = 500;
  private final SecondLooks looks;

  SecondLookApi(SecondLooks looks) {
    this.looks = looks;
  }

  /** How much a side holds. */
  record SideView(
      @NotNull SecondLooks.About about,
      @NotNull Map<Kind, Integer> kinds,
      int items,
      int questions,
      int modules,
      int depth,
      int words,
      int empty,
      int files,
      long bytes,
      int instructorsOnly,
      int asks,
      @NotNull Set<String> tools,
      @NotNull Set<String> frames,
      int only,
      @NotNull List<OnlyItem> onlyHere) {}

  record OnlyItem(@NotNull Kind kind, @NotNull String title) {}

  /** An item of both sides that is not the same in both. */
  record SharedItem(
      @NotNull Kind kind, @NotNull String left, @NotNull String right, boolean certain) {}

  /**
   * @param equal items that are the same to the letter
   * @param alike items of both that differ
   * @param differing the first five hundred of these
   */
  record SideBySide(
      @NotNull SideView left,
      @NotNull SideView right,
      int equal,
      int alike,
      @NotNull List<SharedItem> differing) {}

  @GetMapping
  SideBySide beside(
      @RequestParam String left,
      @RequestParam String right,
      @AuthenticationPrincipal SignedIn who) {
    try {
      SecondLooks.Side l = looks.side(left, who);
      SecondLooks.Side r = looks.side(right, who);
      SecondLook look = SecondLook.of(l.source(), r.source());
      List<SecondLook.Shared> differing = look.shared().stream().filter(s -> !s.equal()).toList();
      return new SideBySide(
          view(l.about(), look.left(), look.onlyLeft()),
          view(r.about(), look.right(), look.onlyRight()),
          look.shared().size() - differing.size(),
          differing.size(),
          differing.stream()
              .limit(LISTED)
              .map(
                  s ->
                      new SharedItem(
                          s.left().kind(), s.left().title(), s.right().title(), s.certain()))
              .toList());
    } catch (PlatformException e) {
      throw Refusal.bad(e.getMessage(), e.remedy());
    }
  }

  private static SideView view(SecondLooks.About about, SecondLook.Counts c, List<Item> only) {
    return new SideView(
        about,
        new TreeMap<>(c.kinds()),
        c.kinds().values().stream().mapToInt(Integer::intValue).sum(),
        c.questions(),
        c.modules(),
        c.depth(),
        c.words(),
        c.empty(),
        c.files(),
        c.bytes(),
        c.instructorsOnly(),
        c.asks(),
        c.tools(),
        c.frames(),
        only.size(),
        only.stream().limit(LISTED).map(i -> new OnlyItem(i.kind(), i.title())).toList());
  }
}
