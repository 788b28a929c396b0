package org.zephyrmist.server.library;

import static org.zephyrmist.server.db.Tables.MASTER;

import jakarta.validation.constraints.NotNull;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.server.ledger.Standings;
import org.zephyrmist.server.library.LibraryApi.Facet;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Searches newest editions and drafts; what is found is counted in the same statement. */
@Component
class Library {
  private static final int PAGE = 100;

  /** Values of one facet that are told. */
  private static final int VALUES = 30;

  private static final String SOURCES =
      "newest as (select e.id, e.tree_id, e.number, e.report -> 'facts' as facts, c.title,"
          + " c.publisher from edition e join cartridge c on c.id = e.cartridge_id where e.number ="
          + " (select max(x.number) from edition x where x.cartridge_id = e.cartridge_id)),"
          + " sources as (select tree_id, id as edition, null::uuid as master, title || ', edition '"
          + " || number as source, coalesce(nullif(publisher, ''), 'not said') as maker,"
          + " coalesce(nullif(facts ->> 'rights', ''), 'not said') as licence,"
          + " coalesce(nullif(facts ->> 'language', ''), 'not said') as language,"
          + " coalesce(nullif(facts ->> 'level', ''), 'not said') as level,"
          + " coalesce(nullif(facts ->> 'cost', ''), 'not said') as cost, coalesce(facts ->"
          + " 'keywords' ->> 0, 'not said') as subject from newest union all select"
          + " m.draft_tree_id, null, m.id, m.code || ' ' || m.title, 'our own', 'our own', 'not"
          + " said', 'not said', 'our own', coalesce((select p.name from program p where p.id ="
          + " m.program_id), 'the whole college') from master m where m.id = any(?))";

  private static final String ITEMS =
      "every as (select s.*, t.item_key, t.kind, t.title, t.instructors_only, t.asks <> '' as asks,"
          + " coalesce(t.host, '') as host, RANK as rank from tree_item t join sources s on"
          + " s.tree_id = t.tree_id cross join asked a left join hits h on h.fingerprint ="
          + " substring(t.aspects from 1 for 32)"
          + " where FITS)";

  /** Texts that have the words, from their index; only these are weighed. */
  private static final String HITS =
      "hits as materialized (select w.fingerprint, ts_rank(w.text, a.q) as rank from words w join"
          + " asked a on w.text @@ a.q)";

  /** Only what differs from item to item, and how many each source has. */
  private static final String FOUND =
      "found as materialized (select tree_id, item_key, kind, title, instructors_only, asks, host,"
          + " rank from every where CHOSEN), per_source as materialized (select tree_id,"
          + " count(*)::int as items from found group by tree_id)";

  private final DSLContext db;
  private final Reach reach;
  private final Standings standings;
  private final JsonMapper json;

  Library(DSLContext db, Reach reach, Standings standings, JsonMapper json) {
    this.db = db;
    this.reach = reach;
    this.standings = standings;
    this.json = json;
  }

  /** A line of what was found, before its use is known. */
  record Line(
      UUID edition,
      UUID master,
      @NotNull String source,
      @NotNull String key,
      @NotNull Kind kind,
      @NotNull String title,
      boolean instructorsOnly,
      boolean asks) {}

  LibraryApi.LibraryAnswer search(String q, List<String> facets, int from, SignedIn who) {
    String text = q.strip();
    List<Object> bound = new ArrayList<>();
    String asked = asked(text, bound);
    bound.add(
        db.select(MASTER.ID)
            .from(MASTER)
            .where(reach.masters(who))
            .fetch(MASTER.ID)
            .toArray(UUID[]::new));
    String chosen = chosen(facets, bound);
    bound.add(PAGE);
    bound.add(from);
    Record r =
        db.fetchSingle(
            "with asked as ("
                + asked
                + "), "
                + HITS
                + ", "
                + SOURCES
                + ", "
                + items(text)
                + ", "
                + FOUND.replace("CHOSEN", chosen)
                + " select (select count(*)::int from found), (select coalesce(jsonb_agg(p),"
                + " '[]'::jsonb)::text from (select s.edition, s.master, s.source, f.item_key as"
                + " key, f.kind, f.title, f.instructors_only as \"instructorsOnly\", f.asks from"
                + " found f join sources s on s.tree_id = f.tree_id order by f.rank desc, f.title,"
                + " s.source, f.item_key limit ? offset ?) p), (select"
                + " coalesce(jsonb_agg(c), '[]'::jsonb)::text from ("
                + counts()
                + ") c)",
            bound.toArray());
    List<Line> lines = json.readValue(r.get(1, String.class), new TypeReference<List<Line>>() {});
    Map<String, Standings.Use> uses =
        standings.uses(lines.stream().map(Line::key).distinct().toList());
    return new LibraryApi.LibraryAnswer(
        r.get(0, Integer.class),
        lines.stream().map(l -> found(l, uses)).toList(),
        json.readValue(
            r.get(2, String.class), new TypeReference<List<LibraryApi.FacetCount>>() {}));
  }

