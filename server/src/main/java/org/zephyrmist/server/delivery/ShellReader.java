package org.zephyrmist.server.delivery;

import static org.zephyrmist.server.db.Tables.SECTION;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.content.Bodies;
import org.zephyrmist.server.db.tables.records.HoldingRecord;
import org.zephyrmist.server.db.tables.records.SectionRecord;
import org.zephyrmist.server.platform.PlatformException;
import org.zephyrmist.server.platform.PlatformGateway;
import org.zephyrmist.server.platform.Platforms;

/** Reads shells in our terms. */
@Component
class ShellReader {
  private final Platforms platforms;
  private final Ledger ledger;
  private final VersionContent versions;
  private final Bodies bodies;
  private final DSLContext db;
  private final Settings settings;

  ShellReader(
      Platforms platforms,
      Ledger ledger,
      VersionContent versions,
      Bodies bodies,
      DSLContext db,
      Settings settings) {
    this.settings = settings;
    this.platforms = platforms;
    this.ledger = ledger;
    this.versions = versions;
    this.bodies = bodies;
    this.db = db;
  }

  /** A shell as it is now, with our items in it recognised. */
  record Reading(
      List<Held> items,
      Map<String, Held> byId,
      Map<String, Map<Aspect, String>> forms,
      Map<String, String> revisions,
      String tag,
      List<HoldingRecord> holdings) {

    /** Keeps the texts of these items, so that they can be shown later. */
    void keep(Bodies bodies, Iterable<String> ids) {
      List<String> texts = new ArrayList<>();
      for (String id : ids) {
        Map<Aspect, String> f = forms.get(id);
        if (f != null) {
          texts.addAll(f.values());
        }
      }
      bodies.keep(texts);
    }
  }

  PlatformGateway gateway(SectionRecord section) {
    if (section.getShell() == null) {
      throw PlatformException.lasting(
          "This section has no shell.",
          "Have its shell created on the platform, take the roster in again, then go on.");
    }
    return platforms.gateway(section.getPlatformId());
  }

  Reading read(PlatformGateway gateway, SectionRecord section) {
    return read(gateway, section, new Ours());
  }

  /**
   * Reads with items known that the ledger has not got yet.
   *
   * @param fresh those items
   */
  Reading read(PlatformGateway gateway, SectionRecord section, Ours fresh) {
    return translate(gateway.read(section.getShell()), section, fresh);
  }

  private Reading translate(PlatformGateway.Contents contents, SectionRecord section, Ours fresh) {
    List<HoldingRecord> holdings = ledger.holdings(section.getId());
    Ours ours = Ours.of(holdings);
    ours.putAll(fresh);
    ShellTranslator translator = new ShellTranslator(section.getShell(), ours, versions.letters());
    List<Held> all = new ArrayList<>();
    Map<String, Held> byId = new LinkedHashMap<>();
    Map<String, Map<Aspect, String>> forms = new HashMap<>();
    Map<String, String> revisions = new HashMap<>();
    for (PlatformGateway.ShellItem i : contents.items()) {
      String wording = i.forms().get(Aspect.WORDING);
      ShellTranslator.Read r =
          ItemTime.within(
              settings.itemTimeout(), title(i), wording.length(), () -> translator.in(i));
      all.add(r.held());
      byId.put(i.id(), r.held());
      forms.put(i.id(), r.forms());
      revisions.put(i.id(), i.revision());
    }
    return new Reading(all, byId, forms, revisions, contents.tag(), holdings);
  }

  private static String title(PlatformGateway.ShellItem i) {
    try {
      return AspectForms.title(i.forms().get(Aspect.WORDING));
    } catch (RuntimeException odd) {
      return i.id();
    }
  }

  /** Reads a section and brings the ledger's view of it up to date. */
  void refresh(UUID section) {
    SectionRecord s = db.selectFrom(SECTION).where(SECTION.ID.eq(section)).fetchSingle();
    Reading r = read(gateway(s), s);
    seen(section, r);
  }

  void seen(UUID section, Reading r) {
    List<String> changed =
        r.holdings().stream()
            .filter(
                h -> {
                  Held held = r.byId().get(h.getPlatformItem());
                  return held != null
                      && !java.util.Arrays.equals(held.aspects().pack(), h.getShown());
                })
            .map(HoldingRecord::getPlatformItem)
            .toList();
    r.keep(bodies, changed);
    ledger.seen(section, r.holdings(), r.byId());
  }
}
