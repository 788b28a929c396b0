package org.zephyrmist.server.picking;

import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.PICKING;

import java.io.IOException;
import java.math.BigDecimal;
import java.net.URLEncoder;
import java.net.http.HttpRequest;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.jooq.JSONB;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.Grading;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Launch;
import org.zephyrmist.core.lti.AuthenticationRequest;
import org.zephyrmist.core.lti.Login;
import org.zephyrmist.core.lti.Messages;
import org.zephyrmist.core.lti.OidcError;
import org.zephyrmist.core.lti.Picked;
import org.zephyrmist.core.lti.Registration;
import org.zephyrmist.core.tool.BasicLaunch.Course;
import org.zephyrmist.core.tool.BasicLaunch.Person;
import org.zephyrmist.core.tool.BasicLaunch.Role;
import org.zephyrmist.core.tool.Template;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.db.tables.records.MasterRecord;
import org.zephyrmist.server.db.tables.records.PickingRecord;
import org.zephyrmist.server.master.Drafts;
import org.zephyrmist.server.outgoing.GuardedClient;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.tool.PickingTools;
import org.zephyrmist.server.tool.PickingTools.PickingTool;
import org.zephyrmist.server.tool.PlatformKey;
import org.zephyrmist.server.tool.ToolAddresses;
import org.zephyrmist.server.web.Refusal;
import tools.jackson.databind.json.JsonMapper;

/** Picks: begun for a draft, asked for by the tool, answered once, and taken by whoever began. */
@Component
class Picks {
  private static final Duration VALID = Duration.ofHours(8);
  private final DSLContext db;
  private final PickingTools tools;
  private final ToolAddresses where;
  private final PlatformKey key;
  private final Drafts drafts;
  private final GuardedClient client;
  private final Settings settings;
  private final JsonMapper json;
  private final Clock clock;

  Picks(
      DSLContext db,
      PickingTools tools,
      ToolAddresses where,
      PlatformKey key,
      Drafts drafts,
      GuardedClient client,
      Settings settings,
      JsonMapper json,
      Clock clock) {
    this.db = db;
    this.tools = tools;
    this.where = where;
    this.key = key;
    this.drafts = drafts;
    this.client = client;
    this.settings = settings;
    this.json = json;
    this.clock = clock;
  }

  /**
   * @param parent module that it is for; none for the top
   * @return the address of the tool at which it goes on
   */
  @Transactional
  public String begin(
      MasterRecord master, UUID connection, Optional<ItemKey> parent, SignedIn who) {
    Registration r = tools.get(connection).registration();
    if (!new Template(r.deployment()).names().isEmpty()) {
      throw Refusal.bad(
          "This tool has a deployment for each section, and a draft is in none.",
          "Have an administrator enter one for the whole college.");
    }
    db.deleteFrom(PICKING)
        .where(PICKING.BEGAN_AT.lt(OffsetDateTime.now(clock).minus(VALID)))
        .execute();
    UUID id = UUID.randomUUID();
    PickingRecord p = db.newRecord(PICKING);
    p.setId(id);
    p.setConnectionId(connection);
    p.setMasterId(master.getId());
    p.setParent(parent.map(ItemKey::value).orElse(null));
    p.setPersonId(who.id());
    p.setDeployment(r.deployment());
    p.setBeganAt(OffsetDateTime.now(clock));
    p.insert();
    Login login = new Login(where.issuer(), r.launches().get(0), r, id.toString(), "pick");
    return where.where(r.login())
        + (r.login().contains("?") ? "&" : "?")
        + login.parameters().entrySet().stream()
            .map(e -> e.getKey() + "=" + URLEncoder.encode(e.getValue(), StandardCharsets.UTF_8))
            .collect(Collectors.joining("&"));
  }

  /**
   * A message as it is posted to the tool.
   *
   * @param to where it is posted
   */
  record Message(String to, Map<String, String> form) {}

  /** Answers the tool's request, once; whoever began it is who it is about. */
  @Transactional
  public Message message(Map<String, String> sent, SignedIn who) {
    PickingRecord p =
        id(sent.getOrDefault("login_hint", ""))
            .flatMap(
                id -> db.selectFrom(PICKING).where(PICKING.ID.eq(id)).forUpdate().fetchOptional())
            .filter(x -> x.getPersonId().equals(who.id()))
            .orElseThrow(() -> new OidcError("login_required", "You have not begun this."));
    if (p.getAskedAt() != null) {
      throw new OidcError("login_required", "This was asked for before. Begin once more.");
    }
    PickingTool tool = tools.get(p.getConnectionId());
    AuthenticationRequest a = AuthenticationRequest.of(sent, tool.registration());
    p.setAskedAt(OffsetDateTime.now(clock));
    p.update();
    MasterRecord m = master(p);
    Map<String, Object> claims =
        new Messages(where.issuer(), tool.registration(), a.nonce(), clock.instant())
            .deepLinking(
                tool.registration().launches().get(0),
                new Course(m.getId().toString(), m.getCode(), m.getTitle()),
                new Person(who.id().toString(), who.name(), who.getUsername(), Role.INSTRUCTOR),
                tool.privacy(),
                p.getId().toString(),
                where.picked() + "/" + p.getId());
    return new Message(
        where.where(a.redirect()).toString(),
        new TreeMap<>(Map.of("id_token", key.get().signed(claims), "state", a.state())));
  }

