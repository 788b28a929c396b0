package org.zephyrmist.server.platform;

import static org.zephyrmist.server.db.Tables.PLATFORM;
import static org.zephyrmist.server.db.Tables.SECTION;

import java.net.http.HttpClient;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.web.Refusal;
import tools.jackson.databind.json.JsonMapper;

/** Platforms that were named, and the tie between sections and their shells. */
@Component
public class Platforms {
  private final DSLContext db;
  private final JsonMapper json;
  private final Settings settings;
  private final Secrets secrets;
  private final HttpClient client =
      HttpClient.newBuilder()
          .version(HttpClient.Version.HTTP_1_1)
          .connectTimeout(Duration.ofSeconds(5))
          .build();

  private final Map<String, Breaker> breakers = new ConcurrentHashMap<>();

  Platforms(DSLContext db, JsonMapper json, Settings settings, Secrets secrets) {
    this.db = db;
    this.json = json;
    this.settings = settings;
    this.secrets = secrets;
  }

  public PlatformGateway gateway(UUID platform) {
    return db.selectFrom(PLATFORM)
        .where(PLATFORM.ID.eq(platform))
        .fetchSingle(r -> gateway(r.getAddress(), secrets.open(r.getToken())));
  }

  private PlatformGateway gateway(String address, String token) {
    Breaker breaker = breakers.computeIfAbsent(address, a -> new Breaker(a, settings.firstPause()));
    return new HttpPlatform(client, json, address, token, settings.callTimeout(), breaker);
  }

  /** Names a platform, after it has answered with this token. */
  public UUID add(String name, String address, String token) {
    if (db.fetchExists(PLATFORM, PLATFORM.NAME.eq(name))) {
      throw new Refusal(
          HttpStatus.CONFLICT, "There is a platform " + name + ".", "Choose another name.");
    }
    try {
      gateway(address, token).shells();
    } catch (PlatformException e) {
      throw Refusal.bad(e.getMessage(), e.remedy());
    }
    UUID id = UUID.randomUUID();
    db.insertInto(PLATFORM).values(id, name, address, secrets.close(token)).execute();
    tie(id);
    return id;
  }

  public void tieAll() {
    db.select(PLATFORM.ID).from(PLATFORM).fetch(PLATFORM.ID).forEach(this::tie);
  }

  /**
   * Ties shells to sections whose roster id is the shell's id.
   *
   * @return how many sections have a shell on this platform
   */
  public int tie(UUID platform) {
    List<PlatformGateway.Shell> shells = gateway(platform).shells();
    String[] ids = shells.stream().map(PlatformGateway.Shell::id).toArray(String[]::new);
    Integer[] students =
        shells.stream().map(PlatformGateway.Shell::students).toArray(Integer[]::new);
    return db.query(
            "update section s set platform_id = ?, shell = x.id, students = x.students"
                + " from unnest(?::text[], ?::int[]) as x (id, students)"
                + " where s.sourced_id = x.id and (s.platform_id is null or s.platform_id = ?)",
            platform,
            ids,
            students,
            platform)
        .execute();
  }

  private static final Condition UNHELD = SECTION.SHELL.isNull().and(SECTION.IN_ROSTER);

  /** How many sections of the roster no platform holds a shell for. */
  public int withoutShell() {
    return db.fetchCount(SECTION, UNHELD);
  }

  /** The first 500 of them. */
  List<PlatformApi.Unheld> unheld() {
    return db.select(SECTION.SOURCED_ID, SECTION.CODE, SECTION.TITLE)
        .from(SECTION)
        .where(UNHELD)
        .orderBy(SECTION.CODE, SECTION.ID)
        .limit(500)
        .fetch(r -> new PlatformApi.Unheld(r.value1(), r.value2(), r.value3()));
  }
}
