package org.zephyrmist.server.line;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Aspects;
import org.zephyrmist.core.content.FilledBlanks;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Marks;
import org.zephyrmist.core.content.TextEdits;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.server.content.Bodies;
import org.zephyrmist.server.ledger.Holding;
import org.zephyrmist.server.ledger.Ledger;
import org.zephyrmist.server.ledger.OwnWords;
import org.zephyrmist.server.ledger.OwnWords.OwnWord;
import org.zephyrmist.server.master.Versions;
import org.zephyrmist.server.platform.PlatformGateway;
import org.zephyrmist.server.shell.Reading;
import org.zephyrmist.server.shell.Shells;

/** What a section gets of what the section before it had made of texts. */
@Component
class CarriedWords {
  private final OwnWords ownWords;
  private final Shells shells;
  private final Bodies bodies;
  private final Ledger ledger;
  private final Versions versions;

  CarriedWords(OwnWords ownWords, Shells shells, Bodies bodies, Ledger ledger, Versions versions) {
    this.ownWords = ownWords;
    this.shells = shells;
    this.bodies = bodies;
    this.ledger = ledger;
    this.versions = versions;
  }

  /**
   * Wordings by the platform's id of the item, without links into the shell that they come from.
   *
   * @param given what is ours, by the platform's id
   * @param blanks whether only what was put into blanks comes
   */
  Map<String, Wording> of(
      Line line,
      PlatformGateway gateway,
      Map<String, List<Holding>> given,
      Reading reading,
      boolean blanks) {
    Map<String, String> ids = new HashMap<>();
    given.forEach((id, of) -> of.forEach(h -> ids.put(h.master() + " " + h.base().key(), id)));
    List<OwnWord> before =
        shells.follows(line.section()).map(s -> ownWords.of(List.of(s))).orElse(List.of()).stream()
            .filter(w -> ids.containsKey(w.master() + " " + w.item()))
            .toList();
    Set<Fingerprint> wanted = new HashSet<>();
    before.forEach(w -> wanted.addAll(List.of(w.wording(), w.delivered())));
    Map<Fingerprint, String> forms = bodies.some(wanted);
    Map<String, Wording> all = new HashMap<>();
    for (OwnWord w : before) {
      String id = ids.get(w.master() + " " + w.item());
      html(forms, w.wording())
          .map(h -> TextEdits.unlinked(h, gateway.addresses()::isWithinAShell))
          .flatMap(
              here ->
                  blanks
                      ? filled(
                          line.section(), w, here, html(forms, w.delivered()), now(reading, id))
                      : Optional.of(AspectForms.wording(forms.get(w.wording())).withHtml(here)))
          .ifPresent(x -> all.put(id, x));
    }
    return all;
  }

  private static Optional<String> html(Map<Fingerprint, String> forms, Fingerprint f) {
    return Optional.ofNullable(forms.get(f)).map(x -> AspectForms.wording(x).html());
  }

  private static Wording now(Reading reading, String id) {
    return Aspects.read(reading.forms().get(id)).wording();
  }

  private Optional<Wording> filled(
      UUID section, OwnWord w, String here, Optional<String> delivered, Wording now) {
    List<String> labels = labels(section, w);
    return delivered
        .map(d -> FilledBlanks.of(labels, d, here))
        .map(filled -> now.withHtml(FilledBlanks.fill(now.html(), filled)));
  }

  /** Of the blanks in the version that the section holds now. */
  private List<String> labels(UUID section, OwnWord w) {
    UUID version = ledger.from(section, w.master(), w.item());
    return versions
        .get(version)
        .tree()
        .get(w.item())
        .map(Node::aspects)
        .map(a -> a.get(Aspect.WORDING))
        .flatMap(f -> html(bodies.some(List.of(f)), f))
        .map(Marks::blanks)
        .orElse(List.of());
  }
}
