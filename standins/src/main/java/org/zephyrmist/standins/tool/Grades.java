package org.zephyrmist.standins.tool;

import static org.zephyrmist.standins.db.Tables.TOOL_KEY;
import static org.zephyrmist.standins.tool.LaunchCheck.percent;

import java.io.IOException;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.time.Clock;
import java.time.Duration;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.web.server.ResponseStatusException;

/** Sends grades back to platforms of LTI 1.1 (implementation guide, section 6). */
@Component
class Grades {
  private static final BigDecimal OF = BigDecimal.TEN;
  private final HttpClient client =
      HttpClient.newBuilder().connectTimeout(Duration.ofSeconds(5)).build();
  private final DSLContext db;
  private final Clock clock;

  Grades(DSLContext db, Clock clock) {
    this.db = db;
    this.clock = clock;
  }

  /** What the platform says of it. */
  String send(String host, String key, String service, String result, BigDecimal points) {
    String secret =
        db.select(TOOL_KEY.SECRET)
            .from(TOOL_KEY)
            .where(TOOL_KEY.HOST.eq(host))
            .and(TOOL_KEY.KEY.eq(key))
            .fetchOptional(TOOL_KEY.SECRET)
            .orElseThrow(() -> new ResponseStatusException(HttpStatus.NOT_FOUND));
    String body =
        "<?xml version=\"1.0\" encoding=\"UTF-8\"?><imsx_POXEnvelopeRequest"
            + " xmlns=\"http://www.imsglobal.org/services/ltiv1p1/xsd/imsoms_v1p0\"><imsx_POXHeader>"
            + "<imsx_POXRequestHeaderInfo><imsx_version>V1.0</imsx_version><imsx_messageIdentifier>"
            + UUID.randomUUID()
            + "</imsx_messageIdentifier></imsx_POXRequestHeaderInfo></imsx_POXHeader><imsx_POXBody>"
            + "<replaceResultRequest><resultRecord><sourcedGUID><sourcedId>"
            + result.replace("&", "&amp;").replace("<", "&lt;")
            + "</sourcedId></sourcedGUID><result><resultScore><language>en</language><textString>"
            + points.divide(OF, 4, RoundingMode.HALF_UP).stripTrailingZeros().toPlainString()
            + "</textString></resultScore></result></resultRecord></replaceResultRequest>"
            + "</imsx_POXBody></imsx_POXEnvelopeRequest>";
    try {
      HttpRequest r =
          HttpRequest.newBuilder(URI.create(service))
              .timeout(Duration.ofSeconds(10))
              .header("Content-Type", "application/xml")
              .header("Authorization", authorization(service, body, key, secret))
              .POST(HttpRequest.BodyPublishers.ofString(body))
              .build();
      return client.send(r, HttpResponse.BodyHandlers.ofString()).body();
    } catch (IOException e) {
      throw new ResponseStatusException(HttpStatus.BAD_GATEWAY, "The platform does not answer", e);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException(e);
    }
  }

  private String authorization(String service, String body, String key, String secret) {
    Map<String, String> all = new TreeMap<>();
    all.put("oauth_body_hash", hash(body));
    all.put("oauth_consumer_key", key);
    all.put("oauth_nonce", UUID.randomUUID().toString());
    all.put("oauth_signature_method", "HMAC-SHA1");
    all.put("oauth_timestamp", Long.toString(clock.instant().getEpochSecond()));
    all.put("oauth_version", "1.0");
    Map<String, List<String>> signed = new TreeMap<>();
    all.forEach((k, v) -> signed.put(k, List.of(v)));
    all.put("oauth_signature", LaunchCheck.signature(service, signed, secret));
    return "OAuth "
        + all.entrySet().stream()
            .map(e -> percent(e.getKey()) + "=\"" + percent(e.getValue()) + "\"")
            .collect(Collectors.joining(", "));
  }

  private static String hash(String body) {
    try {
      return Base64.getEncoder()
          .encodeToString(
              MessageDigest.getInstance("SHA-1").digest(body.getBytes(StandardCharsets.UTF_8)));
    } catch (GeneralSecurityException e) {
      throw new IllegalStateException(e);
    }
  }
}
