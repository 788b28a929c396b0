package org.zephyrmist.standins.tool;

import static org.zephyrmist.standins.db.Tables.TOOL_KEY;
import static org.zephyrmist.standins.db.Tables.TOOL_NONCE;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.standins.db.tables.records.ToolKeyRecord;

/**
 * Whether a signed launch of LTI 1.1 is one (OAuth 1.0a, RFC 5849, section 3.2). Written apart from
 * what signs, so that neither proves only itself.
 */
@Component
class LaunchCheck {
  private static final long SECONDS = 300;
  private final DSLContext db;
  private final Clock clock;

  LaunchCheck(DSLContext db, Clock clock) {
    this.db = db;
    this.clock = clock;
  }

  /** What speaks against it, in a sentence; nothing if it may come in. */
  Optional<String> against(
      Tool tool, String address, Map<String, List<String>> sent, int clockOff) {
    if (!"HMAC-SHA1".equals(one(sent, "oauth_signature_method"))) {
      return Optional.of("This launch is not signed with HMAC-SHA1.");
    }
    String key = one(sent, "oauth_consumer_key");
    ToolKeyRecord known =
        db.selectFrom(TOOL_KEY)
            .where(TOOL_KEY.HOST.eq(tool.host))
            .and(TOOL_KEY.KEY.eq(key))
            .fetchOne();
    if (known == null) {
      return Optional.of("The key " + key + " is not known at " + tool.host + ".");
    }
    if (!time(one(sent, "oauth_timestamp"), clockOff)) {
      return Optional.of("The launch was signed more than five minutes before or after now.");
    }
    String expected = signature(address, sent, known.getSecret());
    if (!same(expected, one(sent, "oauth_signature"))) {
      return Optional.of("The signature is wrong: the secret of " + key + " is another one.");
    }
    int fresh =
        db.insertInto(TOOL_NONCE)
            .values(tool.host, key, one(sent, "oauth_nonce"), OffsetDateTime.now(clock))
            .onConflictDoNothing()
            .execute();
    return fresh == 1 ? Optional.empty() : Optional.of("This launch was used before.");
  }

  private boolean time(String stamp, int clockOff) {
    long now = clock.instant().getEpochSecond() + clockOff;
    return stamp.matches("\\d{1,12}") && Math.abs(now - Long.parseLong(stamp)) <= SECONDS;
  }

  private static boolean same(String a, String b) {
    return MessageDigest.isEqual(
        a.getBytes(StandardCharsets.UTF_8), b.getBytes(StandardCharsets.UTF_8));
  }

  /** Of a post to an address. */
  static String signature(String address, Map<String, List<String>> sent, String secret) {
    List<String> pairs = new ArrayList<>();
    sent.forEach(
        (name, values) -> {
          if (!name.equals("oauth_signature")) {
            values.forEach(v -> pairs.add(percent(name) + '\0' + percent(v)));
          }
        });
    pairs.sort(null);
    String all = String.join("&", pairs).replace('\0', '=');
    String base = "POST&" + percent(address) + "&" + percent(all);
    try {
      Mac mac = Mac.getInstance("HmacSHA1");
      mac.init(
          new SecretKeySpec((percent(secret) + "&").getBytes(StandardCharsets.UTF_8), "HmacSHA1"));
      return Base64.getEncoder().encodeToString(mac.doFinal(base.getBytes(StandardCharsets.UTF_8)));
    } catch (GeneralSecurityException e) {
      throw new IllegalStateException(e);
    }
  }

  static String percent(String s) {
    return URLEncoder.encode(s, StandardCharsets.UTF_8)
        .replace("+", "%20")
        .replace("*", "%2A")
        .replace("%7E", "~");
  }

  static String one(Map<String, List<String>> sent, String name) {
    List<String> all = sent.getOrDefault(name, List.of());
    return all.isEmpty() ? "" : all.get(0);
  }
}
