package org.zephyrmist.server.content;

import java.util.Optional;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Component;
import org.springframework.web.util.HtmlUtils;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Frames;
import org.zephyrmist.core.content.Html;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Marks;
import org.zephyrmist.core.content.References;
import org.zephyrmist.server.web.Refusal;

/**
 * Items as students would see them: a page of its own with a strict policy, for a sandboxed frame.
 * No script runs in it: its text is cleaned, its policy names no source of scripts, and it stands
 * in a sandbox without them. It keeps the origin of the application, or the browser would withhold
 * its pictures: they are given only to those who are signed in.
 */
@Component
public class Previews {
  private static final String POLICY =
      "default-src 'none'; img-src 'self'; media-src 'self'; style-src 'self';"
          + " style-src-attr 'unsafe-inline'; font-src 'self'; frame-ancestors 'self'; frame-src ";
  private static final String SANDBOX = "; sandbox allow-popups allow-same-origin allow-downloads";

  /** What an approved frame may do is bounded by its own sandbox, and no more than this. */
  private static final String SANDBOX_OF_FRAMES = SANDBOX + " allow-scripts allow-forms";

  private final Trees trees;
  private final FrameHosts hosts;
  private final Questions questions;
  private final Values values;

  Previews(Trees trees, FrameHosts hosts, Questions questions, Values values) {
    this.values = values;
    this.trees = trees;
    this.hosts = hosts;
    this.questions = questions;
  }

  public ItemView view(UUID tree, String key) {
    return ItemView.of(trees.item(tree, key(key)));
  }

  public ResponseEntity<String> page(UUID tree, String key) {
    return page(tree, key, Optional.empty());
  }

  /**
   * @param section whose values are filled in; none: marks stand as they are
   */
  public ResponseEntity<String> page(UUID tree, String key, Optional<UUID> section) {
    Item item = trees.item(tree, key(key));
    String asked = questions.of(item).map(QuestionsPage::of).orElse("");
    String html = item.content().html();
    String text =
        section.map(s -> Marks.filled(html, values.in(s))).orElseGet(() -> Marks.shown(html));
    return page(item.title(), text + attached(item) + asked);
  }

  private static String attached(Item item) {
    boolean asks = item.content().questionCount().isPresent();
    if (asks || item.content().attached().isEmpty()) {
      return "";
    }
    StringBuilder html = new StringBuilder("<ul class=\"attached\">");
    for (FileRef f : item.content().attached()) {
      html.append("<li><a href=\"")
          .append(HtmlUtils.htmlEscape(References.file(f.sha256(), f.name(), "")))
          .append("\">")
          .append(HtmlUtils.htmlEscape(f.name()))
          .append("</a></li>");
    }
    return html.append("</ul>").toString();
  }

  /** Any text, made safe, as a page. */
  public ResponseEntity<String> page(String title, String html) {
    Frames frames = hosts.approved();
    String safe = Html.safe(html, frames);
    boolean framed = safe.contains("<iframe");
    String body =
        References.resolve(
            safe,
            f -> FileApi.address(f.sha256(), f.name()) + f.fragment(),
            i -> i.fragment().isEmpty() ? "#" : i.fragment());
    return ResponseEntity.ok()
        .contentType(MediaType.TEXT_HTML)
        .header("Content-Security-Policy", framed ? policy(frames) : POLICY + "'none'" + SANDBOX)
        .header(HttpHeaders.CACHE_CONTROL, "no-store")
        .body(
            "<!doctype html><html lang=\"en\"><head><meta charset=\"utf-8\"><title>"
                + HtmlUtils.htmlEscape(title)
                + "</title><link rel=\"stylesheet\" href=\"/preview.css\"></head><body>"
                + body
                + "</body></html>");
  }

  /**
   * Scripts of a framed host run in its own frame; the page itself still names no source of any.
   */
  private static String policy(Frames frames) {
    String hosts =
        frames.hosts().stream().sorted().map(h -> "https://" + h).collect(Collectors.joining(" "));
    return POLICY + hosts + SANDBOX_OF_FRAMES;
  }

  /** The key, or not found where the text cannot be one. */
  public static ItemKey key(String text) {
    try {
      return new ItemKey(text);
    } catch (IllegalArgumentException e) {
      throw Refusal.notFound("item");
    }
  }
}
