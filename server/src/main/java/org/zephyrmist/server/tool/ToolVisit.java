package org.zephyrmist.server.tool;

import java.io.IOException;
import java.net.HttpCookie;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.zephyrmist.core.content.Frames;
import org.zephyrmist.server.outgoing.GuardedClient;

/**
 * One visit to a tool, as a browser makes it: posts forms, follows redirects within the tool's own
 * hosts, keeps cookies.
 */
final class ToolVisit {
  private static final int MOST_REDIRECTS = 5;
  private static final int MOST_COOKIES = 20;
  private final GuardedClient client;
  private final ToolAddresses where;
  private final Set<String> hosts;
  private final Duration timeout;
  private final Map<String, Map<String, String>> cookies = new HashMap<>();

  /**
   * @param hosts that it may be sent on to
   * @param timeout of each call
   */
  ToolVisit(GuardedClient client, ToolAddresses where, Set<String> hosts, Duration timeout) {
    this.client = client;
    this.where = where;
    this.hosts = hosts;
    this.timeout = timeout;
  }

  /** It leads on to a host that is none of its own, or without end. */
  static final class Astray extends IOException {
    private static final long serialVersionUID = 1;

    Astray(String why) {
      super(why);
    }
  }

  /**
   * Where a call ended.
   *
   * @param location that it leads on to, if it is one of ours
   */
  record Page(int status, String location, String text) {}

  /** Posts a form, and follows where it leads until it comes back to us. */
  Page post(String address, Map<String, String> form) throws IOException, InterruptedException {
    String body =
        form.entrySet().stream()
            .map(e -> encoded(e.getKey()) + "=" + encoded(e.getValue()))
            .collect(Collectors.joining("&"));
    HttpResponse<byte[]> r =
        send(
            HttpRequest.newBuilder(where.where(address))
                .header("Content-Type", "application/x-www-form-urlencoded")
                .POST(HttpRequest.BodyPublishers.ofString(body)));
    for (int i = 0; i < MOST_REDIRECTS; i++) {
      String to = r.headers().firstValue("Location").orElse("");
      if (r.statusCode() / 100 != 3 || to.startsWith(where.issuer() + "/")) {
        return new Page(r.statusCode(), to, new String(r.body(), StandardCharsets.UTF_8));
      }
      r = send(HttpRequest.newBuilder(where.where(within(r.uri(), to))).GET());
    }
    throw new Astray("It leads on and on.");
  }

  private HttpResponse<byte[]> send(HttpRequest.Builder b)
      throws IOException, InterruptedException {
    HttpRequest bare = b.timeout(timeout).build();
    Map<String, String> mine = cookies.computeIfAbsent(bare.uri().getHost(), h -> new TreeMap<>());
    if (!mine.isEmpty()) {
      b.header(
          "Cookie",
          mine.entrySet().stream()
              .map(c -> c.getKey() + "=" + c.getValue())
              .collect(Collectors.joining("; ")));
    }
    HttpResponse<byte[]> r = client.send(b.build(), timeout);
    for (String set : r.headers().allValues("Set-Cookie")) {
      cookie(set)
          .filter(c -> mine.size() < MOST_COOKIES)
          .ifPresent(c -> mine.put(c.getName(), c.getValue()));
    }
    return r;
  }

  private static Optional<HttpCookie> cookie(String set) {
    try {
      return HttpCookie.parse(set).stream().findFirst();
    } catch (IllegalArgumentException none) {
      return Optional.empty();
    }
  }

  private String within(URI from, String to) throws Astray {
    URI on = from.resolve(to);
    boolean own =
        on.getHost() != null
            && (hosts.contains(on.getHost()) || where.isPractice(on) && where.isPractice(from));
    if (!own) {
      throw new Astray("It leads on to " + Frames.host(to) + ", which is none of its hosts.");
    }
    return on.toString();
  }

  private static String encoded(String s) {
    return URLEncoder.encode(s, StandardCharsets.UTF_8);
  }
}
