package org.zephyrmist.server.tool;

import static org.zephyrmist.server.db.Tables.RELINK_RULE;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.VERSION_LINK;
import static org.zephyrmist.server.db.Tables.VERSION_LOOKED;

import java.time.Clock;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.delivery.Becoming;
import org.zephyrmist.core.tool.AddressPattern;
import org.zephyrmist.core.tool.RelinkRule;
import org.zephyrmist.core.tool.RelinkRule.Limits;
import org.zephyrmist.core.tool.RelinkRule.Link;
import org.zephyrmist.core.tool.RelinkRules;
import org.zephyrmist.core.tool.RelinkedItem;
import org.zephyrmist.core.tool.RelinkedTree;
import org.zephyrmist.core.tool.SectionPlace;
import org.zephyrmist.core.tool.Template;
import org.zephyrmist.core.tree.Tree;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.db.tables.records.RelinkRuleRecord;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Relink rules as they are kept, and what versions become by them in a section. */
@Component
public class Relinking {
  private static final TypeReference<TreeMap<String, String>> PARAMETERS = new TypeReference<>() {};
  private final DSLContext db;
  private final Trees trees;
  private final FindLinks find;
  private final ToolSections sections;
  private final JsonMapper json;
  private final Clock clock;

  Relinking(
      DSLContext db,
      Trees trees,
      FindLinks find,
      ToolSections sections,
      JsonMapper json,
      Clock clock) {
    this.db = db;
    this.trees = trees;
    this.find = find;
    this.sections = sections;
    this.json = json;
    this.clock = clock;
  }

  /** In their order. */
  RelinkRules rules() {
    return new RelinkRules(db.selectFrom(RELINK_RULE).orderBy(RELINK_RULE.PLACE).fetch(this::rule));
  }

  private RelinkRule rule(RelinkRuleRecord r) {
    Map<String, Optional<Template>> parameters = new TreeMap<>();
    json.readValue(r.getParameters().data(), PARAMETERS)
        .forEach(
            (name, value) ->
                parameters.put(
                    name, Optional.of(value).filter(v -> !v.isEmpty()).map(Template::new)));
    return new RelinkRule(
        r.getId().toString(),
        new AddressPattern(r.getFromPattern()),
        new Template(r.getToTemplate()),
        parameters,
        new Limits(
            texts(r.getMasters()),
            texts(r.getTerms()),
            Set.of(r.getCampuses()),
            Optional.ofNullable(r.getFromDay()),
            Optional.ofNullable(r.getUntilDay())));
  }

  private static Set<String> texts(UUID[] ids) {
    return Arrays.stream(ids).map(UUID::toString).collect(Collectors.toSet());
  }

  /** Rules, and since when each is there. */
  Dated dated() {
    Map<String, OffsetDateTime> made = new HashMap<>();
    db.select(RELINK_RULE.ID, RELINK_RULE.MADE_AT)
        .from(RELINK_RULE)
        .forEach(r -> made.put(r.value1().toString(), r.value2()));
    return new Dated(rules(), made);
  }

  /**
   * @param made by the id of a rule, since when it is there
   */
  record Dated(RelinkRules rules, Map<String, OffsetDateTime> made) {
    /** Whether links of a host can have been written otherwise. */
    boolean about(String host) {
      return rules.hosts().contains(host);
    }

    /** What a link became when it was delivered: by the rules that were there by then. */
    Link at(OffsetDateTime delivered, Link link, String master, SectionPlace place) {
      RelinkRules then =
          new RelinkRules(
              rules.rules().stream().filter(r -> !made.get(r.id()).isAfter(delivered)).toList());
      return then.of(link, master, place, delivered.toLocalDate()).link();
    }
  }

  LocalDate today() {
    return LocalDate.now(clock);
  }

  /**
   * What a version becomes in a section.
   *
   * @param tree what it means there but for its links; its forms are kept
   */
  public RelinkedTree of(UUID version, UUID master, Tree tree, UUID section) {
    RelinkRules rules = rules();
    List<Item> items = linking(version, tree, rules);
    if (items.isEmpty()) {
      return new RelinkedTree(tree, List.of());
    }
    SectionPlace place = sections.where(SECTION.ID.eq(section)).get(0).place();
    LocalDate day = today();
    return RelinkedTree.of(
        tree, items, link -> rules.of(link, master.toString(), place, day).link());
  }

  /**
   * What items of a version become in sections.
   *
   * @param at the sections, by their places
   */
  public Becoming becoming(UUID version, UUID master, Tree tree, List<UUID> at) {
    RelinkRules rules = rules();
    List<Item> items = linking(version, tree, rules);
    if (items.isEmpty()) {
      return Becoming.AS_SAID;
    }
    Map<UUID, SectionPlace> places = new HashMap<>();
    sections.where(SECTION.ID.in(at)).forEach(s -> places.put(s.id(), s.place()));
    LocalDate day = today();
    Map<ItemKey, RelinkedItem> known = new HashMap<>();
    items.forEach(i -> known.put(i.key(), new RelinkedItem(i)));
    return (item, section) ->
        Optional.ofNullable(known.get(item.key()))
            .map(i -> i.by(l -> rules.of(l, "" + master, places.get(at.get(section)), day).link()))
            .orElse(item.aspects());
  }

  /** Items with links that rules are about. */
  private List<Item> linking(UUID version, Tree tree, RelinkRules rules) {
    if (rules.rules().isEmpty()) {
      return List.of();
    }
    if (!db.fetchExists(VERSION_LOOKED, VERSION_LOOKED.VERSION_ID.eq(version))) {
      find.run(version);
    }
    Set<String> linking =
        db.selectDistinct(VERSION_LINK.ITEM_KEY)
            .from(VERSION_LINK)
            .where(VERSION_LINK.VERSION_ID.eq(version))
            .and(VERSION_LINK.HOST.in(rules.hosts()))
            .fetchSet(VERSION_LINK.ITEM_KEY);
    return trees.items(
        tree.nodes().stream().filter(n -> linking.contains(n.key().value())).toList());
  }
}
