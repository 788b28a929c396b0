package org.zephyrmist.server.line;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.delivery.Merges;
import org.zephyrmist.core.delivery.Merges.Merged;
import org.zephyrmist.core.delivery.Merges.Three;
import org.zephyrmist.core.merge.WordingMerge;
import org.zephyrmist.server.content.Bodies;

/** Wordings that were changed on both sides, merged; the same in hundreds of sections once. */
@Component
public class MergedTexts {
  private static final int MOST = 100_000;
  private final Bodies bodies;
  private final Cache<Three, Optional<Merged>> known =
      Caffeine.newBuilder().maximumSize(MOST).build();

  MergedTexts(Bodies bodies) {
    this.bodies = bodies;
  }

  /** What they become; the forms of that are kept. */
  public Merges of(Collection<Three> wanted) {
    Map<Three, Merged> all = new HashMap<>();
    Set<Three> open = new HashSet<>();
    for (Three t : wanted) {
      Optional<Merged> before = known.getIfPresent(t);
      if (before == null) {
        open.add(t);
      } else {
        before.ifPresent(m -> all.put(t, m));
      }
    }
    if (!open.isEmpty()) {
      all.putAll(merge(open));
    }
    return Merges.of(all);
  }

  private Map<Three, Merged> merge(Set<Three> open) {
    Set<Fingerprint> prints = new HashSet<>();
    open.forEach(
        t -> {
          prints.add(t.base());
          prints.add(t.here());
          prints.add(t.version());
        });
    Map<Fingerprint, String> forms = bodies.get(prints);
    Map<Three, Merged> all = new HashMap<>();
    Set<String> made = new HashSet<>();
    for (Three t : open) {
      if (!forms.keySet().containsAll(Set.of(t.base(), t.here(), t.version()))) {
        continue; // one of them was never seen as a text; it may be at the next reading
      }
      Optional<WordingMerge> m =
          WordingMerge.of(
              AspectForms.wording(forms.get(t.base())),
              AspectForms.wording(forms.get(t.here())),
              AspectForms.wording(forms.get(t.version())));
      m.ifPresent(
          w -> {
            String form = AspectForms.form(w.wording());
            made.add(form);
            all.put(t, new Merged(Fingerprint.of(form), w.clean()));
          });
      known.put(t, Optional.ofNullable(all.get(t)));
    }
    bodies.keep(made);
    return all;
  }
}
