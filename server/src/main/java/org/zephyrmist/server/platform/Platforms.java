package org.zephyrmist.server.platform;

import static org.zephyrmist.server.db.Tables.CAMPUS;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;
import static org.zephyrmist.server.db.Tables.PLATFORM;
import static org.zephyrmist.server.db.Tables.PLATFORM_CAMPUS;
import static org.zephyrmist.server.db.Tables.SECTION;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.JSONB;
import org.jooq.impl.DSL;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.content.Addresses;
import org.zephyrmist.core.delivery.LineState;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.content.Files;
import org.zephyrmist.server.db.tables.records.PlatformRecord;
import org.zephyrmist.server.outgoing.GuardedClient;
import org.zephyrmist.server.secret.Secrets;
import org.zephyrmist.server.web.Refusal;
import tools.jackson.databind.json.JsonMapper;

/** Platforms that were named, and the tie between sections and their shells. */
@Component
public class Platforms {
  private final DSLContext db;
  private final JsonMapper json;
  private final Settings settings;
  private final Secrets secrets;
  private final GuardedClient client;
  private final KeptShells kept;
  private final KeptWrites keptWrites;
  private final Files files;
  private final Map<String, Breaker> breakers = new ConcurrentHashMap<>();

  Platforms(
      DSLContext db,
      JsonMapper json,
      Settings settings,
      Secrets secrets,
      GuardedClient client,
      KeptShells kept,
      KeptWrites keptWrites,
      Files files) {
    this.kept = kept;
    this.keptWrites = keptWrites;
    this.files = files;
    this.client = client;
    this.db = db;
    this.json = json;
    this.settings = settings;
    this.secrets = secrets;
  }

  public PlatformGateway gateway(UUID platform) {
    return db.selectFrom(PLATFORM)
        .where(PLATFORM.ID.eq(platform))
        .fetchSingle(
            r ->
                r.getAddress() == null
                    ? new PackagePlatform(platform, false, db, kept, keptWrites, files)
                    : gateway(r.getAddress(), secrets.open(r.getToken())));
  }

  /** The way to shells as they will be once their packages are brought in. */
  public PlatformGateway meant(UUID platform) {
    return new PackagePlatform(platform, true, db, kept, keptWrites, files);
  }

  private PlatformGateway gateway(String address, String token) {
    Breaker breaker = breakers.computeIfAbsent(address, a -> new Breaker(a, settings.firstPause()));
    HttpCalls calls = new HttpCalls(client, json, address, token, settings, breaker);
    return new HttpPlatform(calls, json, settings);
  }

  /** Where people find a shell; nowhere that is known if its platform has no interface. */
  public static Optional<String> shell(String platform, String shell) {
    return Optional.ofNullable(platform).map(p -> HttpAddresses.shell(p, shell));
  }

  /** Where people find an item of a shell. */
  public static Optional<String> item(String platform, String shell, String item) {
    return Optional.ofNullable(platform)
        .map(p -> p + HttpAddresses.SAME_EVERYWHERE.item(shell, item, ""));
  }

  /** Names a platform, after it has answered with this token. */
  public UUID add(String name, String given, String token) {
    String address = address(given);
    fresh(name);
    answers(address, token);
    UUID id = UUID.randomUUID();
    db.insertInto(PLATFORM)
        .set(PLATFORM.ID, id)
        .set(PLATFORM.NAME, name)
        .set(PLATFORM.ADDRESS, address)
        .set(PLATFORM.TOKEN, secrets.close(token))
        .execute();
    tie(id);
    return id;
  }

  private void fresh(String name) {
    if (db.fetchExists(PLATFORM, PLATFORM.NAME.eq(name))) {
      throw new Refusal(
          HttpStatus.CONFLICT, "There is a platform " + name + ".", "Choose another name.");
    }
  }

