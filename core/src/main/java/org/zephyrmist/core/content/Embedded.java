package org.zephyrmist.core.content;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import org.jsoup.nodes.Element;

/**
 * Something in a text that is neither text nor picture.
 *
 * @param element its name in HTML
 * @param address of what it shows; may be empty
 */
public record Embedded(String element, String address) {
  /** Whether anything of the sort may stand in a text; quicker than to look. */
  static final Pattern MAY_STAND =
      Pattern.compile(
          "<(iframe|frame|embed|object|applet|svg|canvas|math|script|form)\\b",
          Pattern.CASE_INSENSITIVE);

  private static final String FRAMES = "iframe, frame, embed, object, applet";
  private static final String OTHERS = "svg, canvas, math, script, form";
  private static final String SANDBOX = "allow-scripts allow-same-origin allow-popups allow-forms";

  /** Whether it shows something from elsewhere. */
  public boolean frame() {
    return !OTHERS.contains(element);
  }

  static List<Embedded> in(Element body) {
    List<Embedded> all = new ArrayList<>();
    for (Element e : body.select(FRAMES + ", " + OTHERS)) {
      all.add(new Embedded(e.normalName(), address(e)));
    }
    return all;
  }

  private static String address(Element e) {
    String src = e.attr("src").isBlank() ? e.attr("data") : e.attr("src");
    return src.isBlank() && e.nameIs("applet") ? e.attr("code").strip() : src.strip();
  }

  /** Keeps approved frames, in a sandbox; of others leaves what they hold and a plain link. */
  static void replace(Element body, Frames frames) {
    for (Element e : body.select(FRAMES)) {
      String address = address(e);
      if (e.nameIs("iframe") && frames.allow(address)) {
        e.empty();
        e.attr("sandbox", SANDBOX).attr("referrerpolicy", "no-referrer");
        continue;
      }
      if (leads(address)) {
        String title = Titles.firstOf(e.attr("title"), Frames.host(address), named(address));
        Element link = new Element("a").attr("href", address).text(title);
        e.before(Addresses.isWeb(address) ? link.attr("target", "_blank") : link);
      }
      if (e.nameIs("object")) {
        e.unwrap(); // what stands in it is meant for whoever cannot show it
      } else {
        e.remove();
      }
    }
  }

  private static boolean leads(String address) {
    return Addresses.isWeb(address)
        || References.asFile(address).isPresent()
        || References.asItem(address).isPresent();
  }

  private static String named(String address) {
    return References.asFile(address).map(References.ToFile::name).orElse("What was shown here");
  }
}
