package org.zephyrmist.core.tool;

import java.net.URI;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;

/**
 * HMAC-SHA1 signatures of OAuth 1.0a (RFC 5849, section 3.4), as launches of LTI 1.1 carry them.
 */
public final class OAuthSignature {
  private static final String UNRESERVED = "-._~";
  private static final Pattern HEADER = Pattern.compile("([A-Za-z0-9_%]+)=\"([^\"]*)\"");

  private OAuthSignature() {}

  /** A parameter of a request, not encoded. */
  public record Parameter(String name, String value) {}

  /**
   * What is signed (section 3.4.1.1).
   *
   * @param address with its query, whose parameters are signed too
   * @param parameters of the body and of the authorization, without {@code realm} and {@code
   *     oauth_signature}
   */
  public static String base(String method, String address, Collection<Parameter> parameters) {
    URI uri = URI.create(address);
    List<Parameter> all = new ArrayList<>(parameters);
    all.addAll(query(uri));
    String normalized =
        all.stream()
            .map(p -> new Parameter(encoded(p.name()), encoded(p.value())))
            .sorted(Comparator.comparing(Parameter::name).thenComparing(Parameter::value))
            .map(p -> p.name() + "=" + p.value())
            .collect(Collectors.joining("&"));
    return method.toUpperCase(Locale.ROOT) + "&" + encoded(where(uri)) + "&" + encoded(normalized);
  }

  /**
   * The signature of a base string (section 3.4.2), not yet encoded.
   *
   * @param token shared secret of the token; empty where there is none, as in LTI
   */
  public static String of(String base, String secret, String token) {
    try {
      String key = encoded(secret) + "&" + encoded(token);
      Mac mac = Mac.getInstance("HmacSHA1");
      mac.init(new SecretKeySpec(key.getBytes(StandardCharsets.UTF_8), "HmacSHA1"));
      byte[] print = mac.doFinal(base.getBytes(StandardCharsets.UTF_8));
      return Base64.getEncoder().encodeToString(print);
    } catch (GeneralSecurityException e) {
      throw new IllegalStateException("Java has no HmacSHA1", e);
    }
  }

  /** Of a body that is no form (OAuth Request Body Hash, draft 4, section 3.2; LTI 1.1.1, 4.3). */
  public static String bodyHash(byte[] body) {
    try {
      return Base64.getEncoder().encodeToString(MessageDigest.getInstance("SHA-1").digest(body));
    } catch (GeneralSecurityException e) {
      throw new IllegalStateException("Java has no SHA-1", e);
    }
  }

  /** Parameters of an authorization header, but for its realm (section 3.5.1). */
  public static SortedMap<String, String> authorization(String header) {
    SortedMap<String, String> all = new TreeMap<>();
    Matcher m = HEADER.matcher(header.replaceFirst("(?i)^OAuth\\s+", ""));
    while (m.find()) {
      if (!m.group(1).equals("realm")) {
        all.put(decoded(m.group(1)), decoded(m.group(2)));
      }
    }
    return all;
  }

  /** Without query, and without the port that goes with the scheme (section 3.4.1.2). */
  private static String where(URI uri) {
    String scheme = uri.getScheme().toLowerCase(Locale.ROOT);
    boolean usual = uri.getPort() < 0 || uri.getPort() == (scheme.equals("https") ? 443 : 80);
    String path = uri.getRawPath() == null || uri.getRawPath().isEmpty() ? "/" : uri.getRawPath();
    return scheme
        + "://"
        + uri.getHost().toLowerCase(Locale.ROOT)
        + (usual ? "" : ":" + uri.getPort())
        + path;
  }

  private static List<Parameter> query(URI uri) {
    List<Parameter> all = new ArrayList<>();
    if (uri.getRawQuery() != null) {
      for (String pair : uri.getRawQuery().split("&")) {
        int at = pair.indexOf('=');
        if (!pair.isEmpty()) {
          all.add(
              new Parameter(
                  decoded(at < 0 ? pair : pair.substring(0, at)),
                  at < 0 ? "" : decoded(pair.substring(at + 1))));
        }
      }
    }
    return all;
  }

  private static String decoded(String text) {
    return URLDecoder.decode(text, StandardCharsets.UTF_8);
  }

  /** All but letters, digits and four signs, in capital hexadecimals (section 3.6). */
  static String encoded(String text) {
    StringBuilder all = new StringBuilder();
    for (byte b : text.getBytes(StandardCharsets.UTF_8)) {
      char c = (char) (b & 0xff);
      boolean plain =
          c >= 'a' && c <= 'z'
              || c >= 'A' && c <= 'Z'
              || c >= '0' && c <= '9'
              || UNRESERVED.indexOf(c) >= 0;
      if (plain) {
        all.append(c);
      } else {
        all.append('%').append(String.format(Locale.ROOT, "%02X", (int) c));
      }
    }
    return all.toString();
  }
}
