package org.zephyrmist.server.line;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Aspects;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.SetupSubject;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.delivery.Base;
import org.zephyrmist.core.delivery.CleanStart;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.core.delivery.Meant;
import org.zephyrmist.core.delivery.SectionFacts;
import org.zephyrmist.core.delivery.Twins;
import org.zephyrmist.core.edition.Entry;
import org.zephyrmist.core.tree.Node;
import org.zephyrmist.server.content.Bodies;
import org.zephyrmist.server.shell.Reading;

/** Looks in a shell for what says what items of a version say that were never delivered there. */
@Component
class LikeTwins {
  private static final long MOST_CHARS = 32_000_000;
  private final Bodies bodies;

  /** Wording and launch of an item, which say all that is looked at. */
  private record Said(Kind kind, Fingerprint wording, Fingerprint launch) {
    static Said of(Kind kind, Fingerprints f) {
      return new Said(kind, f.get(Aspect.WORDING), f.get(Aspect.LAUNCH));
    }
  }

  /** The same items are looked for in hundreds of shells, and the same stand there. */
  private final Cache<Said, String> words =
      Caffeine.newBuilder()
          .maximumWeight(MOST_CHARS)
          .weigher((Said s, String text) -> text.length() + 2 * Fingerprint.LENGTH)
          .build();

  LikeTwins(Bodies bodies) {
    this.bodies = bodies;
  }

  /**
   * @param bases what was last delivered
   */
  Twins of(Meant meant, Reading reading, Map<ItemKey, Base> bases, SectionFacts facts) {
    List<Node> fresh =
        meant.items().nodes().stream().filter(n -> !bases.containsKey(n.key())).toList();
    List<Held> free = reading.items().stream().filter(Held::free).toList();
    if (fresh.isEmpty() || free.isEmpty()) {
      return Twins.NONE;
    }
    Twins twins =
        Twins.among(entries(fresh), entries(reading, free), earlier(reading, free, facts));
    Map<ItemKey, SetupSubject> setups = subjects(reading, free);
    return setups.isEmpty() ? twins : twins.withSetups(subjects(fresh), setups);
  }

  private Map<ItemKey, SetupSubject> subjects(List<Node> nodes) {
    List<Node> setups = nodes.stream().filter(n -> n.kind() == Kind.SETUP).toList();
    Map<Fingerprint, String> forms =
        bodies.get(
            setups.stream().map(n -> n.aspects().get(Aspect.WORDING)).collect(Collectors.toSet()));
    Map<ItemKey, SetupSubject> all = new HashMap<>();
    setups.forEach(
        n ->
            AspectForms.wording(forms.get(n.aspects().get(Aspect.WORDING)))
                .subject()
                .ifPresent(s -> all.put(n.key(), s)));
    return all;
  }

  private static Map<ItemKey, SetupSubject> subjects(Reading reading, List<Held> free) {
    Map<ItemKey, SetupSubject> all = new HashMap<>();
    free.stream()
        .filter(h -> h.kind() == Kind.SETUP)
        .forEach(
            h ->
                AspectForms.wording(reading.forms().get(h.id()).get(Aspect.WORDING))
                    .subject()
                    .ifPresent(s -> all.put(CleanStart.own(h.id()), s)));
    return all;
  }

  private static boolean earlier(Reading reading, List<Held> free, SectionFacts facts) {
    return facts
        .begins()
        .filter(
            day -> {
              List<Timing> dates =
                  free.stream()
                      .map(h -> reading.forms().get(h.id()).get(Aspect.TIMING))
                      .map(AspectForms::timing)
                      .toList();
              return Twins.ofEarlierTerm(dates, day);
            })
        .isPresent();
  }

  private List<Entry> entries(List<Node> nodes) {
    Map<Said, Fingerprints> unread = new LinkedHashMap<>();
    for (Node n : nodes) {
      Said said = Said.of(n.kind(), n.aspects());
      if (words.getIfPresent(said) == null) {
        unread.put(said, n.aspects());
      }
    }
    Set<Fingerprint> wanted = new HashSet<>();
    unread.values().forEach(f -> wanted.addAll(f.asMap().values()));
    Map<Fingerprint, String> forms = bodies.get(wanted);
    Map<Said, String> read = new HashMap<>();
    unread.forEach((said, f) -> read.put(said, words(said.kind(), f.forms(forms))));
    words.putAll(read);
    List<Entry> all = new ArrayList<>();
    for (Node n : nodes) {
      Said said = Said.of(n.kind(), n.aspects());
      String text = Optional.ofNullable(read.get(said)).orElseGet(() -> words.getIfPresent(said));
      all.add(entry(n.key(), n.kind(), n.title(), n.parent(), said, text == null ? "" : text));
    }
    return all;
  }

  /** In outline order, as far as the platform tells it. */
  private List<Entry> entries(Reading reading, List<Held> free) {
    Map<Optional<String>, List<Held>> below = new LinkedHashMap<>();
    Set<String> ids = new HashSet<>();
    free.forEach(h -> ids.add(h.id()));
    free.forEach(
        h ->
            below.computeIfAbsent(h.parent().filter(ids::contains), k -> new ArrayList<>()).add(h));
    return walk(Optional.empty(), below)
        .map(
            h -> {
              Said said = Said.of(h.kind(), h.aspects());
              String text = words.get(said, s -> words(h.kind(), reading.forms().get(h.id())));
              return entry(
                  CleanStart.own(h.id()),
                  h.kind(),
                  h.title(),
                  h.parent().filter(ids::contains).map(CleanStart::own),
                  said,
                  text);
            })
        .toList();
  }

  private static Stream<Held> walk(Optional<String> at, Map<Optional<String>, List<Held>> below) {
    return Optional.ofNullable(below.remove(at)).orElse(List.of()).stream()
        .flatMap(h -> Stream.concat(Stream.of(h), walk(Optional.of(h.id()), below)));
  }

  private static Entry entry(
      ItemKey key, Kind kind, String title, Optional<ItemKey> parent, Said said, String words) {
    Fingerprint form = Fingerprint.of(said.wording().hex() + said.launch().hex());
    return new Entry(key, "", kind, title, parent, form, words);
  }

  private static String words(Kind kind, Map<Aspect, String> forms) {
    return Entry.words(
        Aspects.read(forms).item(new ItemKey("x"), kind, EditRule.ADAPTABLE).content(), List.of());
  }
}
