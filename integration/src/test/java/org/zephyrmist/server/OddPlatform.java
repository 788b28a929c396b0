package org.zephyrmist.server;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.OutputStream;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;

/** A platform that is well, or odd in one way: it stalls, drips, never ends or repeats itself. */
final class OddPlatform implements AutoCloseable {
  interface Answer {
    void to(HttpExchange x) throws IOException, InterruptedException;
  }

  private final HttpServer server;
  private final Map<String, Answer> answers = new ConcurrentHashMap<>();

  OddPlatform() throws IOException {
    server = HttpServer.create(new InetSocketAddress("127.0.0.1", 0), 0);
    server.setExecutor(Executors.newCachedThreadPool());
    server.createContext(
        "/",
        x -> {
          try (x) {
            answers.entrySet().stream()
                .filter(e -> x.getRequestURI().toString().startsWith(e.getKey()))
                .max(Map.Entry.comparingByKey())
                .orElseThrow(() -> new IOException("Nothing at " + x.getRequestURI()))
                .getValue()
                .to(x);
          } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
          }
        });
    server.start();
  }

  String address() {
    return "http://127.0.0.1:" + server.getAddress().getPort();
  }

  OddPlatform at(String path, Answer answer) {
    answers.put(path, answer);
    return this;
  }

  static Answer json(String body) {
    return x -> {
      byte[] b = body.getBytes(StandardCharsets.UTF_8);
      x.getResponseHeaders().set("Content-Type", "application/json");
      x.sendResponseHeaders(200, b.length);
      x.getResponseBody().write(b);
    };
  }

  /** Headers, then nothing for a long time. */
  static Answer stall() {
    return x -> {
      x.sendResponseHeaders(200, 1_000);
      x.getResponseBody().flush();
      Thread.sleep(60_000);
    };
  }

  /** A byte now and then. */
  static Answer drip() {
    return x -> {
      x.sendResponseHeaders(200, 100_000);
      OutputStream out = x.getResponseBody();
      for (int i = 0; i < 600; i++) {
        out.write(' ');
        out.flush();
        Thread.sleep(100);
      }
    };
  }

  static Answer endless() {
    return x -> {
      x.sendResponseHeaders(200, 0);
      byte[] spaces = " ".repeat(1 << 16).getBytes(StandardCharsets.US_ASCII);
      while (true) {
        x.getResponseBody().write(spaces);
      }
    };
  }

  @Override
  public void close() {
    server.stop(0);
  }
}
