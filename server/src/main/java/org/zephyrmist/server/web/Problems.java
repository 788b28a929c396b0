package org.zephyrmist.server.web;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import org.springframework.http.MediaType;
import tools.jackson.databind.json.JsonMapper;

/** Problem details (RFC 9457) where no controller answers, with headers of their own. */
public final class Problems {
  private static final JsonMapper JSON = new JsonMapper();

  /** An error has nothing to load, to frame or to keep. */
  private static final Map<String, String> HEADERS =
      Map.of(
          "Content-Security-Policy", "default-src 'none'; frame-ancestors 'none'",
          "X-Content-Type-Options", "nosniff",
          "X-Frame-Options", "DENY",
          "Referrer-Policy", "no-referrer",
          "Cache-Control", "no-store");

  private Problems() {}

  public static void write(HttpServletResponse r, int status, String detail, String remedy)
      throws IOException {
    HEADERS.forEach(r::setHeader);
    r.setStatus(status);
    r.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
    byte[] body = text(status, detail, remedy).getBytes(StandardCharsets.UTF_8);
    r.setContentLength(body.length);
    r.getOutputStream().write(body);
  }

  static String text(int status, String detail, String remedy) {
    return JSON.writeValueAsString(Map.of("status", status, "detail", detail, "remedy", remedy));
  }
}
