package org.zephyrmist.standins.tool;

import static org.zephyrmist.standins.db.Tables.TOOL_VISIT;

import com.nimbusds.jwt.JWTClaimsSet;
import java.io.IOException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Date;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.web.server.ResponseStatusException;
import org.zephyrmist.standins.db.tables.records.ToolPlatformRecord;
import org.zephyrmist.standins.db.tables.records.ToolVisitRecord;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** People who are in by a registration: what they pick is signed, what they score is sent. */
@Component
class Visits {
  private static final String DEEP = "https://purl.imsglobal.org/spec/lti-dl/claim/";
  private static final String SCORE = "https://purl.imsglobal.org/spec/lti-ags/scope/score";
  private static final String LINE_ITEM = "https://purl.imsglobal.org/spec/lti-ags/scope/lineitem";
  private static final String LINE_ITEM_TYPE = "application/vnd.ims.lis.v2.lineitem+json";

  /** Points of every task here. */
  static final int OUT_OF = 10;

  private static final String MAKER = "https://";
  private final HttpClient client =
      HttpClient.newBuilder().connectTimeout(Duration.ofSeconds(5)).build();
  private final DSLContext db;
  private final ToolKey key;
  private final Platforms platforms;
  private final JsonMapper json;
  private final Clock clock;

  Visits(DSLContext db, ToolKey key, Platforms platforms, JsonMapper json, Clock clock) {
    this.db = db;
    this.key = key;
    this.platforms = platforms;
    this.json = json;
    this.clock = clock;
  }

  /** Something that can be picked; without points it is not graded. */
  record Resource(String id, String title, int points) {}

  static final List<Resource> RESOURCES =
      List.of(
          new Resource("drill", "Fly cue drill", 10),
          new Resource("weights", "Counterweight quiz", 25),
          new Resource("chart", "Chart of knots", 0));

  String begun(MessageCheck.Message m, String lineItem, String back, String data) {
    ToolVisitRecord v = db.newRecord(TOOL_VISIT);
    v.setId(UUID.randomUUID().toString());
    v.setHost(m.platform().getHost());
    v.setIssuer(m.platform().getIssuer());
    v.setClient(m.platform().getClient());
    v.setDeployment(m.text("deployment_id"));
    v.setPerson(String.valueOf(m.claims().getSubject()));
    v.setLineItem(lineItem);
    v.setBack(back);
    v.setData(data);
    v.setAt(OffsetDateTime.now(clock));
    v.insert();
    return v.getId();
  }

  /** Of LTI 1.1: who may send a grade back, where, and for which result. */
  String graded(String host, String key, String service, String result) {
    ToolVisitRecord v = db.newRecord(TOOL_VISIT);
    v.setId(UUID.randomUUID().toString());
    v.setHost(host);
    v.setIssuer("");
    v.setClient(key);
    v.setDeployment("");
    v.setPerson(result);
    v.setLineItem(service);
    v.setAt(OffsetDateTime.now(clock));
    v.insert();
    return v.getId();
  }

  ToolVisitRecord get(String id) {
    return db.selectFrom(TOOL_VISIT)
        .where(TOOL_VISIT.ID.eq(id))
        .fetchOptional()
        .orElseThrow(() -> new ResponseStatusException(HttpStatus.NOT_FOUND));
  }

  /** The answer to a request to pick (LTI Deep Linking 2.0, section 4.5). */
  String picked(ToolVisitRecord v, List<String> ids) {
    List<Map<String, Object>> items = new ArrayList<>();
    for (Resource r : RESOURCES) {
      if (ids.contains(r.id())) {
        Map<String, Object> item = new LinkedHashMap<>();
        item.put("type", "ltiResourceLink");
        item.put("title", r.title());
        item.put("url", MAKER + v.getHost() + "/r/" + r.id());
        item.put("custom", Map.of("resource", r.id()));
        if (r.points() > 0) {
          item.put("lineItem", Map.of("scoreMaximum", r.points(), "label", r.title()));
        }
        items.add(item);
      }
    }
    return key.signed(
        base(v)
            .audience(v.getIssuer())
            .claim("nonce", UUID.randomUUID().toString())
            .claim(MessageCheck.LTI + "message_type", "LtiDeepLinkingResponse")
            .claim(MessageCheck.LTI + "version", "1.3.0")
            .claim(MessageCheck.LTI + "deployment_id", v.getDeployment())
            .claim(DEEP + "data", v.getData())
            .claim(DEEP + "content_items", items)
            .build());
  }

