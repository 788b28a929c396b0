package org.zephyrmist.standins;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.URLDecoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.boot.test.context.SpringBootTest.WebEnvironment;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;
import org.zephyrmist.core.lti.AuthenticationRequest;
import org.zephyrmist.core.lti.Login;
import org.zephyrmist.core.lti.Messages;
import org.zephyrmist.core.lti.Picked;
import org.zephyrmist.core.lti.Registration;
import org.zephyrmist.core.lti.SigningKey;
import org.zephyrmist.core.tool.BasicLaunch;
import org.zephyrmist.core.tool.BasicLaunch.Role;
import org.zephyrmist.core.tool.Privacy;
import org.zephyrmist.core.tool.RelinkRule.Link;
import org.zephyrmist.standins.tool.ToolsApplication;

/** The practice tool that is registered, met as a platform meets it. */
@SpringBootTest(classes = ToolsApplication.class, webEnvironment = WebEnvironment.RANDOM_PORT)
class PracticeRegistrationIT {
  private static final String TARGET = "https://flyfloor.example/r/drill";
  private static final Registration FLYFLOOR =
      new Registration(
          "larkmoor-it",
          "d1",
          "https://flyfloor.example/login",
          List.of("https://flyfloor.example/launch"),
          "https://flyfloor.example/keys");
  private final HttpClient client = HttpClient.newHttpClient();
  private static final SigningKey KEY = SigningKey.generated("p1");
  private HttpServer keys;
  @LocalServerPort int port;

  @DynamicPropertySource
  static void database(DynamicPropertyRegistry r) {
    PracticePlatformIT.database(r);
  }

  @BeforeEach
  void registered() throws Exception {
    keys = HttpServer.create(new InetSocketAddress("127.0.0.1", 0), 0);
    keys.createContext(
        "/keys",
        x -> {
          byte[] set = KEY.publicSet().getBytes(StandardCharsets.UTF_8);
          x.sendResponseHeaders(200, set.length);
          x.getResponseBody().write(set);
          x.close();
        });
    keys.start();
    String body =
        ("{'issuer':'%s','client':'larkmoor-it','deployments':['d1','d2'],'keys':'%s/keys',"
                + "'authorize':'%s/authorize','token':'%s/token'}")
            .formatted(issuer(), issuer(), issuer(), issuer())
            .replace('\'', '"');
    HttpRequest r =
        HttpRequest.newBuilder(URI.create(here() + "/api/flyfloor.example/platforms"))
            .header("Authorization", "Bearer practice-token")
            .header("Content-Type", "application/json")
            .PUT(HttpRequest.BodyPublishers.ofString(body))
            .build();
    assertThat(client.send(r, HttpResponse.BodyHandlers.discarding()).statusCode()).isEqualTo(200);
  }

  @AfterEach
  void end() {
    keys.stop(0);
  }

  private String here() {
    return "http://127.0.0.1:" + port;
  }

  private String issuer() {
    return "http://127.0.0.1:" + keys.getAddress().getPort();
  }

  private HttpResponse<String> post(String path, Map<String, String> form) throws Exception {
    return Forms.post(here() + path, form);
  }

  private AuthenticationRequest login() throws Exception {
    HttpResponse<String> r =
        post(
            "/at/flyfloor.example/login",
            new Login(issuer(), TARGET, FLYFLOOR, "h1", "m1").parameters());
    URI to = URI.create(r.headers().firstValue("Location").orElseThrow());
    assertThat(to.toString()).startsWith(issuer() + "/authorize?");
    Map<String, String> sent = new HashMap<>();
    for (String p : to.getRawQuery().split("&")) {
      int eq = p.indexOf('=');
      sent.put(p.substring(0, eq), URLDecoder.decode(p.substring(eq + 1), StandardCharsets.UTF_8));
    }
    return AuthenticationRequest.of(sent, FLYFLOOR);
  }

  private Map<String, Object> claims(AuthenticationRequest a, Role role) {
    BasicLaunch launch =
        new BasicLaunch(
            new Link(TARGET, new TreeMap<>()),
            "p7",
            "Fly cue drill",
            new BasicLaunch.Course("c1", "110-03", "Stage lighting"),
            new BasicLaunch.Person("u9", "Agnes Pell", "", role),
            new Privacy(true, false),
            Optional.empty(),
            "larkmoor",
            Optional.empty());
    return new Messages(issuer(), FLYFLOOR, a.nonce(), Instant.now())
        .resourceLink(launch, Optional.empty());
  }

  private HttpResponse<String> launched(AuthenticationRequest a, Map<String, Object> claims)
      throws Exception {
    return post(
        "/at/flyfloor.example/launch", Map.of("id_token", KEY.signed(claims), "state", a.state()));
  }

