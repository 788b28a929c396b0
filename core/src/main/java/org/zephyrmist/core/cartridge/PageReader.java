package org.zephyrmist.core.cartridge;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.zephyrmist.core.cartridge.ResourceReader.Read;
import org.zephyrmist.core.content.Addresses;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.Embedded;
import org.zephyrmist.core.content.Html;

/** Reads pages and files, and tells what of a page is shown otherwise or not at all. */
final class PageReader {
  private static final String PICTURES = "(?is).*<(img|video|audio|a)\\b.*";
  private final Archive archive;
  private final Limits limits;
  private final PackageFiles files;
  private final PackageAddresses addresses;
  private final Findings findings;

  PageReader(
      Archive archive,
      Limits limits,
      PackageFiles files,
      PackageAddresses addresses,
      Findings findings) {
    this.archive = archive;
    this.limits = limits;
    this.files = files;
    this.addresses = addresses;
    this.findings = findings;
  }

  /** A page, or a file if it is none or cannot be shown as one. */
  Read read(String path, Optional<ResourceType> type, String title) {
    if (!Paths.isPage(path)) {
      if (type.equals(Optional.of(ResourceType.ASSOCIATED_CONTENT))) {
        findings.notUnderstood(title, "other content that is not shown here; kept as a file");
      }
      return file(path);
    }
    try {
      Html.Body body =
          Html.body(archive.bytes(path, limits.page()), base -> addresses.references(path, base));
      tell(body.html(), path);
      body.guessed()
          .ifPresent(
              c ->
                  findings.adjusted(
                      title.isBlank() ? path : title,
                      "does not say how its letters are written; read as " + c));
      if (application(body.html())) {
        findings.notUnderstood(
            title,
            "an application that runs by script, which is not shown here; it is kept as a file");
        return file(path);
      }
      return new Read(body.title(), new Content.Page(body.html()));
    } catch (CartridgeException e) {
      findings.notUnderstood(path, e.getMessage() + " Kept as a file.");
      return file(path);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  Read file(String path) {
    return new Read(Paths.fileName(path), new Content.File(files.ref(path)));
  }

  /** Whether nothing is left to see once scripts are gone. */
  private static boolean application(String html) {
    if (html.isBlank() || Html.embedded(html).isEmpty()) {
      return false;
    }
    String safe = Html.safe(html);
    return Html.text(safe).isBlank() && !safe.matches(PICTURES);
  }

  /** Frames, objects and drawings of a text, each a finding. */
  void tell(String html, String path) {
    Map<String, Integer> gone = new TreeMap<>();
    for (Embedded e : Html.embedded(html)) {
      if (e.frame() && Addresses.isWeb(e.address())) {
        findings.frame(e.address());
        findings.adjusted(
            path,
            "shows "
                + PackageAddresses.shortened(e.address())
                + " in a frame: a plain link until an administrator approves its host");
      } else if (e.frame() && !e.address().isEmpty()) {
        findings.adjusted(path, "shows a file in a frame: it is a link now");
      } else {
        gone.merge(e.element(), 1, Integer::sum);
      }
    }
    gone.forEach(
        (element, n) ->
            findings.adjusted(
                path,
                "holds <"
                    + element
                    + ">"
                    + (n > 1 ? " " + n + " times" : "")
                    + ", which is not shown"));
  }
}
