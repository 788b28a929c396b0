package org.zephyrmist.standins.tool;

import static org.zephyrmist.standins.db.Tables.TOOL_LOGIN;

import com.nimbusds.jwt.JWTClaimsSet;
import jakarta.servlet.http.HttpServletResponse;
import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestMethod;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.server.ResponseStatusException;
import org.springframework.web.util.UriComponentsBuilder;
import org.zephyrmist.standins.db.tables.records.ToolPlatformRecord;
import org.zephyrmist.standins.db.tables.records.ToolVisitRecord;

/** Tools that are registered: logins, messages, picks and scores (LTI 1.3 and Advantage). */
@Controller
class RegisteredPages {
  private static final String DEEP = "https://purl.imsglobal.org/spec/lti-dl/claim/";
  private static final String GRADES = "https://purl.imsglobal.org/spec/lti-ags/claim/endpoint";
  private final DSLContext db;
  private final Platforms platforms;
  private final MessageCheck check;
  private final Visits visits;
  private final ToolKey key;
  private final Knobs knobs;
  private final Clock clock;

  RegisteredPages(
      DSLContext db,
      Platforms platforms,
      MessageCheck check,
      Visits visits,
      ToolKey key,
      Knobs knobs,
      Clock clock) {
    this.db = db;
    this.platforms = platforms;
    this.check = check;
    this.visits = visits;
    this.key = key;
    this.knobs = knobs;
    this.clock = clock;
  }

  private Tool tool(String host) {
    return knobs
        .at(host)
        .filter(t -> t.registered)
        .orElseThrow(() -> new ResponseStatusException(HttpStatus.NOT_FOUND));
  }

  @GetMapping(path = "/at/{host}/keys", produces = MediaType.APPLICATION_JSON_VALUE)
  @ResponseBody
  String keys(@PathVariable String host) {
    tool(host);
    return key.publicSet();
  }

  /** 1EdTech Security Framework 1.0, section 5.1.1.1. */
  @RequestMapping(
      path = "/at/{host}/login",
      method = {RequestMethod.GET, RequestMethod.POST})
  String login(
      @PathVariable String host,
      @RequestParam Map<String, String> sent,
      HttpServletResponse r,
      Model model) {
    Tool tool = tool(host);
    Knobs.Set set = knobs.of(tool.host);
    set.trouble();
    String issuer = sent.getOrDefault("iss", "");
    String client = sent.getOrDefault("client_id", "");
    ToolPlatformRecord p = platforms.get(tool.host, issuer, client).orElse(null);
    if (p == null) {
      return refused(
          tool, "The registration " + client + " of " + issuer + " is not known here.", r, model);
    }
    if (!sent.getOrDefault("target_link_uri", "").startsWith("https://" + host + "/")) {
      return refused(tool, "target_link_uri is no address of " + host + ".", r, model);
    }
    String state = UUID.randomUUID().toString();
    String nonce = UUID.randomUUID().toString();
    db.insertInto(TOOL_LOGIN)
        .values(state, nonce, tool.host, issuer, client, OffsetDateTime.now(clock))
        .execute();
    return "redirect:"
        + UriComponentsBuilder.fromUriString(p.getAuthorize())
            .queryParam("scope", "openid")
            .queryParam("response_type", "id_token")
            .queryParam("response_mode", "form_post")
            .queryParam("prompt", "none")
            .queryParam("client_id", "{client}")
            .queryParam("redirect_uri", "https://" + host + "/launch")
            .queryParam("login_hint", "{hint}")
            .queryParam("lti_message_hint", "{message}")
            .queryParam("state", state)
            .queryParam("nonce", nonce)
            .encode()
            .buildAndExpand(
                client,
                sent.getOrDefault("login_hint", ""),
                sent.getOrDefault("lti_message_hint", ""))
            .toUriString();
  }

  @PostMapping(path = "/at/{host}/launch", params = "id_token")
  String launch(
      @PathVariable String host,
      @RequestParam Map<String, String> sent,
      HttpServletResponse r,
      Model model) {
    Tool tool = tool(host);
    Knobs.Set set = knobs.of(tool.host);
    set.trouble();
    MessageCheck.Message m;
    try {
      m =
          check.message(
              tool.host,
              sent.getOrDefault("id_token", ""),
              sent.getOrDefault("state", ""),
              set.clockOff());
    } catch (MessageCheck.Refused e) {
      return refused(tool, e.getMessage(), r, model);
    }
    model.addAttribute("tool", tool.title);
    JWTClaimsSet c = m.claims();
    if (m.text("message_type").equals("LtiDeepLinkingRequest")) {
      Map<?, ?> s =
          c.getClaim(DEEP + "deep_linking_settings") instanceof Map<?, ?> all ? all : Map.of();
      String back = String.valueOf(s.get("deep_link_return_url"));
      String data = s.get("data") == null ? "" : s.get("data").toString();
      model.addAttribute("visit", visits.begun(m, "", back, data));
      model.addAttribute("resources", Visits.RESOURCES);
      return "tool-pick";
    }
    boolean instructor =
        String.valueOf(c.getClaim(MessageCheck.LTI + "roles")).contains("#Instructor");
    String lineItem =
        c.getClaim(GRADES) instanceof Map<?, ?> all && all.get("lineitem") != null
            ? all.get("lineitem").toString()
            : "";
    model.addAttribute("who", c.getClaim("name") == null ? "" : c.getClaim("name").toString());
    model.addAttribute("instructor", instructor);
    model.addAttribute("course", String.valueOf(m.object("context").get("label")));
    model.addAttribute(
        "visit", lineItem.isEmpty() || instructor ? "" : visits.begun(m, lineItem, "", ""));
    model.addAttribute(
        "due",
        lineItem.isEmpty() || !instructor
            ? ""
            : visits.dated(visits.get(visits.begun(m, lineItem, "", "")), set.due()));
    return "tool-inside";
  }

  @PostMapping("/answer/pick")
  String pick(
      @RequestParam String visit,
      @RequestParam(defaultValue = "") List<String> resource,
      Model model) {
    ToolVisitRecord v = visits.get(visit);
    model.addAttribute("to", v.getBack());
    model.addAttribute("jwt", visits.picked(v, resource));
    return "tool-picked";
  }

  @PostMapping("/answer/score")
  String score(@RequestParam String visit, @RequestParam double points, Model model) {
    ToolVisitRecord v = visits.get(visit);
    int status = visits.score(v, points, Visits.OUT_OF);
    model.addAttribute("tool", Tool.at(v.getHost()).orElseThrow().title);
    model.addAttribute(
        "why",
        status / 100 == 2
            ? "The score went to your class."
            : "Your class did not take the score: status " + status + ".");
    return "tool-refused";
  }

  private static String refused(Tool tool, String why, HttpServletResponse r, Model model) {
    r.setStatus(HttpStatus.FORBIDDEN.value());
    model.addAttribute("tool", tool.title);
    model.addAttribute("why", why);
    return "tool-refused";
  }
}
