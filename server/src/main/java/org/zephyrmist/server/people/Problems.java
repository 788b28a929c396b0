package org.zephyrmist.server.people;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Map;
import org.springframework.http.MediaType;
import tools.jackson.databind.json.JsonMapper;

/** Problem details (RFC 9457) from filters, before any controller. */
final class Problems {
  private static final JsonMapper JSON = new JsonMapper();

  private Problems() {}

  static void write(HttpServletResponse r, int status, String detail, String remedy)
      throws IOException {
    r.setStatus(status);
    r.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
    r.setCharacterEncoding("UTF-8");
    r.getWriter()
        .write(
            JSON.writeValueAsString(Map.of("status", status, "detail", detail, "remedy", remedy)));
  }
}