  private JWTClaimsSet.Builder base(ToolVisitRecord v) {
    return new JWTClaimsSet.Builder()
        .issuer(v.getClient())
        .issueTime(Date.from(clock.instant()))
        .expirationTime(Date.from(clock.instant().plusSeconds(300)));
  }

  /** Sends a score (LTI Assignment and Grade Services 2.0, section 3.4); gives HTTP's status. */
  int score(ToolVisitRecord v, double given, double maximum) {
    ToolPlatformRecord p = platforms.get(v.getHost(), v.getIssuer(), v.getClient()).orElseThrow();
    try {
      String score =
          json.writeValueAsString(
              Map.of(
                  "userId",
                  v.getPerson(),
                  "scoreGiven",
                  given,
                  "scoreMaximum",
                  maximum,
                  "activityProgress",
                  "Completed",
                  "gradingProgress",
                  "FullyGraded",
                  "timestamp",
                  OffsetDateTime.now(clock).toString()));
      HttpRequest.Builder r =
          HttpRequest.newBuilder(URI.create(v.getLineItem() + "/scores"))
              .header("Authorization", "Bearer " + token(v, p))
              .header("Content-Type", "application/vnd.ims.lis.v1.score+json");
      return send(r.POST(HttpRequest.BodyPublishers.ofString(score))).statusCode();
    } catch (IOException e) {
      throw new ResponseStatusException(HttpStatus.BAD_GATEWAY, "The platform does not answer", e);
    }
  }

  /**
   * Takes the date of a task from its class, or keeps its own, and tells its class which it is, and
   * out of how many points it is here (AGS 2.0, section 3.2).
   *
   * @param own empty: as the class says
   * @return the date; empty if there is none
   */
  String dated(ToolVisitRecord v, String own) {
    ToolPlatformRecord p = platforms.get(v.getHost(), v.getIssuer(), v.getClient()).orElseThrow();
    try {
      String bearer = "Bearer " + token(v, p);
      HttpRequest.Builder get =
          HttpRequest.newBuilder(URI.create(v.getLineItem()))
              .header("Authorization", bearer)
              .header("Accept", LINE_ITEM_TYPE)
              .GET();
      JsonNode theirs = json.readTree(send(get).body());
      String due = own.isEmpty() ? theirs.path("endDateTime").asString("") : own;
      Map<String, Object> said = new LinkedHashMap<>();
      said.put("scoreMaximum", OUT_OF);
      said.put("label", theirs.path("label").asString(""));
      if (!due.isEmpty()) {
        said.put("endDateTime", due);
      }
      send(
          HttpRequest.newBuilder(URI.create(v.getLineItem()))
              .header("Authorization", bearer)
              .header("Content-Type", LINE_ITEM_TYPE)
              .PUT(HttpRequest.BodyPublishers.ofString(json.writeValueAsString(said))));
      return due;
    } catch (IOException e) {
      throw new ResponseStatusException(HttpStatus.BAD_GATEWAY, "The platform does not answer", e);
    }
  }

  /** By an assertion of its own (1EdTech Security Framework 1.0, section 4.1). */
  private String token(ToolVisitRecord v, ToolPlatformRecord p) throws IOException {
    String assertion =
        key.signed(
            base(v)
                .subject(v.getClient())
                .audience(p.getToken())
                .jwtID(UUID.randomUUID().toString())
                .build());
    String form =
        "grant_type=client_credentials&client_assertion_type="
            + encoded("urn:ietf:params:oauth:client-assertion-type:jwt-bearer")
            + "&client_assertion="
            + encoded(assertion)
            + "&scope="
            + encoded(SCORE + " " + LINE_ITEM);
    HttpResponse<String> r =
        send(
            HttpRequest.newBuilder(URI.create(p.getToken()))
                .header("Content-Type", "application/x-www-form-urlencoded")
                .POST(HttpRequest.BodyPublishers.ofString(form)));
    JsonNode answer = json.readTree(r.body());
    if (r.statusCode() != 200) {
      throw new ResponseStatusException(
          HttpStatus.BAD_GATEWAY, "No token: " + answer.path("error_description").asString(""));
    }
    return answer.path("access_token").asString();
  }

  private static String encoded(String s) {
    return URLEncoder.encode(s, StandardCharsets.UTF_8);
  }

  private HttpResponse<String> send(HttpRequest.Builder r) throws IOException {
    try {
      return client.send(
          r.timeout(Duration.ofSeconds(10)).build(), HttpResponse.BodyHandlers.ofString());
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IOException(e);
    }
  }
}
