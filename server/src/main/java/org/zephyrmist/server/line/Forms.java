package org.zephyrmist.server.line;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.Collection;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.function.Predicate;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Mentions;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.core.delivery.Step;
import org.zephyrmist.server.content.Bodies;
import org.zephyrmist.server.content.Files;
import org.zephyrmist.server.master.Versions.Version;

/**
 * What steps write, found by the fingerprints that their items become, wherever it comes from.
 * Texts are as they can be delivered: what they name and is nowhere is left out and counted.
 */
@Component
class Forms {
  private static final long MOST_CHARS = 32_000_000;
  private final Bodies bodies;
  private final Files files;

  private record TextOf(UUID within, Fingerprint wording) {}

  /**
   * @param dead references of the text that led nowhere
   */
  private record Live(Wording wording, int dead) {}

  /** The same texts go into hundreds of sections. */
  private final Cache<TextOf, Live> live =
      Caffeine.newBuilder()
          .maximumWeight(MOST_CHARS)
          .weigher((TextOf t, Live l) -> l.wording().html().length() + Fingerprint.LENGTH)
          .build();

  Forms(Bodies bodies, Files files) {
    this.bodies = bodies;
    this.files = files;
  }

  /**
   * What one step writes.
   *
   * @param forms of the aspects that are written, but for the wording
   * @param wording if it is written
   * @param dead references of its text that led nowhere and were left out
   */
  record Written(Map<Aspect, String> forms, Optional<Wording> wording, int dead) {
    /** Aspects that name other items: written once more when all of those are there. */
    Set<Aspect> refers() {
      Set<Aspect> all = EnumSet.noneOf(Aspect.class);
      wording.filter(Mentions::any).ifPresent(w -> all.add(Aspect.WORDING));
      Optional.ofNullable(forms.get(Aspect.GRADING))
          .filter(f -> Mentions.any(AspectForms.grading(f)))
          .ifPresent(f -> all.add(Aspect.GRADING));
      Optional.ofNullable(forms.get(Aspect.VISIBILITY))
          .filter(f -> Mentions.any(AspectForms.visibility(f)))
          .ifPresent(f -> all.add(Aspect.VISIBILITY));
      return all;
    }

    /** Of what is written, only what names other items. */
    Written links() {
      Set<Aspect> refers = refers();
      Map<Aspect, String> only = new EnumMap<>(Aspect.class);
      forms.forEach(
          (a, f) -> {
            if (refers.contains(a)) {
              only.put(a, f);
            }
          });
      return new Written(only, wording.filter(w -> refers.contains(Aspect.WORDING)), dead);
    }

    int chars() {
      return wording.map(w -> w.html().length()).orElse(0);
    }
  }

  /**
   * Among what texts may name items.
   *
   * @param id the same among which the same can be named
   */
  record Within(UUID id, Predicate<ItemKey> known) {
    static Within version(Version v) {
      return new Within(v.id(), v.tree()::has);
    }
  }

  /** What these steps write, by item; for steps that write nothing, nothing. */
  Map<ItemKey, Written> of(Within within, Collection<Step> steps) {
    Set<Fingerprint> wanted = new HashSet<>();
    steps.forEach(s -> s.writes().forEach(a -> wanted.add(becomes(s).get(a))));
    Map<Fingerprint, String> found = bodies.get(wanted);
    Map<Fingerprint, Live> texts = texts(within, steps, found);
    Map<ItemKey, Written> all = new HashMap<>();
    for (Step s : steps) {
      if (!s.writes().isEmpty()) {
        all.put(s.key(), written(s, found, texts));
      }
    }
    return all;
  }

  private static Fingerprints becomes(Step s) {
    return s.sides().becomes().orElseThrow();
  }

  private static Written written(
      Step s, Map<Fingerprint, String> found, Map<Fingerprint, Live> texts) {
    Map<Aspect, String> forms = new EnumMap<>(Aspect.class);
    s.writes().forEach(a -> forms.put(a, found.get(becomes(s).get(a))));
    forms.remove(Aspect.WORDING);
    Optional<Live> text =
        s.writes().contains(Aspect.WORDING)
            ? Optional.of(texts.get(becomes(s).get(Aspect.WORDING)))
            : Optional.empty();
    return new Written(forms, text.map(Live::wording), text.map(Live::dead).orElse(0));
  }

  private Map<Fingerprint, Live> texts(
      Within within, Collection<Step> steps, Map<Fingerprint, String> found) {
    Map<Fingerprint, Live> texts = new HashMap<>();
    Map<Fingerprint, Wording> others = new HashMap<>();
    Map<String, String> named = new HashMap<>();
    for (Step s : steps) {
      if (s.writes().contains(Aspect.WORDING)) {
        Fingerprint print = becomes(s).get(Aspect.WORDING);
        Live known = live.getIfPresent(new TextOf(within.id(), print));
        if (known != null) {
          texts.put(print, known);
        } else {
          Wording w = AspectForms.wording(found.get(print));
          others.put(print, w);
          References.files(w.html()).forEach(f -> named.putIfAbsent(f.sha256(), f.name()));
        }
      }
    }
    Set<String> there = files.refs(named).keySet();
    others.forEach(
        (print, w) -> {
          References.Live text =
              References.live(
                  w.html(), f -> there.contains(f.sha256()), x -> within.known().test(x.key()));
          Live l = new Live(text.dead() == 0 ? w : w.withHtml(text.html()), text.dead());
          live.put(new TextOf(within.id(), print), l);
          texts.put(print, l);
        });
    return texts;
  }
}
