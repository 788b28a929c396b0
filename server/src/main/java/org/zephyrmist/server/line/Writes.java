package org.zephyrmist.server.line;

import java.nio.charset.StandardCharsets;
import java.util.HexFormat;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.core.delivery.StepKind;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.platform.PlatformGateway.Write;
import org.zephyrmist.server.shell.ItemTime;
import org.zephyrmist.server.shell.ShellTranslator;

/** Turns steps into writes in the platform's terms. */
@Component
class Writes {
  private final Settings settings;

  Writes(Settings settings) {
    this.settings = settings;
  }

  /**
   * @param complete false if it names items that are not in the shell yet
   */
  record Made(Write write, boolean complete) {}

  /** The key of a step: the same whenever the same step of the same line is sent. */
  static String key(UUID line, Step s) {
    return key(line, s, s.kind(), s.writes());
  }

  /** The key of what is written once more, when all items that it refers to are there. */
  static String linksKey(UUID line, Step s) {
    return key(line, s, StepKind.UPDATE, Set.of(Aspect.WORDING)) + "-links";
  }

  private static String key(UUID line, Step s, StepKind kind, Set<Aspect> writes) {
    String becomes =
        s.sides().becomes().map(Fingerprints::pack).map(HexFormat.of()::formatHex).orElse("");
    String what = line + " " + s.key() + " " + kind + " " + writes + " " + becomes;
    return UUID.nameUUIDFromBytes(what.getBytes(StandardCharsets.UTF_8)).toString();
  }

  /**
   * The write of a step, now or once more.
   *
   * @param written what it writes; none for a removal
   * @param revision of the item as the step was planned on
   */
  Made make(
      String key,
      Step s,
      Optional<Forms.Written> written,
      ShellTranslator translator,
      UUID master,
      Optional<String> revision) {
    if (s.kind() == StepKind.RETIRE) {
      return new Made(new Write.Remove(key, s.id().orElseThrow(), revision.orElse(null)), true);
    }
    ShellTranslator.Written w = out(s, written.orElseThrow(), translator, master);
    Write write =
        s.kind() == StepKind.ADD
            ? new Write.Add(key, s.itemKind(), w.forms())
            : new Write.Update(key, s.id().orElseThrow(), revision.orElse(null), w.forms());
    return new Made(write, w.complete());
  }

  /** What of an item names others, alone. */
  Write links(
      String key,
      Step s,
      Forms.Written written,
      ShellTranslator translator,
      UUID master,
      String id,
      Optional<String> revision) {
    return new Write.Update(
        key, id, revision.orElse(null), out(s, written.links(), translator, master).forms());
  }

  /** In the shell's terms, in a time after which its section waits. */
  private ShellTranslator.Written out(
      Step s, Forms.Written written, ShellTranslator translator, UUID master) {
    return ItemTime.within(
        settings.itemTimeout(),
        s.title(),
        written.chars(),
        () -> translator.out(written.forms(), written.wording(), master));
  }
}
