package org.zephyrmist.standins.platform;

import static org.zephyrmist.standins.db.Tables.ITEM;
import static org.zephyrmist.standins.db.Tables.SHELL;
import static org.zephyrmist.standins.db.Tables.TOOL_DATA;
import static org.zephyrmist.standins.db.Tables.TOOL_OPENING;

import java.net.URI;
import java.time.Clock;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.standins.db.tables.records.ToolDataRecord;
import org.zephyrmist.standins.db.tables.records.ToolOpeningRecord;

/** What shells have for external tools. */
@Component
class ShellTools {
  private final DSLContext db;
  private final Clock clock;

  ShellTools(DSLContext db, Clock clock) {
    this.db = db;
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
   */
  record Data(String shell, String host, String key, String secret, String course) {}

  /**
   * A host in a shell.
   *
   * @param by who wrote its data; null if there are none
   * @param links that lead to it
   * @param opened when an instructor last opened a link of it; null if none did
   * @param said what the tool said then
   */
  record Host(
      String shell,
      String host,
      boolean support,
      int links,
      By by,
      OffsetDateTime opened,
      String said,
      String course) {}

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
    Map<String, Map<String, Integer>> hosts = new HashMap<>();
    data.forEach(
        (s, d) ->
            d.keySet().forEach(h -> hosts.computeIfAbsent(s, x -> new TreeMap<>()).put(h, 0)));
    db.select(ITEM.SHELL_ID, org.jooq.impl.DSL.field("launch ->> 'address'", String.class))
        .from(ITEM)
        .where(ITEM.SHELL_ID.in(shells))
        .and(ITEM.KIND.eq("TOOL_LINK"))
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
                          d == null ? "" : d.getCourse()));
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

  @Transactional
  void write(List<Data> all, By by) {
    db.batch(
            all.stream()
                .map(
                    d -> {
                      var insert =
                          db.insertInto(TOOL_DATA)
                              .values(
                                  d.shell(),
                                  d.host(),
                                  d.key(),
                                  d.secret(),
                                  by.name(),
                                  d.course() == null ? "" : d.course())
                              .onConflict(TOOL_DATA.SHELL_ID, TOOL_DATA.HOST)
                              .doUpdate()
                              .set(TOOL_DATA.KEY, d.key())
                              .set(TOOL_DATA.SECRET, d.secret())
                              .set(TOOL_DATA.BY, by.name());
                      return d.course() == null ? insert : insert.set(TOOL_DATA.COURSE, d.course());
                    })
                .toList())
        .execute();
  }

  ToolDataRecord data(String shell, String host) {
    ToolDataRecord d =
        db.fetchOne(TOOL_DATA, TOOL_DATA.SHELL_ID.eq(shell).and(TOOL_DATA.HOST.eq(host)));
    return d == null ? new ToolDataRecord(shell, host, "", "", "PERSON", "") : d;
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
