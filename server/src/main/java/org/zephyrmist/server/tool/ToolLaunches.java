package org.zephyrmist.server.tool;

import java.io.IOException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.HttpTimeoutException;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Frames;
import org.zephyrmist.core.tool.BasicLaunch;
import org.zephyrmist.core.tool.LaunchAnswer;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.outgoing.GuardedClient;
import org.zephyrmist.server.outgoing.TooLarge;

/** Launches a tool as a browser would, to see whether it lets somebody in. */
@Component
class ToolLaunches {
  private static final String PRACTICE = ".example";
  private static final int MOST_REDIRECTS = 5;
  private static final long NANOS = 1_000_000;
  private final GuardedClient client;
  private final Settings settings;
  private final Clock clock;

  ToolLaunches(GuardedClient client, Settings settings, Clock clock) {
    this.client = client;
    this.settings = settings;
    this.clock = clock;
  }

  /** What a tool made of a launch, and how long it took. */
  record Answered(LaunchAnswer answer, int millis) {}

  /** Where tools send people back to; nobody goes there, what they say is in the address. */
  String back() {
    return settings.address() + "/tools/back";
  }

  /**
   * @param hosts that it may be sent on to
   */
  Answered send(BasicLaunch launch, Optional<Signer> signer, Set<String> hosts) {
    SortedMap<String, String> form =
        signer
            .map(
                s ->
                    launch.signed(
                        s.key(), s.secret(), clock.instant(), UUID.randomUUID().toString()))
            .orElseGet(launch::parameters);
    long began = System.nanoTime();
    LaunchAnswer answer = answer(launch.link().address(), form, hosts);
    return new Answered(answer, (int) ((System.nanoTime() - began) / NANOS));
  }

  private LaunchAnswer answer(String address, Map<String, String> form, Set<String> hosts) {
    try {
      HttpResponse<byte[]> r = send(post(address, form));
      for (int i = 0; i < MOST_REDIRECTS; i++) {
        String to = r.headers().firstValue("Location").orElse("");
        if (r.statusCode() / 100 != 3 || to.startsWith(back())) {
          return LaunchAnswer.of(r.statusCode(), to, back());
        }
        Optional<String> on = within(r.uri(), to, hosts);
        if (on.isEmpty()) {
          return refused("It leads on to " + Frames.host(to) + ", which is none of its hosts.");
        }
        r = send(HttpRequest.newBuilder(where(on.get())).GET());
      }
      return silent("It leads on and on.");
    } catch (GuardedClient.NotAllowed e) {
      return refused("It may not be called: " + e.getMessage());
    } catch (TooLarge e) {
      return silent("Its answer has no end.");
    } catch (HttpTimeoutException e) {
      return silent("It did not answer within " + settings.toolTimeout().toSeconds() + " s.");
    } catch (IOException | IllegalArgumentException e) {
      return silent("It cannot be reached.");
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      return silent("The server is stopping.");
    }
  }

  private HttpResponse<byte[]> send(HttpRequest.Builder b)
      throws IOException, InterruptedException {
    return client.send(b.timeout(settings.toolTimeout()).build(), settings.toolTimeout());
  }

  private static LaunchAnswer refused(String why) {
    return new LaunchAnswer(LaunchAnswer.Outcome.REFUSED, why);
  }

  private static LaunchAnswer silent(String why) {
    return new LaunchAnswer(LaunchAnswer.Outcome.NO_ANSWER, why);
  }

  private HttpRequest.Builder post(String address, Map<String, String> form) {
    String body =
        form.entrySet().stream()
            .map(e -> encoded(e.getKey()) + "=" + encoded(e.getValue()))
            .collect(Collectors.joining("&"));
    return HttpRequest.newBuilder(where(address))
        .header("Content-Type", "application/x-www-form-urlencoded")
        .POST(HttpRequest.BodyPublishers.ofString(body));
  }

  private static String encoded(String s) {
    return URLEncoder.encode(s, StandardCharsets.UTF_8);
  }

  /** Where a redirect leads, if it is to one of the tool's own hosts. */
  private Optional<String> within(URI from, String to, Set<String> hosts) {
    URI on = from.resolve(to);
    boolean own =
        on.getHost() != null
            && (hosts.contains(on.getHost()) || isPractice(on) && isPractice(from));
    return own ? Optional.of(on.toString()) : Optional.empty();
  }

  private boolean isPractice(URI uri) {
    return !settings.practiceTools().isEmpty()
        && uri.toString().startsWith(settings.practiceTools() + "/");
  }

  /** The practice tools are not found under the names of their hosts. */
  private URI where(String address) {
    String host = Frames.host(address);
    return settings.practiceTools().isEmpty() || !host.endsWith(PRACTICE)
        ? URI.create(address)
        : URI.create(
            settings.practiceTools()
                + "/at/"
                + host
                + address.replaceFirst("^(?i:https?)://[^/?#]+", ""));
  }
}
