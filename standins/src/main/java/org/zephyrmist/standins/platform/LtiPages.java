package org.zephyrmist.standins.platform;

import static org.zephyrmist.standins.db.Tables.TOOL_DATA;

import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.server.ResponseStatusException;
import org.zephyrmist.core.lti.AuthenticationRequest;
import org.zephyrmist.core.lti.Messages;
import org.zephyrmist.core.lti.OidcError;
import org.zephyrmist.core.lti.Registration;
import org.zephyrmist.core.lti.SignedByTool;
import org.zephyrmist.core.lti.SigningKey;
import org.zephyrmist.standins.db.tables.records.ToolDataRecord;
import org.zephyrmist.standins.db.tables.records.ToolLaunchRecord;

/** The platform as an issuer of LTI 1.3: its keys, its answers to logins, its tokens. */
@Controller
@RequestMapping("/lti")
class LtiPages {
  private final SigningKey key = SigningKey.generated(UUID.randomUUID().toString());
  private final HttpClient client =
      HttpClient.newBuilder().connectTimeout(Duration.ofSeconds(5)).build();
  private final DSLContext db;
  private final Shells shells;
  private final ShellTools tools;
  private final Logins logins;
  private final ToolAddresses where;
  private final Clock clock;

  LtiPages(
      DSLContext db,
      Shells shells,
      ShellTools tools,
      Logins logins,
      ToolAddresses where,
      Clock clock) {
    this.db = db;
    this.shells = shells;
    this.tools = tools;
    this.logins = logins;
    this.where = where;
    this.clock = clock;
  }

  private static String base(HttpServletRequest q) {
    return q.getScheme() + "://" + q.getServerName() + ":" + q.getServerPort();
  }

  @GetMapping(path = "/keys", produces = MediaType.APPLICATION_JSON_VALUE)
  @ResponseBody
  String keys() {
    return key.publicSet();
  }

  @ExceptionHandler
  @ResponseBody
  ResponseEntity<Map<String, String>> wrong(OidcError e) {
    return ResponseEntity.badRequest()
        .contentType(MediaType.APPLICATION_JSON)
        .body(Map.of("error", e.code(), "error_description", e.getMessage()));
  }

  /** Answers a login with a message, as a form that sends itself. */
  @GetMapping("/authorize")
  String authorize(@RequestParam Map<String, String> sent, HttpServletRequest q, Model model) {
    ToolLaunchRecord l =
        logins
            .get(sent.getOrDefault("login_hint", ""))
            .orElseThrow(() -> new OidcError("login_required", "Nobody has begun this login"));
    Wire.Item at =
        shells.items(l.getShellId()).stream()
            .filter(i -> i.id().equals(l.getItemId()))
            .findFirst()
            .orElseThrow(() -> new ResponseStatusException(HttpStatus.NOT_FOUND));
    String host = ShellTools.host(at.launch().get("address").toString());
    ToolDataRecord data = tools.data(l.getShellId(), host);
    Registration r =
        ShellTools.registration(data)
            .orElseThrow(() -> new OidcError("unauthorized_client", "Not registered any more"));
    AuthenticationRequest a = AuthenticationRequest.of(sent, r);
    logins.ended(l.getId());
    tools.opened(l.getShellId(), host, l.getInstructor(), l.getPerson());
    Map<String, Object> claims =
        new Messages(base(q), r, a.nonce(), clock.instant())
            .resourceLink(
                ToolPages.launch(
                    shells.get(l.getShellId()),
                    at,
                    data,
                    l.getInstructor(),
                    l.getPerson(),
                    base(q)),
                at.points()
                    .map(p -> base(q) + "/lti/shells/" + l.getShellId() + "/items/" + at.id()));
    claims.put("sub", l.getPerson());
    model.addAttribute(
        "form", new TreeMap<>(Map.of("id_token", key.signed(claims), "state", a.state())));
    model.addAttribute("to", where.to(a.redirect()));
    model.addAttribute("title", at.wording().title());
    return "launch";
  }

  /** A token for scores, for a tool's assertion (1EdTech Security Framework 1.0, section 4.1). */
  @PostMapping(path = "/token", produces = MediaType.APPLICATION_JSON_VALUE)
  @ResponseBody
  Map<String, Object> token(@RequestParam Map<String, String> sent, HttpServletRequest q) {
    if (!"client_credentials".equals(sent.get("grant_type"))) {
      throw new OidcError("unsupported_grant_type", "grant_type has to be client_credentials");
    }
    String scope = sent.getOrDefault("scope", "");
    if (!List.of(Messages.SCORE, Messages.LINE_ITEM).containsAll(List.of(scope.split(" ")))) {
      throw new OidcError(
          "invalid_scope", "scope has to be of " + Messages.SCORE + " and " + Messages.LINE_ITEM);
    }
    String jwt = sent.getOrDefault("client_assertion", "");
    String who = SignedByTool.issuer(jwt);
    String keySet =
        db.select(TOOL_DATA.KEY_SET)
            .from(TOOL_DATA)
            .where(TOOL_DATA.KEY.eq(who))
            .and(TOOL_DATA.KEY_SET.ne(""))
            .limit(1)
            .fetchOptional(TOOL_DATA.KEY_SET)
            .orElseThrow(() -> new OidcError("invalid_client", "No client " + who));
    String id =
        SignedByTool.assertion(jwt, got(keySet), who, base(q) + "/lti/token", clock.instant());
    String token =
        logins
            .token(id, who)
            .orElseThrow(() -> new OidcError("invalid_client", "This assertion was used before"));
    return Map.of(
        "access_token", token, "token_type", "Bearer", "expires_in", 3600, "scope", scope);
  }

  private String got(String address) {
    try {
      return client
          .send(
              HttpRequest.newBuilder(URI.create(where.to(address)))
                  .timeout(Duration.ofSeconds(5))
                  .build(),
              HttpResponse.BodyHandlers.ofString())
          .body();
    } catch (IOException e) {
      throw new OidcError("invalid_client", "The tool’s keys cannot be got at " + address);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException(e);
    }
  }
}