  private static LibraryApi.FoundItem found(Line l, Map<String, Standings.Use> uses) {
    Standings.Use use = uses.getOrDefault(l.key(), Standings.Use.NONE);
    return new LibraryApi.FoundItem(
        l.edition(),
        l.master(),
        l.source(),
        l.key(),
        l.kind(),
        l.title(),
        l.instructorsOnly(),
        l.asks(),
        use.masters(),
        use.sections(),
        use.changed(),
        use.gone());
  }

  /** Words as people write them to a search, in every language that a source has. */
  private String asked(String text, List<Object> bound) {
    if (text.isEmpty()) {
      return "select null::tsquery as q, '' as part";
    }
    List<String> languages =
        db.fetch("select distinct language::text from words").map(r -> r.get(0, String.class));
    String queries =
        (languages.isEmpty() ? List.of("simple") : languages)
            .stream()
                .map(l -> "websearch_to_tsquery('" + l + "', ?)")
                .collect(Collectors.joining(" || "));
    for (int i = 0; i < Math.max(1, languages.size()); i++) {
      bound.add(text);
    }
    bound.add(text.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_"));
    return "select " + queries + " as q, ?::text as part";
  }

  private static String items(String text) {
    return text.isEmpty()
        ? ITEMS.replace("RANK", "0::real").replace("FITS", "t.kind <> 'MODULE'")
        : ITEMS
            .replace("RANK", "coalesce(h.rank, 0) + (t.title ilike '%' || a.part || '%')::int")
            .replace("FITS", "h.fingerprint is not null or t.title ilike '%' || a.part || '%'");
  }

  private static String chosen(List<String> facets, List<Object> bound) {
    StringBuilder all = new StringBuilder("true");
    for (String f : facets) {
      if (!f.isBlank()) {
        int colon = f.indexOf(':');
        Optional<Facet> facet =
            Arrays.stream(Facet.values())
                .filter(x -> colon > 0 && x.name().equals(f.substring(0, colon)))
                .findFirst();
        if (facet.isEmpty()) {
          throw Refusal.bad("“" + f + "” is no facet.", "Send it as KIND:PAGE, for instance.");
        }
        all.append(" and ").append(column(facet.get())).append(" = ?");
        bound.add(f.substring(colon + 1));
      }
    }
    return all.toString();
  }

  private static String column(Facet f) {
    return switch (f) {
      case KIND -> "kind::text";
      case AUDIENCE -> "case when instructors_only then 'instructors' else 'students' end";
      default -> f.name().toLowerCase(Locale.ROOT);
    };
  }

  /** What is the same for all items of a source is counted by sources. */
  private static String counts() {
    return Arrays.stream(Facet.values())
        .map(
            f ->
                "(select '%s' as facet, %s as value, %s::int as items from %s where %s <> ''"
                        .formatted(
                            f,
                            column(f),
                            ofItem(f) ? "count(*)" : "sum(items)",
                            ofItem(f) ? "found" : "per_source join sources using (tree_id)",
                            column(f))
                    + " group by 2 order by 3 desc, 2 limit "
                    + VALUES
                    + ")")
        .collect(Collectors.joining(" union all "));
  }

  private static boolean ofItem(Facet f) {
    return f == Facet.KIND || f == Facet.HOST || f == Facet.AUDIENCE;
  }
}