  private MasterRecord master(PickingRecord p) {
    return db.fetchSingle(MASTER, MASTER.ID.eq(p.getMasterId()));
  }

  private static Optional<UUID> id(String text) {
    try {
      return Optional.of(UUID.fromString(text));
    } catch (IllegalArgumentException none) {
      return Optional.empty();
    }
  }

  /**
   * Keeps what a tool sends, if it holds; what does not is told where it began. Nothing of a draft
   * changes.
   *
   * @return the master that it is for
   */
  UUID answered(UUID pick, String jwt) {
    PickingRecord p =
        db.fetchOptional(PICKING, PICKING.ID.eq(pick))
            .orElseThrow(() -> Refusal.notFound("picking"));
    if (p.getAskedAt() == null || p.getAnsweredAt() != null) {
      return p.getMasterId();
    }
    PickingTool tool = tools.get(p.getConnectionId());
    String trouble = "";
    JSONB picked = null;
    try {
      Picked all =
          Picked.of(
              jwt, keys(tool.registration()), tool.registration(), where.issuer(), clock.instant());
      if (!all.data().equals(pick.toString())) {
        throw new OidcError("invalid_request", "data is of another request");
      }
      picked = JSONB.valueOf(json.writeValueAsString(all));
    } catch (OidcError e) {
      trouble = tool.name() + " sent what cannot be taken: " + e.getMessage() + ".";
    }
    db.update(PICKING)
        .set(PICKING.TROUBLE, trouble)
        .set(PICKING.PICKED, picked)
        .set(PICKING.ANSWERED_AT, picked == null ? null : OffsetDateTime.now(clock))
        .where(PICKING.ID.eq(pick))
        .and(PICKING.ANSWERED_AT.isNull())
        .execute();
    return p.getMasterId();
  }

  private String keys(Registration r) {
    try {
      HttpRequest q =
          HttpRequest.newBuilder(where.where(r.keySet())).timeout(settings.toolTimeout()).build();
      return new String(client.send(q, settings.toolTimeout()).body(), StandardCharsets.UTF_8);
    } catch (IOException e) {
      throw new OidcError("invalid_request", "its keys cannot be got at " + r.keySet());
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new OidcError("temporarily_unavailable", "the server is stopping");
    }
  }

  /** What was picked, and of which tool. */
  record Answer(String tool, Picked picked, String trouble, boolean taken) {}

  Answer get(UUID pick, UUID master, SignedIn who) {
    PickingRecord p = mine(pick, master, who);
    Picked none = new Picked("", List.of(), List.of(), "");
    return new Answer(
        tools.get(p.getConnectionId()).name(),
        p.getPicked() == null ? none : json.readValue(p.getPicked().data(), Picked.class),
        p.getTrouble(),
        p.getTakenAt() != null);
  }

  private PickingRecord mine(UUID pick, UUID master, SignedIn who) {
    return db.fetchOptional(
            PICKING,
            PICKING
                .ID
                .eq(pick)
                .and(PICKING.MASTER_ID.eq(master))
                .and(PICKING.PERSON_ID.eq(who.id())))
        .orElseThrow(() -> Refusal.notFound("picking"));
  }

  /** Puts what was picked into the draft, once. */
  @Transactional
  public List<ItemKey> take(MasterRecord master, UUID pick, SignedIn who) {
    PickingRecord p = mine(pick, master.getId(), who);
    int first =
        db.update(PICKING)
            .set(PICKING.TAKEN_AT, OffsetDateTime.now(clock))
            .where(PICKING.ID.eq(pick))
            .and(PICKING.TAKEN_AT.isNull())
            .and(PICKING.PICKED.isNotNull())
            .execute();
    if (first == 0) {
      throw new Refusal(
          HttpStatus.CONFLICT, "This was taken before, or nothing came.", "Pick once more.");
    }
    Picked all = json.readValue(p.getPicked().data(), Picked.class);
    if (all.resources().isEmpty()) {
      throw Refusal.bad("Nothing was picked that a master can hold.", "Pick once more.");
    }
    return drafts.add(
        master,
        all.resources().stream().map(Picks::made).toList(),
        Optional.ofNullable(p.getParent()).map(ItemKey::new),
        who);
  }

  /** What is graded is a task that is done in the tool. */
  private static Drafts.Made made(Picked.Resource r) {
    Launch launch = new Launch(r.link().address(), false, new TreeMap<>(r.link().parameters()));
    String text = r.text().isEmpty() ? "" : "<p>" + escaped(r.text()) + "</p>";
    Content c =
        !r.tool()
            ? new Content.WebLink(r.link().address(), true)
            : r.points().isPresent()
                ? new Content.Assignment(
                    text,
                    Grading.points(BigDecimal.valueOf(r.points().get()).stripTrailingZeros()),
                    List.of(),
                    launch)
                : new Content.ToolLink(text, launch);
    return new Drafts.Made(r.title(), c);
  }

  private static String escaped(String text) {
    return text.replace("&", "&amp;").replace("<", "&lt;");
  }
}
