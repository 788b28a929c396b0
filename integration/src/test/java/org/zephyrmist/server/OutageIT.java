package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.junit.jupiter.api.Test;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.boot.test.context.SpringBootTest.WebEnvironment;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.test.annotation.DirtiesContext;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;
import org.zephyrmist.stage.Postgres;

/** The database goes away and comes back: told in seconds, and nothing is HTML. */
@SpringBootTest(webEnvironment = WebEnvironment.RANDOM_PORT)
@DirtiesContext
class OutageIT {
  private static final Wire WIRE = new Wire();
  @LocalServerPort int port;

  /** Between the server and PostgreSQL; can be cut. */
  private static final class Wire {
    private final ServerSocket server;
    private final Set<Socket> open = ConcurrentHashMap.newKeySet();
    private volatile boolean cut;

    Wire() {
      try {
        server = new ServerSocket(0, 50, InetAddress.getLoopbackAddress());
      } catch (IOException e) {
        throw new IllegalStateException(e);
      }
      start(this::accept);
    }

    private static void start(Runnable r) {
      Thread t = new Thread(r);
      t.setDaemon(true);
      t.start();
    }

    private void accept() {
      while (true) {
        try {
          Socket in = server.accept();
          if (cut) {
            in.close();
            continue;
          }
          Socket out = new Socket("127.0.0.1", ServerIT.POSTGRES.port());
          open.add(in);
          open.add(out);
          start(() -> pass(in, out));
          start(() -> pass(out, in));
        } catch (IOException e) {
          return;
        }
      }
    }

    private void pass(Socket from, Socket to) {
      try (from;
          to;
          InputStream in = from.getInputStream();
          OutputStream out = to.getOutputStream()) {
        in.transferTo(out);
      } catch (IOException ended) {
        open.remove(from);
        open.remove(to);
      }
    }

    void cut(boolean now) throws IOException {
      cut = now;
      for (Socket s : open) {
        s.close();
      }
      open.clear();
    }
  }

  @DynamicPropertySource
  static void settings(DynamicPropertyRegistry r) {
    ServerIT.POSTGRES.fresh("zephyrmist_outage");
    r.add(
        "spring.datasource.url",
        () -> "jdbc:postgresql://127.0.0.1:" + WIRE.server.getLocalPort() + "/zephyrmist_outage");
    r.add("spring.datasource.username", () -> Postgres.ROLE);
    r.add("spring.datasource.password", ServerIT.POSTGRES::password);
    r.add("zephyrmist.secret", () -> "only for tests, only for tests, only for tests");
  }

  @Test
  void aDatabaseThatIsAwayIsSaidToBeSoInSecondsAndComesBack() throws Exception {
    Caller c = new Caller(port);
    c.get("/api/ready");
    String first =
        "{\"name\":\"R\",\"email\":\"r@x.example\",\"role\":\"ADMINISTRATOR\",\"password\":\"a-long-password\"}";
    assertThat(c.post("/api/first-person", first).status()).isEqualTo(201);
    c.signIn("r@x.example", "a-long-password");
    assertThat(c.get("/actuator/health/readiness").status()).isEqualTo(200);
    WIRE.cut(true);
    for (String path : List.of("/api/me", "/api/masters", "/api/ready")) {
      Instant start = Instant.now();
      Caller.Answer a = c.get(path);
      assertThat(a.status()).as(path + a.text()).isEqualTo(503);
      assertThat(a.json().path("detail").asString()).contains("database does not answer");
      assertThat(Duration.between(start, Instant.now()))
          .as(path)
          .isLessThan(Duration.ofSeconds(15));
    }
    Caller.Answer ready = c.get("/actuator/health/readiness");
    assertThat(ready.status()).isEqualTo(503);
    assertThat(ready.text()).contains("DOWN");
    for (Caller anybody : List.of(c, new Caller(port))) {
      for (String page : List.of("/", "/coverage", "/preview.css")) {
        assertThat(anybody.get(page).status()).as(page).isEqualTo(200);
      }
    }
    WIRE.cut(false);
    ServerIT.await(() -> c.get("/api/me").status(), s -> s == 200);
    assertThat(c.get("/actuator/health/readiness").status()).isEqualTo(200);
  }
}
