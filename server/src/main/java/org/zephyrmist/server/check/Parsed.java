package org.zephyrmist.server.check;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.Collection;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.check.TextFacts;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Grading;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.Visibility;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.server.content.Bodies;

/** Forms taken apart, once each: the same stand in hundreds of shells. */
@Component
class Parsed {
  private static final int MOST_CHARS = 24_000_000;
  private final Bodies bodies;
  private final Cache<Fingerprint, Said> known =
      Caffeine.newBuilder()
          .maximumWeight(MOST_CHARS)
          .weigher((Fingerprint f, Said s) -> s.chars())
          .build();

  Parsed(Bodies bodies) {
    this.bodies = bodies;
  }

  /** A wording with what checks ask of its text. */
  record Said(Wording wording, TextFacts facts) {
    int chars() {
      return 400 + wording.html().length() + facts.plain().length();
    }
  }

  /** The forms of these fingerprints, to be asked for one by one. */
  Forms of(Collection<Fingerprint> wanted) {
    return new Forms(bodies.some(wanted));
  }

  /**
   * Forms, also asked for side by side; what was never kept is told as none. What is empty has one
   * form in every aspect, so each aspect is remembered apart.
   */
  final class Forms {
    private final Map<Fingerprint, String> texts;
    private final Map<Fingerprint, Grading> gradings = new ConcurrentHashMap<>();
    private final Map<Fingerprint, Timing> timings = new ConcurrentHashMap<>();
    private final Map<Fingerprint, Visibility> visibilities = new ConcurrentHashMap<>();

    private Forms(Map<Fingerprint, String> texts) {
      this.texts = texts;
    }

    Optional<Said> said(Fingerprint f) {
      return texts.containsKey(f) ? Optional.of(known.get(f, this::read)) : Optional.empty();
    }

    private Said read(Fingerprint f) {
      Wording w = AspectForms.wording(texts.get(f));
      return new Said(w, TextFacts.of(w));
    }

    Optional<Grading> grading(Fingerprint f) {
      return read(gradings, f, AspectForms::grading);
    }

    Optional<Timing> timing(Fingerprint f) {
      return read(timings, f, AspectForms::timing);
    }

    Optional<Visibility> visibility(Fingerprint f) {
      return read(visibilities, f, AspectForms::visibility);
    }

    private <T> Optional<T> read(Map<Fingerprint, T> memo, Fingerprint f, Function<String, T> how) {
      return texts.containsKey(f)
          ? Optional.of(memo.computeIfAbsent(f, k -> how.apply(texts.get(k))))
          : Optional.empty();
    }
  }
}
