package org.zephyrmist.server.packages;

import static org.zephyrmist.server.db.Tables.DELIVERY;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.UUID;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** Packages and sheets as files, one by one and all of a delivery. */
@RestController
@RequestMapping("/api/packages")
@PreAuthorize("isAuthenticated()")
class PackageFilesApi {
  private final WaitingPackages waiting;
  private final SectionPackages packages;
  private final Sheets sheets;
  private final Reach reach;

  PackageFilesApi(WaitingPackages waiting, SectionPackages packages, Sheets sheets, Reach reach) {
    this.waiting = waiting;
    this.packages = packages;
    this.sheets = sheets;
    this.reach = reach;
  }

  @GetMapping("/{section}/package")
  void file(
      @PathVariable UUID section,
      @AuthenticationPrincipal SignedIn who,
      HttpServletResponse response)
      throws IOException {
    WaitingPackages.One w = waiting.one(section, who);
    download(response, w.name() + ".imscc");
    packages.write(w, packages.of(w), response.getOutputStream());
  }

  private static void download(HttpServletResponse response, String name) {
    response.setContentType("application/zip");
    response.setHeader(
        HttpHeaders.CONTENT_DISPOSITION,
        ContentDisposition.attachment().filename(name, StandardCharsets.UTF_8).build().toString());
  }

  /** To be printed; nothing in it can act. */
  @GetMapping("/{section}/sheet")
  void sheet(
      @PathVariable UUID section,
      @AuthenticationPrincipal SignedIn who,
      HttpServletResponse response)
      throws IOException {
    WaitingPackages.One w = waiting.one(section, who);
    response.setContentType("text/html;charset=UTF-8");
    response.setHeader(
        "Content-Security-Policy", "default-src 'none'; style-src 'unsafe-inline'; sandbox");
    String page = sheets.of(w, packages.of(w));
    response.getOutputStream().write(page.getBytes(StandardCharsets.UTF_8));
  }

  /** All that wait of a delivery, each in a folder of its own with its sheet. */
  @GetMapping("/all")
  void all(
      @RequestParam UUID delivery,
      @AuthenticationPrincipal SignedIn who,
      HttpServletResponse response)
      throws IOException {
    List<WaitingPackages.One> some =
        waiting.some(DELIVERY.ID.eq(delivery).and(reach.sections(who)));
    if (some.isEmpty()) {
      throw Refusal.notFound("package that waits");
    }
    download(response, some.get(0).masterCode().replaceAll("[^A-Za-z0-9.-]+", "-") + ".zip");
    try (ZipOutputStream zip = new ZipOutputStream(response.getOutputStream())) {
      for (WaitingPackages.One w : some) {
        String folder = w.name() + "/";
        zip.putNextEntry(new ZipEntry(folder + "sheet.html"));
        SectionPackages.Change change = packages.of(w);
        zip.write(sheets.of(w, change).getBytes(StandardCharsets.UTF_8));
        zip.closeEntry();
        zip.putNextEntry(new ZipEntry(folder + w.name() + ".imscc"));
        packages.write(w, change, new Within(zip));
        zip.closeEntry();
      }
    }
  }

  /** An entry of an archive, which ends without ending the archive. */
  private static final class Within extends java.io.FilterOutputStream {
    Within(OutputStream out) {
      super(out);
    }

    @Override
    public void write(byte[] b, int off, int len) throws IOException {
      out.write(b, off, len);
    }

    @Override
    public void close() {
      // the archive goes on
    }
  }
}
