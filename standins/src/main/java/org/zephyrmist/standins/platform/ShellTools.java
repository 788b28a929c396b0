package org.zephyrmist.standins.platform;

import static org.zephyrmist.standins.db.Tables.ITEM;
import static org.zephyrmist.standins.db.Tables.SHELL;
import static org.zephyrmist.standins.db.Tables.TOOL_DATA;
import static org.zephyrmist.standins.db.Tables.TOOL_OPENING;

import java.math.BigDecimal;
import java.net.URI;
import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.lti.Registration;
import org.zephyrmist.standins.db.tables.records.ToolDataRecord;
import org.zephyrmist.standins.db.tables.records.ToolOpeningRecord;

/** What shells have for external tools. */
@Component
class ShellTools {
  private final DSLContext db;
  private final Scores scores;
  private final ToolTasks tasks;
  private final Clock clock;

  ShellTools(DSLContext db, Scores scores, ToolTasks tasks, Clock clock) {
    this.tasks = tasks;
    this.db = db;
    this.scores = scores;
    this.clock = clock;
  }

  /** Who wrote the data of a host. */
  enum By {
    /** It came along with a package that was brought in. */
    PACKAGE,
    PERSON,
    PROGRAM
  }

  /**
   * Data to be written.
   *
   * @param course on the tool's side, sent along; null: as it is
   * @param registration whose client is the key; null: LTI 1.1
   */
  record Data(
      String shell,
      String host,
      String key,
      String secret,
      String course,
      Registration registration) {}

  /**
   * A host in a shell.
   *
   * @param by who wrote its data; null if there are none
   * @param links that lead to it
   * @param opened when an instructor last opened a link of it; null if none did
   * @param said what the tool said then
   * @param scored when a score last came back; null if none did
   * @param outOf of how many points it was
   * @param points that it counts with here
   * @param tasks that are done in it
   */
  record Host(
      String shell,
      String host,
      boolean support,
      int links,
      By by,
      OffsetDateTime opened,
      String said,
      String course,
      OffsetDateTime scored,
      BigDecimal outOf,
      BigDecimal points,
      List<ToolTasks.Task> tasks) {}

  /** Every host that a link of these shells leads to, or whose data they have. */
  List<Host> of(Collection<String> shells) {
    Map<String, Boolean> support =
        db.select(SHELL.ID, SHELL.TOOLS)
            .from(SHELL)
            .where(SHELL.ID.in(shells))
            .fetchMap(SHELL.ID, SHELL.TOOLS);
    Map<String, Map<String, ToolDataRecord>> data = new HashMap<>();
    db.selectFrom(TOOL_DATA)
        .where(TOOL_DATA.SHELL_ID.in(shells))
        .forEach(
            d -> data.computeIfAbsent(d.getShellId(), s -> new HashMap<>()).put(d.getHost(), d));
    Map<String, Map<String, ToolOpeningRecord>> opened = new HashMap<>();
    db.selectFrom(TOOL_OPENING)
        .where(TOOL_OPENING.SHELL_ID.in(shells))
        .and(TOOL_OPENING.ROLE.eq("INSTRUCTOR"))
        .orderBy(TOOL_OPENING.ID)
        .forEach(
            o -> opened.computeIfAbsent(o.getShellId(), s -> new HashMap<>()).put(o.getHost(), o));
    Map<String, Scores.Last> scores = this.scores.last(shells);
    Map<String, List<ToolTasks.Task>> tasks = this.tasks.of(shells);
    Map<String, Map<String, Integer>> hosts = new HashMap<>();
    data.forEach(
        (s, d) ->
            d.keySet().forEach(h -> hosts.computeIfAbsent(s, x -> new TreeMap<>()).put(h, 0)));
    db.select(ITEM.SHELL_ID, org.jooq.impl.DSL.field("launch ->> 'address'", String.class))
        .from(ITEM)
        .where(ITEM.SHELL_ID.in(shells))
        .and(ITEM.KIND.in("TOOL_LINK", "ASSIGNMENT"))
        .and("launch ->> 'address' is not null")
        .forEach(
            r ->
                hosts
                    .computeIfAbsent(r.value1(), x -> new TreeMap<>())
                    .merge(host(r.value2()), 1, Integer::sum));
    List<Host> all = new ArrayList<>();
    hosts.forEach(
        (s, names) ->
            names.forEach(
                (h, links) -> {
                  ToolDataRecord d = data.getOrDefault(s, Map.of()).get(h);
                  ToolOpeningRecord o = opened.getOrDefault(s, Map.of()).get(h);
                  all.add(
                      new Host(
                          s,
                          h,
                          support.getOrDefault(s, false),
                          links,
                          d == null || d.getKey().isEmpty() ? null : By.valueOf(d.getBy()),
                          o == null ? null : o.getAt(),
                          o == null ? "" : o.getSaid(),
                          d == null ? "" : d.getCourse(),
                          scores.getOrDefault(s + ' ' + h, Scores.Last.NONE).at(),
                          scores.getOrDefault(s + ' ' + h, Scores.Last.NONE).outOf(),
                          scores.getOrDefault(s + ' ' + h, Scores.Last.NONE).points(),
                          tasks.getOrDefault(s + ' ' + h, List.of())));
                }));
    return all;
  }

