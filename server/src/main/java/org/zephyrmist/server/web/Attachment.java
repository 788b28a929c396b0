package org.zephyrmist.server.web;

import jakarta.servlet.http.HttpServletResponse;
import java.nio.charset.StandardCharsets;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;

/** Answers that are a file, written while it is sent. */
public final class Attachment {
  private Attachment() {}

  /** The answer will be a file of this name; nothing on the way keeps it. */
  public static void begin(HttpServletResponse response, String name) {
    response.setContentType(MediaType.APPLICATION_OCTET_STREAM_VALUE);
    response.setHeader(HttpHeaders.CACHE_CONTROL, "no-store");
    response.setHeader(
        HttpHeaders.CONTENT_DISPOSITION,
        ContentDisposition.attachment().filename(name, StandardCharsets.UTF_8).build().toString());
  }
}