  /**
   * Names a platform that has no interface.
   *
   * @param named campuses, by sourced id, whose sections have their shells there
   * @throws Refusal if one of them is no campus, or has its shells on another
   */
  @Transactional
  public UUID addByPackages(String name, Set<String> named) {
    fresh(name);
    List<UUID> campuses =
        db.select(CAMPUS.ID).from(CAMPUS).where(CAMPUS.SOURCED_ID.in(named)).fetch(CAMPUS.ID);
    if (campuses.size() < named.size()) {
      throw Refusal.bad("There is no such campus.", "Take the roster in that names it.");
    }
    if (db.fetchExists(PLATFORM_CAMPUS, PLATFORM_CAMPUS.CAMPUS_ID.in(campuses))) {
      throw new Refusal(
          HttpStatus.CONFLICT,
          "One of these campuses has its shells on another platform without an interface.",
          "Choose the others.");
    }
    UUID id = UUID.randomUUID();
    db.insertInto(PLATFORM).set(PLATFORM.ID, id).set(PLATFORM.NAME, name).execute();
    for (UUID c : campuses) {
      db.insertInto(PLATFORM_CAMPUS)
          .set(PLATFORM_CAMPUS.CAMPUS_ID, c)
          .set(PLATFORM_CAMPUS.PLATFORM_ID, id)
          .execute();
    }
    tie(id);
    return id;
  }

  /** What the sheets with its packages say. */
  public SheetWords sheet(UUID id) {
    String kept = platform(id).getSheet().data();
    return kept.equals("{}") ? SheetWords.NONE : json.readValue(kept, SheetWords.class);
  }

  /** What the sheets with its packages say from now on; gives the platform's name. */
  public String sheet(UUID id, SheetWords words) {
    db.update(PLATFORM)
        .set(PLATFORM.SHEET, JSONB.valueOf(json.writeValueAsString(words)))
        .where(PLATFORM.ID.eq(id))
        .execute();
    return platform(id).getName();
  }

  /** Calls go to paths below it, so it can have neither query nor fragment, nor a person's name. */
  private static String address(String given) {
    String address = given.strip().replaceFirst("/+$", "");
    boolean plain = address.chars().noneMatch(c -> c == '?' || c == '#' || c == '@');
    if (!plain || !Addresses.isWeb(address)) {
      throw Refusal.bad(
          "This is no address of a platform.",
          "Write one like https://platform.example, without ?, # and @.");
    }
    return address;
  }

  private void answers(String address, String token) {
    try {
      gateway(address, token).shells();
    } catch (PlatformException e) {
      throw Refusal.bad(e.getMessage(), e.remedy());
    }
  }

  /** Another token, after the platform has answered with it. */
  public String renew(UUID id, String token) {
    PlatformRecord p = platform(id);
    if (p.getAddress() == null) {
      throw Refusal.bad(p.getName() + " has no interface.", "It needs no token.");
    }
    answers(p.getAddress(), token);
    db.update(PLATFORM)
        .set(PLATFORM.TOKEN, secrets.close(token))
        .where(PLATFORM.ID.eq(id))
        .execute();
    return p.getName();
  }

  /**
   * Nothing is sent to the platform any more; what its shells hold and what the ledger knows stay.
   *
   * @throws Refusal while a delivery is under way in one of its shells
   */
  @Transactional
  public String end(UUID id) {
    PlatformRecord p = platform(id);
    boolean busy =
        db.fetchExists(
            db.selectOne()
                .from(SECTION)
                .where(SECTION.PLATFORM_ID.eq(id))
                .and(
                    SECTION
                        .BUSY_LINE
                        .isNotNull()
                        .or(
                            SECTION.ID.in(
                                DSL.select(DELIVERY_LINE.SECTION_ID)
                                    .from(DELIVERY_LINE)
                                    .where(DELIVERY_LINE.STATE.in(LineState.UNDER_WAY))))));
    if (busy) {
      throw new Refusal(
          HttpStatus.CONFLICT,
          "A delivery to shells of " + p.getName() + " is under way.",
          "Stop it, or wait until it has ended.");
    }
    db.update(SECTION)
        .setNull(SECTION.PLATFORM_ID)
        .setNull(SECTION.SHELL)
        .where(SECTION.PLATFORM_ID.eq(id))
        .execute();
    db.deleteFrom(PLATFORM).where(PLATFORM.ID.eq(id)).execute();
    return p.getName();
  }

  private PlatformRecord platform(UUID id) {
    return db.selectFrom(PLATFORM)
        .where(PLATFORM.ID.eq(id))
        .fetchOptional()
        .orElseThrow(() -> Refusal.notFound("platform"));
  }

  public List<UUID> all() {
    return db.select(PLATFORM.ID).from(PLATFORM).fetch(PLATFORM.ID);
  }

  public void tieAll() {
    all().forEach(this::tie);
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
