package org.zephyrmist.server.content;

import jakarta.validation.constraints.NotNull;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;

/**
 * One item as the interface needs it; what its kind does not have is absent.
 *
 * @param aspects what each aspect is, in short: sent back with a change, they tell whether somebody
 *     else has changed the same meanwhile
 * @param state the same of the whole item
 */
public record ItemView(
    @NotNull String key,
    @NotNull String kind,
    @NotNull String title,
    @NotNull String html,
    FileRef file,
    Integer questions,
    String points,
    String address,
    String due,
    boolean shown,
    boolean instructorsOnly,
    @NotNull String rule,
    @NotNull Map<String, String> aspects,
    @NotNull String state) {

  /** What an aspect is, in short; another text for another aspect. */
  public static String print(Fingerprints of, Aspect aspect) {
    return of.get(aspect).hex().substring(0, 16);
  }

  /** A line of an outline. */
  public record Node(
      @NotNull String key,
      @NotNull String kind,
      @NotNull String title,
      String parent,
      boolean shown,
      boolean instructorsOnly,
      @NotNull String rule) {}

  public static List<Node> outline(List<Trees.Node> nodes) {
    return nodes.stream()
        .map(
            n ->
                new Node(
                    n.key().value(),
                    n.kind().name(),
                    n.title(),
                    n.parent().map(ItemKey::value).orElse(null),
                    n.shown(),
                    n.instructorsOnly(),
                    n.rule().name()))
        .toList();
  }

  public static ItemView of(Item i) {
    Content c = i.content();
    Optional<FileRef> file = Optional.empty();
    Optional<Integer> questions = Optional.empty();
    if (c instanceof Content.File f) {
      file = Optional.of(f.file());
    } else if (c instanceof Content.Quiz q) {
      questions = Optional.of(q.count());
    } else if (c instanceof Content.QuestionBank b) {
      questions = Optional.of(b.count());
    }
    String address = AspectForms.launch(c).address();
    Fingerprints prints = AspectForms.fingerprints(i);
    Map<String, String> aspects = new TreeMap<>();
    prints.asMap().forEach((a, f) -> aspects.put(a.name(), print(prints, a)));
    return new ItemView(
        i.key().value(),
        i.kind().name(),
        i.title(),
        AspectForms.html(c),
        file.orElse(null),
        questions.orElse(null),
        AspectForms.points(c).map(p -> p.toPlainString()).orElse(null),
        address.isEmpty() ? null : address,
        i.timing().due().orElse(null),
        i.visibility().shown(),
        i.visibility().instructorsOnly(),
        i.rule().name(),
        aspects,
        Fingerprint.of(aspects.toString() + i.rule()).hex().substring(0, 16));
  }
}
