package org.zephyrmist.standins.platform;

import static org.zephyrmist.standins.db.Tables.OUTCOME_NONCE;

import jakarta.servlet.http.HttpServletRequest;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.SortedMap;
import org.jooq.DSLContext;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.lti.BasicOutcome;
import org.zephyrmist.core.lti.OidcError;
import org.zephyrmist.core.lti.Score;
import org.zephyrmist.core.tool.OAuthSignature;
import org.zephyrmist.core.tool.OAuthSignature.Parameter;
import org.zephyrmist.standins.db.tables.records.ToolDataRecord;

/** Grades that tools of LTI 1.1 send back (implementation guide, section 6). */
@RestController
class OutcomePages {
  private static final long SECONDS = 300;
  private final DSLContext db;
  private final Shells shells;
  private final ShellTools tools;
  private final Scores scores;
  private final Clock clock;

  OutcomePages(DSLContext db, Shells shells, ShellTools tools, Scores scores, Clock clock) {
    this.db = db;
    this.shells = shells;
    this.tools = tools;
    this.scores = scores;
    this.clock = clock;
  }

  /** Id of a person's grade, as launches send it along. */
  static String result(String shell, String item, String person) {
    return shell + "|" + item + "|" + person;
  }

  @PostMapping(
      path = "/lti/outcomes",
      consumes = MediaType.APPLICATION_XML_VALUE,
      produces = MediaType.APPLICATION_XML_VALUE)
  String outcome(
      @RequestBody byte[] body,
      @RequestHeader(name = "Authorization", defaultValue = "") String authorization,
      HttpServletRequest q) {
    String message = "";
    try {
      BasicOutcome o = BasicOutcome.of(new String(body, StandardCharsets.UTF_8));
      message = o.message();
      keep(o, body, OAuthSignature.authorization(authorization), q.getRequestURL().toString());
      return BasicOutcome.answer(message, "");
    } catch (OidcError e) {
      return BasicOutcome.answer(message, e.getMessage());
    }
  }

  private void keep(BasicOutcome o, byte[] body, SortedMap<String, String> sent, String address) {
    String[] parts = o.result().split("\\|", 3);
    Wire.Item at =
        parts.length < 3
            ? null
            : shells.items(parts[0]).stream()
                .filter(i -> i.id().equals(parts[1]) && i.points().isPresent())
                .findFirst()
                .orElse(null);
    if (at == null) {
      throw wrong("there is no such result");
    }
    String host = ShellTools.host(String.valueOf(at.launch().get("address")));
    signed(tools.data(parts[0], host), host, body, sent, address);
    BigDecimal points = at.points().orElseThrow();
    double most = points.doubleValue();
    scores.put(parts[0], at.id(), host, parts[2], new Score(o.grade().doubleValue() * most, most));
  }

  private void signed(
      ToolDataRecord data,
      String host,
      byte[] body,
      SortedMap<String, String> sent,
      String address) {
    if (data.getKey().isEmpty() || !data.getKey().equals(sent.get("oauth_consumer_key"))) {
      throw wrong("the key is not the one of this link");
    }
    if (!OAuthSignature.bodyHash(body).equals(sent.get("oauth_body_hash"))) {
      throw wrong("oauth_body_hash is not that of the body");
    }
    String stamp = sent.getOrDefault("oauth_timestamp", "");
    boolean now =
        stamp.matches("\\d{1,12}")
            && Math.abs(clock.instant().getEpochSecond() - Long.parseLong(stamp)) <= SECONDS;
    if (!now) {
      throw wrong("it was signed more than five minutes before or after now");
    }
    List<Parameter> all = new ArrayList<>();
    sent.forEach(
        (name, value) -> {
          if (!name.equals("oauth_signature")) {
            all.add(new Parameter(name, value));
          }
        });
    String expected =
        OAuthSignature.of(OAuthSignature.base("POST", address, all), data.getSecret(), "");
    boolean same =
        MessageDigest.isEqual(
            expected.getBytes(StandardCharsets.UTF_8),
            sent.getOrDefault("oauth_signature", "").getBytes(StandardCharsets.UTF_8));
    if (!same) {
      throw wrong("the signature is wrong");
    }
    int fresh =
        db.insertInto(OUTCOME_NONCE)
            .values(
                data.getKey() + " " + sent.getOrDefault("oauth_nonce", ""),
                OffsetDateTime.now(clock))
            .onConflictDoNothing()
            .execute();
    if (fresh == 0) {
      throw wrong("this was sent before");
    }
  }

  private static OidcError wrong(String what) {
    return new OidcError("invalid_request", what);
  }
}
