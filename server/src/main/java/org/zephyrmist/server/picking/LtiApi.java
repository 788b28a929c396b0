package org.zephyrmist.server.picking;

import io.swagger.v3.oas.annotations.Hidden;
import jakarta.servlet.http.HttpServletResponse;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Base64;
import java.util.Map;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.util.HtmlUtils;
import org.zephyrmist.core.lti.OidcError;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.tool.PlatformKey;
import org.zephyrmist.server.web.Refusal;

/** What tools ask of this application as a platform (LTI 1.3 core; LTI Deep Linking 2.0). */
@Hidden
@RestController
@RequestMapping("/api/lti")
@PreAuthorize("permitAll()")
class LtiApi {
  private static final String SCRIPT = "document.forms[0].submit()";
  private final Picks picks;
  private final PlatformKey key;

  LtiApi(Picks picks, PlatformKey key) {
    this.picks = picks;
    this.key = key;
  }

  /** Public keys, for everybody (RFC 7517, section 5). */
  @GetMapping(path = "/keys", produces = MediaType.APPLICATION_JSON_VALUE)
  String keys() {
    return key.get().publicSet();
  }

  /** Answers a login by a form that sends itself to the tool, and only there. */
  @GetMapping(path = "/authorize", produces = MediaType.TEXT_HTML_VALUE)
  @PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
  String authorize(
      @RequestParam Map<String, String> sent,
      @AuthenticationPrincipal SignedIn who,
      HttpServletResponse r) {
    Picks.Message m;
    try {
      m = picks.message(sent, who);
    } catch (OidcError e) {
      throw Refusal.bad(
          "The tool’s request does not hold (" + e.code() + "): " + e.getMessage(),
          "Go back to the draft and begin once more.");
    }
    URI to = URI.create(m.to());
    r.setHeader("Content-Security-Policy", policy(to.getScheme() + "://" + to.getRawAuthority()));
    StringBuilder page =
        new StringBuilder("<!doctype html><html lang=\"en\"><meta charset=\"utf-8\">")
            .append("<title>Going on to the tool</title><form method=\"post\" action=\"")
            .append(HtmlUtils.htmlEscape(m.to()))
            .append("\">");
    m.form()
        .forEach(
            (name, value) ->
                page.append("<input type=\"hidden\" name=\"")
                    .append(HtmlUtils.htmlEscape(name))
                    .append("\" value=\"")
                    .append(HtmlUtils.htmlEscape(value))
                    .append("\">"));
    return page.append("<button>Go on to the tool</button></form><script>")
        .append(SCRIPT)
        .append("</script></html>")
        .toString();
  }

  private static String policy(String tool) {
    try {
      byte[] print =
          MessageDigest.getInstance("SHA-256").digest(SCRIPT.getBytes(StandardCharsets.UTF_8));
      return "default-src 'none'; script-src 'sha256-"
          + Base64.getEncoder().encodeToString(print)
          + "'; base-uri 'none'; frame-ancestors 'none'; form-action "
          + tool;
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException("Java has no SHA-256", e);
    }
  }

  /** What was picked, as the tool signs it; the browser goes on to the draft. */
  @PostMapping(path = "/picked/{pick}", consumes = MediaType.APPLICATION_FORM_URLENCODED_VALUE)
  ResponseEntity<Void> picked(
      @PathVariable UUID pick, @RequestParam(name = "JWT", defaultValue = "") String jwt) {
    UUID master = picks.answered(pick, jwt);
    return ResponseEntity.status(HttpStatus.SEE_OTHER)
        .location(URI.create("/sources/masters/" + master + "?pick=" + pick))
        .build();
  }
}
