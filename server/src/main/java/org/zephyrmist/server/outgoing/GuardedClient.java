package org.zephyrmist.server.outgoing;

import java.io.IOException;
import java.net.InetAddress;
import java.net.URI;
import java.net.UnknownHostException;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodySubscribers;
import java.net.http.HttpTimeoutException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import org.springframework.stereotype.Component;
import org.zephyrmist.server.Settings;

/**
 * Calls others, only where it is allowed and never for ever: hosts on private, loopback or
 * link-local addresses only if a setting names them, judged by what their names resolve to; no
 * redirects; the whole answer within a time and a size.
 */
@Component
public class GuardedClient {
  private final Settings settings;
  private final HttpClient client =
      HttpClient.newBuilder()
          .version(HttpClient.Version.HTTP_1_1)
          .connectTimeout(Duration.ofSeconds(5))
          .followRedirects(HttpClient.Redirect.NEVER)
          .build();

  GuardedClient(Settings settings) {
    this.settings = settings;
  }

  /** The address may not be called. */
  public static final class NotAllowed extends IOException {
    NotAllowed(String problem) {
      super(problem);
    }
  }

  /**
   * @param total in which the whole answer has to have come
   * @throws NotAllowed if the host is not one to be called
   * @throws TooLarge if the answer is larger than {@code settings.answerMostBytes()}
   * @throws HttpTimeoutException if it has not come in time
   */
  public HttpResponse<byte[]> send(HttpRequest request, Duration total)
      throws IOException, InterruptedException {
    return send(
        request,
        total,
        i -> new Limited<>(BodySubscribers.ofByteArray(), settings.answerMostBytes()));
  }

  /**
   * Writes the body of an answer into a file, as large as a package may be.
   *
   * @throws NotAllowed if the host is not one to be called
   * @throws TooLarge if the answer is larger than {@code settings.uploadMostBytes()}
   * @throws HttpTimeoutException if it has not come in time
   */
  public HttpResponse<Path> download(HttpRequest request, Duration total, Path to)
      throws IOException, InterruptedException {
    return send(
        request, total, i -> new Limited<>(BodySubscribers.ofFile(to), settings.uploadMostBytes()));
  }

  private <T> HttpResponse<T> send(
      HttpRequest request, Duration total, HttpResponse.BodyHandler<T> body)
      throws IOException, InterruptedException {
    check(request.uri());
    CompletableFuture<HttpResponse<T>> answer = client.sendAsync(request, body);
    try {
      return answer.get(total.toMillis(), TimeUnit.MILLISECONDS);
    } catch (TimeoutException e) {
      answer.cancel(true);
      throw new HttpTimeoutException("The answer was not whole within " + total.toSeconds() + " s");
    } catch (ExecutionException e) {
      throw e.getCause() instanceof IOException io ? io : new IOException(e.getCause());
    } catch (InterruptedException e) {
      answer.cancel(true);
      throw e;
    }
  }

  /** Looked up anew each time; Java keeps the result for long enough to connect to the same. */
  void check(URI uri) throws IOException {
    String host = uri.getHost();
    if (host == null) {
      throw new NotAllowed("The address names no host.");
    }
    if (settings.privateHosts().contains(host)
        || settings.privateHosts().contains(host + ":" + uri.getPort())) {
      return;
    }
    try {
      for (InetAddress a : InetAddress.getAllByName(host)) {
        if (isInside(a)) {
          throw new NotAllowed(host + " is on a private address (" + a.getHostAddress() + ").");
        }
      }
    } catch (UnknownHostException e) {
      throw new IOException("No address is known of " + host, e);
    }
  }

  /** RFC 1918, 3927, 4193, 6598, 6890, and what is no host at all. */
  static boolean isInside(InetAddress a) {
    byte[] b = a.getAddress();
    int first = b[0] & 0xff;
    int second = b[1] & 0xff;
    boolean v4 = b.length == 4;
    return a.isLoopbackAddress()
        || a.isAnyLocalAddress()
        || a.isLinkLocalAddress()
        || a.isSiteLocalAddress()
        || a.isMulticastAddress()
        || v4 && (first == 0 || first >= 240 || first == 100 && (second & 0xc0) == 64)
        || v4 && first == 192 && second == 0 && b[2] == 0
        || v4 && first == 198 && (second & 0xfe) == 18
        || !v4 && (first & 0xfe) == 0xfc
        || !v4 && embedsInside(b);
  }

  /** IPv4 within IPv6: NAT64 (RFC 6052) and 6to4 (RFC 3056). */
  private static boolean embedsInside(byte[] b) {
    boolean nat64 = b[0] == 0 && b[1] == 0x64 && (b[2] & 0xff) == 0xff && (b[3] & 0xff) == 0x9b;
    boolean sixToFour = b[0] == 0x20 && b[1] == 0x02;
    int at = nat64 ? 12 : 2;
    try {
      return (nat64 || sixToFour)
          && isInside(
              InetAddress.getByAddress(new byte[] {b[at], b[at + 1], b[at + 2], b[at + 3]}));
    } catch (UnknownHostException e) {
      throw new IllegalStateException("Four bytes are an address", e);
    }
  }
}