  @Test
  void whoComesByItsRegistrationIsIn() throws Exception {
    AuthenticationRequest a = login();
    HttpResponse<String> r = launched(a, claims(a, Role.INSTRUCTOR));
    assertThat(r.statusCode()).isEqualTo(200);
    assertThat(r.body()).contains("Agnes Pell", "as instructor", "110-03");
  }

  @ParameterizedTest
  @CsvSource({
    "iss, https://else.example, iss is not the platform",
    "aud, another, aud is not this client",
    "azp, another, azp is not this client",
    "nonce, n2, nonce is another one",
    "exp, 1, has expired",
    "iat, 1, not of now",
    "https://purl.imsglobal.org/spec/lti/claim/version, 1.2, version is not 1.3.0",
    "https://purl.imsglobal.org/spec/lti/claim/deployment_id, d9, The deployment d9 is not known",
    "https://purl.imsglobal.org/spec/lti/claim/message_type, Other, message_type is none",
    "https://purl.imsglobal.org/spec/lti/claim/resource_link, p7, resource_link has no id",
    "https://purl.imsglobal.org/spec/lti/claim/roles, Learner, roles are missing"
  })
  void eachClaimThatDoesNotHoldIsRefusedWithItsReason(String claim, String value, String said)
      throws Exception {
    AuthenticationRequest a = login();
    Map<String, Object> spoilt = claims(a, Role.INSTRUCTOR);
    spoilt.put(claim, value.matches("\\d+") ? (Object) Long.valueOf(value) : value);
    HttpResponse<String> r = launched(a, spoilt);
    assertThat(r.statusCode()).isEqualTo(403);
    assertThat(r.body()).contains(said);
  }

  @Test
  void theSameLaunchDoesNotComeTwice() throws Exception {
    AuthenticationRequest a = login();
    launched(a, claims(a, Role.LEARNER));
    assertThat(launched(a, claims(a, Role.LEARNER)).body()).contains("used before");
  }

  @Test
  void anotherKeyIsRefused() throws Exception {
    AuthenticationRequest a = login();
    String forged = SigningKey.generated("p1").signed(claims(a, Role.LEARNER));
    HttpResponse<String> r =
        post("/at/flyfloor.example/launch", Map.of("id_token", forged, "state", a.state()));
    assertThat(r.body()).contains("The signature is wrong");
    AuthenticationRequest b = login();
    String unknown = SigningKey.generated("p9").signed(claims(b, Role.LEARNER));
    r = post("/at/flyfloor.example/launch", Map.of("id_token", unknown, "state", b.state()));
    assertThat(r.body()).contains("The key p9 is not in the platform");
  }

  @Test
  void aRegistrationThatItDoesNotKnowIsToldAtOnce() throws Exception {
    Map<String, String> other =
        new TreeMap<>(new Login(issuer(), TARGET, FLYFLOOR, "h1", "m1").parameters());
    other.put("client_id", "larkmoor-no");
    HttpResponse<String> r = post("/at/flyfloor.example/login", other);
    assertThat(r.statusCode()).isEqualTo(403);
    assertThat(r.body()).contains("The registration larkmoor-no of", "is not known here");
  }

  @Test
  void withoutARegistrationNobodyGetsIn() throws Exception {
    assertThat(post("/at/flyfloor.example/r/drill", Map.of("lti_version", "LTI-1p0")).statusCode())
        .isEqualTo(403);
  }

  @Test
  void whatIsPickedComesBackSigned() throws Exception {
    AuthenticationRequest a = login();
    Map<String, Object> asked =
        new Messages(issuer(), FLYFLOOR, a.nonce(), Instant.now())
            .deepLinking(
                TARGET,
                new BasicLaunch.Course("m1", "LGT 110", "Light"),
                new BasicLaunch.Person("u1", "Ines", "", Role.INSTRUCTOR),
                Privacy.NOTHING,
                "pick-7",
                issuer() + "/picked");
    String page = launched(a, asked).body();
    assertThat(page).contains("Fly cue drill", "Chart of knots");
    String back =
        post("/answer/pick", Map.of("visit", field(page, "visit"), "resource", "weights")).body();
    assertThat(back).contains("action=\"" + issuer() + "/picked\"");
    String toolKeys =
        client
            .send(
                HttpRequest.newBuilder(URI.create(here() + "/at/flyfloor.example/keys")).build(),
                HttpResponse.BodyHandlers.ofString())
            .body();
    Picked p = Picked.of(field(back, "JWT"), toolKeys, FLYFLOOR, issuer(), Instant.now());
    assertThat(p.data()).isEqualTo("pick-7");
    assertThat(p.resources())
        .singleElement()
        .satisfies(
            r -> {
              assertThat(r.title()).isEqualTo("Counterweight quiz");
              assertThat(r.points()).contains(25.0);
            });
  }

  private static String field(String page, String name) {
    Matcher m = Pattern.compile("name=\"" + name + "\" value=\"([^\"]*)\"").matcher(page);
    assertThat(m.find()).as(page).isTrue();
    return m.group(1);
  }
}
