package org.zephyrmist.server.library;

import static org.zephyrmist.server.db.Tables.CARTRIDGE;
import static org.zephyrmist.server.db.Tables.EDITION;
import static org.zephyrmist.server.db.Tables.SECTION;

import jakarta.validation.constraints.NotNull;
import java.util.List;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.cartridge.CartridgeFacts;
import org.zephyrmist.core.cartridge.ReadingReport;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.edition.SecondLook;
import org.zephyrmist.server.content.Questions;
import org.zephyrmist.server.content.Trees;
import org.zephyrmist.server.db.tables.records.MasterRecord;
import org.zephyrmist.server.master.Masters;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.platform.PlatformGateway;
import org.zephyrmist.server.shell.Shell;
import org.zephyrmist.server.shell.ShellItems;
import org.zephyrmist.server.shell.ShellReader;
import org.zephyrmist.server.shell.Shells;
import org.zephyrmist.server.web.Refusal;
import tools.jackson.databind.json.JsonMapper;

/** Any two sources, versions or shells side by side. */
@Component
class SecondLooks {
  private final DSLContext db;
  private final Trees trees;
  private final Questions questions;
  private final Masters masters;
  private final Shells shells;
  private final ShellReader reader;
  private final Reach reach;
  private final JsonMapper json;

  SecondLooks(
      DSLContext db,
      Trees trees,
      Questions questions,
      Masters masters,
      Shells shells,
      ShellReader reader,
      Reach reach,
      JsonMapper json) {
    this.db = db;
    this.trees = trees;
    this.questions = questions;
    this.masters = masters;
    this.shells = shells;
    this.reader = reader;
    this.reach = reach;
    this.json = json;
  }

  /**
   * What is known of a source besides its items; what is not known is empty.
   *
   * @param standard as which a package was written
   * @param asks what it asks for before it may be used
   * @param dead references that lead nowhere
   */
  record About(
      @NotNull String title,
      @NotNull String maker,
      @NotNull String licence,
      @NotNull String cost,
      @NotNull String standard,
      @NotNull String asks,
      int dead) {}

  record Side(About about, SecondLook.Source source) {}

  /** The side that a text names: {@code edition:ID}, {@code master:ID:N} or {@code section:ID}. */
  Side side(String named, SignedIn who) {
    String[] parts = named.split(":");
    try {
      UUID id = UUID.fromString(parts[1]);
      return switch (parts[0]) {
        case "edition" -> edition(id);
        case "master" -> master(id, parts.length > 2 ? Integer.parseInt(parts[2]) : 0, who);
        case "section" -> section(id, who);
        default -> throw new IllegalArgumentException();
      };
    } catch (IllegalArgumentException | ArrayIndexOutOfBoundsException e) {
      throw Refusal.bad(
          "“" + named + "” names no source.",
          "Name an edition:ID, a master:ID:VERSION or a section:ID.");
    }
  }

  private Side edition(UUID id) {
    return db.select(EDITION.fields())
        .select(CARTRIDGE.TITLE)
        .from(EDITION)
        .join(CARTRIDGE)
        .on(CARTRIDGE.ID.eq(EDITION.CARTRIDGE_ID))
        .where(EDITION.ID.eq(id))
        .fetchOptional(
            r -> {
              ReadingReport report =
                  json.readValue(r.get(EDITION.REPORT).data(), ReadingReport.class);
              CartridgeFacts f = report.facts();
              return new Side(
                  new About(
                      r.get(CARTRIDGE.TITLE) + ", edition " + r.get(EDITION.NUMBER),
                      f.publisher(),
                      f.rights(),
                      f.cost(),
                      f.profile(),
                      f.asks(),
                      report.deadReferences().size()),
                  source(r.get(EDITION.TREE_ID)));
            })
        .orElseThrow(() -> Refusal.notFound("edition"));
  }

  private Side master(UUID id, int version, SignedIn who) {
    MasterRecord m = masters.get(id, who);
    String which = version == 0 ? "draft" : "version " + version;
    return new Side(plain(m.getCode() + ", " + which), source(masters.tree(m, version)));
  }

  private Side section(UUID id, SignedIn who) {
    String code =
        db.select(SECTION.CODE)
            .from(SECTION)
            .where(SECTION.ID.eq(id))
            .and(reach.sections(who))
            .fetchOptional(SECTION.CODE)
            .orElseThrow(() -> Refusal.notFound("section"));
    Shell shell = shells.of(id);
    PlatformGateway gateway = shells.gateway(shell);
    List<Item> items =
        ShellItems.outline(reader.read(gateway, shell), gateway.addresses(), shell.there()).stream()
            .map(ShellItems.Placed::item)
            .toList();
    return new Side(
        plain("The shell of " + code), new SecondLook.Source(items, questions.of(items)));
  }

  private static About plain(String title) {
    return new About(title, "", "", "", "", "", 0);
  }

  private SecondLook.Source source(UUID tree) {
    List<Item> items = trees.items(trees.tree(tree).nodes());
    return new SecondLook.Source(items, questions.of(items));
  }
}
