package org.zephyrmist.server.content;

import java.util.UUID;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Component;
import org.springframework.web.util.HtmlUtils;
import org.zephyrmist.core.content.Html;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
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
      "default-src 'none'; img-src 'self'; media-src 'self'; style-src 'self'; font-src 'self';"
          + " frame-ancestors 'self'; sandbox allow-popups allow-same-origin allow-downloads";
  private final Trees trees;

  Previews(Trees trees) {
    this.trees = trees;
  }

  public ItemView view(UUID tree, String key) {
    return ItemView.of(trees.item(tree, key(key)));
  }

  public ResponseEntity<String> page(UUID tree, String key) {
    Item item = trees.item(tree, key(key));
    return page(item.title(), item.content().html());
  }

  /** Any text, made safe, as a page. */
  public static ResponseEntity<String> page(String title, String html) {
    String body =
        References.resolve(
            Html.safe(html),
            f -> FileApi.address(f.sha256(), f.name()) + f.fragment(),
            i -> i.fragment().isEmpty() ? "#" : i.fragment());
    return ResponseEntity.ok()
        .contentType(MediaType.TEXT_HTML)
        .header("Content-Security-Policy", POLICY)
        .header(HttpHeaders.CACHE_CONTROL, "no-store")
        .body(
            "<!doctype html><html lang=\"en\"><head><meta charset=\"utf-8\"><title>"
                + HtmlUtils.htmlEscape(title)
                + "</title><link rel=\"stylesheet\" href=\"/preview.css\"></head><body>"
                + body
                + "</body></html>");
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