  static String host(String address) {
    try {
      String host = URI.create(address).getHost();
      return host == null ? "" : host.toLowerCase(Locale.ROOT);
    } catch (IllegalArgumentException noAddress) {
      return "";
    }
  }

  /** What a shell's links of a host are launched by. */
  @Transactional
  void write(List<Data> all, By by) {
    db.batchMerge(all.stream().map(d -> record(d, by)).toList()).execute();
  }

  private static ToolDataRecord record(Data d, By by) {
    ToolDataRecord r = new ToolDataRecord();
    r.setShellId(d.shell());
    r.setHost(d.host());
    r.setKey(d.key());
    r.setSecret(d.secret());
    r.setBy(by.name());
    Registration g = d.registration();
    r.setDeployment(g == null ? "" : g.deployment());
    r.setLogin(g == null ? "" : g.login());
    r.setLaunches(g == null ? new String[0] : g.launches().toArray(String[]::new));
    r.setKeySet(g == null ? "" : g.keySet());
    if (d.course() != null) {
      r.setCourse(d.course());
    }
    return r;
  }

  /** Data of a host in a shell; all empty if there are none. */
  ToolDataRecord data(String shell, String host) {
    ToolDataRecord d =
        db.fetchOne(TOOL_DATA, TOOL_DATA.SHELL_ID.eq(shell).and(TOOL_DATA.HOST.eq(host)));
    return d == null ? record(new Data(shell, host, "", "", "", null), By.PERSON) : d;
  }

  /** The registration that stands there, if one does. */
  static Optional<Registration> registration(ToolDataRecord d) {
    return d.getLogin().isEmpty()
        ? Optional.empty()
        : Optional.of(
            new Registration(
                d.getKey(),
                d.getDeployment(),
                d.getLogin(),
                List.of(d.getLaunches()),
                d.getKeySet()));
  }

  void support(Collection<String> shells, boolean on) {
    db.update(SHELL).set(SHELL.TOOLS, on).where(SHELL.ID.in(shells)).execute();
  }

  boolean support(String shell) {
    return db.fetchExists(SHELL, SHELL.ID.eq(shell).and(SHELL.TOOLS));
  }

  void opened(String shell, String host, boolean instructor, String person) {
    db.insertInto(
            TOOL_OPENING,
            TOOL_OPENING.SHELL_ID,
            TOOL_OPENING.HOST,
            TOOL_OPENING.ROLE,
            TOOL_OPENING.PERSON,
            TOOL_OPENING.AT)
        .values(
            shell, host, instructor ? "INSTRUCTOR" : "LEARNER", person, OffsetDateTime.now(clock))
        .execute();
  }

  /** An instructor's opening, and what the tool said when it was over. */
  record Opening(String shell, String host, String said) {}

  void opened(List<Opening> all) {
    OffsetDateTime now = OffsetDateTime.now(clock);
    db.batch(
            all.stream()
                .map(
                    o ->
                        db.insertInto(TOOL_OPENING)
                            .set(TOOL_OPENING.SHELL_ID, o.shell())
                            .set(TOOL_OPENING.HOST, o.host())
                            .set(TOOL_OPENING.ROLE, "INSTRUCTOR")
                            .set(TOOL_OPENING.PERSON, "An instructor")
                            .set(TOOL_OPENING.AT, now)
                            .set(TOOL_OPENING.SAID, o.said()))
                .toList())
        .execute();
  }

  /** What the tool said of the last opening, when it sent the person back. */
  void said(String shell, String host, String said) {
    db.query(
            "update tool_opening set said = ? where id ="
                + " (select max(id) from tool_opening where shell_id = ? and host = ?)",
            said,
            shell,
            host)
        .execute();
  }
}
