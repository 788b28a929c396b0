package org.zephyrmist.server.delivery;

import java.util.EnumMap;
import java.util.HexFormat;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.core.delivery.StepKind;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.db.tables.records.DeliveryStepRecord;
import org.zephyrmist.server.db.tables.records.SectionRecord;
import org.zephyrmist.server.platform.PlatformGateway.Write;

/** Turns steps into writes in the platform's terms. */
@Component
class Writes {
  private final VersionContent versions;
  private final Settings settings;

  Writes(VersionContent versions, Settings settings) {
    this.versions = versions;
    this.settings = settings;
  }

  /** An item in the shell's terms, in a time after which its section waits. */
  ShellTranslator.Written out(ShellTranslator translator, Item item, UUID master) {
    return ItemTime.within(
        settings.itemTimeout(),
        item.title(),
        AspectForms.html(item.content()).length(),
        () -> translator.out(item, master));
  }

  ShellTranslator translator(SectionRecord to, Ours ours) {
    return new ShellTranslator(to.getShell(), ours, versions.letters());
  }

  /**
   * @param complete false if the text refers to items that are not in the shell yet
   */
  record Made(Write write, boolean complete) {}

  /** The key of a step: the same whenever the same step of the same line is sent. */
  static String key(UUID line, ItemKey item, StepKind kind, Set<Aspect> writes, byte[] meant) {
    String what =
        line
            + " "
            + item
            + " "
            + kind
            + " "
            + writes
            + " "
            + (meant == null ? "" : HexFormat.of().formatHex(meant));
    return UUID.nameUUIDFromBytes(what.getBytes(java.nio.charset.StandardCharsets.UTF_8))
        .toString();
  }

  Made make(
      String key,
      Step s,
      Optional<Item> item,
      ShellTranslator translator,
      UUID master,
      Map<String, String> revisions) {
    if (s.kind() == StepKind.RETIRE) {
      String id = s.id().orElseThrow();
      return new Made(new Write.Remove(key, id, revisions.get(id)), true);
    }
    ShellTranslator.Written w = out(translator, item.orElseThrow(), master);
    return s.kind() == StepKind.ADD
        ? new Made(new Write.Add(key, s.itemKind(), w.forms()), w.complete())
        : new Made(
            new Write.Update(
                key,
                s.id().orElseThrow(),
                revisions.get(s.id().orElseThrow()),
                only(w.forms(), s.writes())),
            w.complete());
  }

  /** The same write once more, from the step as it is stored. */
  Write again(
      DeliveryStepRecord s,
      Map<ItemKey, VersionContent.Live> items,
      ShellTranslator translator,
      UUID master) {
    StepKind kind = StepKind.valueOf(s.getKind());
    if (kind == StepKind.RETIRE) {
      return new Write.Remove(s.getSentKey(), s.getPlatformItem(), s.getSeenRevision());
    }
    Map<Aspect, String> forms =
        out(translator, items.get(new ItemKey(s.getItemKey())).item(), master).forms();
    return kind == StepKind.ADD
        ? new Write.Add(s.getSentKey(), Kind.valueOf(s.getItemKind()), forms)
        : new Write.Update(
            s.getSentKey(),
            s.getPlatformItem(),
            s.getSeenRevision(),
            only(forms, PlannedSteps.writes(s)));
  }

  static Map<Aspect, String> only(Map<Aspect, String> forms, Set<Aspect> wanted) {
    EnumMap<Aspect, String> some = new EnumMap<>(forms);
    some.keySet().retainAll(wanted);
    return some;
  }
}
