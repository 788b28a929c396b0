package org.zephyrmist.server.packages;

import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Frames;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.WeekPlaces;
import org.zephyrmist.server.platform.Platforms;
import org.zephyrmist.server.platform.SheetWords;

/** The sheet that goes with a package: what to do with it, to be printed. */
@Component
class Sheets {
  private static final String STYLE =
      "body{font:15px/1.45 sans-serif;max-width:44em;margin:2em auto;padding:0 1em}"
          + "h1{font-size:20px}h2{font-size:16px;margin:1.4em 0 .3em}li{margin:.25em 0}"
          + "code{font-size:14px}@media print{body{margin:0}}";
  private final Platforms platforms;

  Sheets(Platforms platforms) {
    this.platforms = platforms;
  }

  /** The sheet as a page of HTML. */
  String of(WaitingPackages.One w, SectionPackages.Change change) {
    SheetWords words = platforms.sheet(w.platform());
    Document page = Document.createShell("");
    page.charset(java.nio.charset.StandardCharsets.UTF_8);
    page.title("Sheet for " + w.code());
    page.head().appendElement("style").appendChild(new org.jsoup.nodes.DataNode(STYLE));
    page.selectFirst("html").attr("lang", "en");
    Element body = page.body();
    body.appendElement("h1").text(w.code() + " · " + w.title());
    Element about = body.appendElement("p");
    about.appendText("It brings " + w.masterCode() + ", version " + w.number() + ": ");
    about.appendElement("code").text(w.name() + ".imscc");
    about.appendText(
        " into the shell of this section on "
            + w.platformName()
            + (words.version().isBlank() ? "" : ", " + words.version())
            + ".");
    steps(body, words, weeks(change));
    list(body, "It brings " + change.added().size() + " new", change.added());
    list(
        body,
        "These are there and come once more; take the older one of each away afterwards",
        change.changed());
    if (!change.changed().isEmpty()) {
      body.appendElement("p")
          .text(
              "Where students have left something on the older one, keep that, and take the one"
                  + " that came away: what it says can be copied over by hand.");
    }
    list(body, "Take these out by hand", change.removed());
    list(body, "No package can say this; do it by hand", change.byHand());
    links(body, change.items());
    body.appendElement("h2").text("When it is in");
    body.appendElement("p")
        .text(
            "Say in Zephyrmist that it was brought in, or export the shell as a Common Cartridge"
                + " and upload it at the page of this section. Until then the section does not"
                + " count as having it.");
    return page.outerHtml();
  }

  /** What the platform will call failed, and is not. */
  private static void links(Element body, List<Item> items) {
    Map<String, Integer> hosts = new TreeMap<>();
    items.stream()
        .map(i -> Frames.host(i.content().launch().address()))
        .filter(h -> !h.isEmpty())
        .forEach(h -> hosts.merge(h, 1, Integer::sum));
    list(
        body,
        "Should the platform call these failed, leave them: they wait for their tool to be"
            + " connected, which Zephyrmist shows under Tools",
        hosts.entrySet().stream()
            .map(e -> e.getKey() + ", " + e.getValue() + (e.getValue() == 1 ? " link" : " links"))
            .toList());
  }

  private static int weeks(SectionPackages.Change change) {
    return WeekPlaces.last(
        change.items().stream()
            .filter(i -> i.kind() == Kind.MODULE && i.place().parent().isEmpty())
            .map(Item::title)
            .toList());
  }

  private static void steps(Element body, SheetWords w, int weeks) {
    body.appendElement("h2").text("What to do");
    Element list = body.appendElement("ol");
    if (weeks > 1) {
      step(
          list,
          "Places for weeks first: ",
          "it has weeks up to number "
              + weeks
              + ". If the shell has fewer places, add them before, or the last weeks are piled into"
              + " its last place.",
          "");
    }
    step(list, "Where it goes in: ", w.where(), "where the platform takes in a Common Cartridge.");
    step(list, "Not to be mistaken for: ", w.avoid(), "");
    step(list, "Leave unticked: ", w.untick(), "");
    step(list, "How long it takes: ", w.takes(), "");
    step(list, "You see that it has ended: ", w.ends(), "");
  }

  private static void step(Element list, String what, String words, String otherwise) {
    String says = words.isBlank() ? otherwise : words;
    if (!says.isBlank()) {
      Element li = list.appendElement("li");
      li.appendElement("b").text(what);
      li.appendText(says);
    }
  }

  private static void list(Element body, String heading, List<String> titles) {
    if (!titles.isEmpty()) {
      body.appendElement("h2").text(heading);
      Element list = body.appendElement("ul");
      titles.forEach(t -> list.appendElement("li").text(t));
    }
  }
}
