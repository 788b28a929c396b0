package org.zephyrmist.server.content;

import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Set;
import org.springframework.core.io.AbstractResource;
import org.springframework.core.io.Resource;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.util.UriUtils;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Titles;
import org.zephyrmist.server.web.Refusal;

/** Files by fingerprint. Only plain pictures, sound and film are shown; the rest is downloaded. */
@RestController
public class FileApi {
  private static final Set<String> SHOWN =
      Set.of(
          "image/png",
          "image/jpeg",
          "image/gif",
          "image/webp",
          "audio/mpeg",
          "video/mp4",
          "text/vtt");
  private static final int LONGEST_NAME = 255;
  private final Files files;

  FileApi(Files files) {
    this.files = files;
  }

  /** Where a file can be fetched under the last part of its path. */
  public static String address(String sha256, String path) {
    String name = path.substring(path.lastIndexOf('/') + 1);
    return "/api/files/" + sha256 + "/" + UriUtils.encodePathSegment(name, StandardCharsets.UTF_8);
  }

  /** In whole or in parts (RFC 9110, 14), so that film and sound can be moved along. */
  @GetMapping("/api/files/{sha256}/{name}")
  @PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
  ResponseEntity<Resource> file(@PathVariable String sha256, @PathVariable String name) {
    if (!sha256.matches("[0-9a-f]{64}") || name.length() > LONGEST_NAME || !files.has(sha256)) {
      throw Refusal.notFound("file");
    }
    FileRef f = files.ref(sha256, name);
    boolean shown = SHOWN.contains(f.mediaType());
    return ResponseEntity.ok()
        .contentType(
            shown ? MediaType.parseMediaType(f.mediaType()) : MediaType.APPLICATION_OCTET_STREAM)
        .header("Content-Security-Policy", "default-src 'none'; sandbox")
        .header(HttpHeaders.CACHE_CONTROL, "private, max-age=31536000, immutable")
        .header(HttpHeaders.ACCEPT_RANGES, "bytes")
        .header(
            HttpHeaders.CONTENT_DISPOSITION,
            (shown ? ContentDisposition.inline() : ContentDisposition.attachment())
                .filename(Titles.clean(name), StandardCharsets.UTF_8)
                .build()
                .toString())
        .body(new Kept(f));
  }

  /** A file as the framework wants it, to send a part of it where one is asked for. */
  private final class Kept extends AbstractResource {
    private final FileRef file;

    Kept(FileRef file) {
      this.file = file;
    }

    @Override
    public InputStream getInputStream() {
      return files.open(file.sha256());
    }

    @Override
    public long contentLength() {
      return file.size();
    }

    @Override
    public String getDescription() {
      return "file " + file.sha256();
    }
  }
}
