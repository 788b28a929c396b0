package org.zephyrmist.server.term;

import static org.zephyrmist.server.db.Tables.MASTER;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.FilledBlanks;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Marks;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.core.term.Onward;
import org.zephyrmist.core.term.TermSection;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.server.content.Bodies;
import org.zephyrmist.server.ledger.OwnWords;
import org.zephyrmist.server.ledger.OwnWords.OwnWord;
import org.zephyrmist.server.master.Versions;
import org.zephyrmist.server.term.NextTerms.Coming;
import org.zephyrmist.server.term.NextTerms.Terms;

/** Texts that sections of a term have made their own, and what becomes of each in the next. */
@Component
class OwnTexts {
  private final DSLContext db;
  private final OwnWords ownWords;
  private final Versions versions;
  private final Bodies bodies;
  private final KeptTerms kept;

  OwnTexts(DSLContext db, OwnWords ownWords, Versions versions, Bodies bodies, KeptTerms kept) {
    this.db = db;
    this.ownWords = ownWords;
    this.versions = versions;
    this.bodies = bodies;
    this.kept = kept;
  }

  /**
   * A text that sections have made their own.
   *
   * @param starter whether it is the section's own by its rule, such as who teaches it
   * @param filled of the sections, how many did nothing but fill its blanks
   * @param into sections of the next term that are still to get its master, and that the same
   *     instructor teaches
   * @param onward what becomes of it; none: the master's text comes, and somebody may say otherwise
   */
  record OwnText(
      UUID master,
      String code,
      ItemKey item,
      String title,
      boolean starter,
      Set<UUID> sections,
      int filled,
      Set<UUID> into,
      Optional<Onward> onward) {
    boolean goes(Onward as) {
      return onward.filter(o -> o == as).isPresent();
    }
  }

  /** A text of a master as its version says it. */
  private record Text(UUID master, ItemKey item) {}

  /** What the version says of a text. */
  private record Said(boolean starter, Fingerprint wording, List<String> blanks) {}

  /**
   * Those of masters that come and are not fresh each term; first those that can still go along, of
   * these the most changed. What the master says by now is none.
   *
   * @param follows which section each of the next term follows
   */
  List<OwnText> of(
      Terms t, Map<UUID, TermSection> sections, Map<UUID, UUID> follows, List<Coming> masters) {
    Map<UUID, Coming> coming = new HashMap<>();
    masters.stream().filter(m -> !m.leftOut()).forEach(m -> coming.put(m.master(), m));
    coming
        .keySet()
        .removeAll(
            db.select(MASTER.ID).from(MASTER).where(MASTER.FRESH_EACH_TERM).fetchSet(MASTER.ID));
    Map<UUID, UUID> next = new HashMap<>();
    follows.forEach((b, a) -> next.put(a, b));
    Map<Text, List<OwnWord>> words = new LinkedHashMap<>();
    for (OwnWord w : ownWords.of(next.keySet())) {
      if (coming.containsKey(w.master())) {
        words.computeIfAbsent(new Text(w.master(), w.item()), k -> new ArrayList<>()).add(w);
      }
    }
    Map<Text, Said> said = said(words.keySet(), coming);
    words.keySet().retainAll(said.keySet());
    Map<Fingerprint, String> forms = forms(words, said);
    Map<String, Onward> kept = this.kept.texts(t);
    List<OwnText> all = new ArrayList<>();
    words.forEach(
        (text, of) -> {
          Said s = said.get(text);
          List<OwnWord> own = of.stream().filter(w -> !w.wording().equals(s.wording())).toList();
          if (!own.isEmpty()) {
            int filled = (int) own.stream().filter(w -> filledOnly(w, s, forms)).count();
            Coming c = coming.get(text.master());
            all.add(
                new OwnText(
                    text.master(),
                    c.code(),
                    text.item(),
                    own.get(0).title(),
                    s.starter(),
                    new HashSet<>(own.stream().map(OwnWord::section).toList()),
                    filled,
                    into(own, c, next, sections),
                    Optional.ofNullable(kept.get(KeptTerms.text(text.master(), text.item())))
                        .or(() -> Onward.proposed(s.starter(), own.size(), filled))));
          }
        });
    all.sort(
        Comparator.comparing((OwnText x) -> x.into().isEmpty())
            .thenComparing(x -> -x.sections().size())
            .thenComparing(OwnText::title));
    return all;
  }

  private static Set<UUID> into(
      List<OwnWord> own, Coming c, Map<UUID, UUID> next, Map<UUID, TermSection> sections) {
    Set<UUID> into = new HashSet<>();
    for (OwnWord w : own) {
      UUID b = next.get(w.section());
      boolean same = sections.get(w.section()).sharesInstructor(sections.get(b));
      if (c.open().contains(b) && same) {
        into.add(b);
      }
    }
    return into;
  }

  /** Texts that the version does not have any more are left out. */
  private Map<Text, Said> said(Collection<Text> texts, Map<UUID, Coming> coming) {
    Map<Text, Node> nodes = new HashMap<>();
    for (Text x : texts) {
      versions
          .get(coming.get(x.master()).version())
          .tree()
          .get(x.item())
          .ifPresent(n -> nodes.put(x, n));
    }
    Map<Fingerprint, String> forms =
        bodies.some(nodes.values().stream().map(n -> n.aspects().get(Aspect.WORDING)).toList());
    Map<Text, Said> all = new HashMap<>();
    nodes.forEach(
        (x, n) -> {
          Fingerprint wording = n.aspects().get(Aspect.WORDING);
          String html = AspectForms.wording(forms.get(wording)).html();
          all.put(x, new Said(n.rule() == EditRule.STARTER, wording, Marks.blanks(html)));
        });
    return all;
  }

  /** Of texts with blanks, which alone are looked into. */
  private Map<Fingerprint, String> forms(Map<Text, List<OwnWord>> words, Map<Text, Said> said) {
    Set<Fingerprint> wanted = new HashSet<>();
    words.forEach(
        (text, of) -> {
          if (!said.get(text).blanks().isEmpty()) {
            of.forEach(w -> wanted.addAll(List.of(w.wording(), w.delivered())));
          }
        });
    return bodies.some(wanted);
  }

  private static boolean filledOnly(OwnWord w, Said s, Map<Fingerprint, String> forms) {
    if (s.blanks().isEmpty() || !forms.keySet().containsAll(List.of(w.wording(), w.delivered()))) {
      return false;
    }
    Wording here = AspectForms.wording(forms.get(w.wording()));
    Wording was = AspectForms.wording(forms.get(w.delivered()));
    Map<String, String> filled = FilledBlanks.of(s.blanks(), was.html(), here.html());
    return was.withHtml(FilledBlanks.fill(was.html(), filled)).equals(here);
  }
}
