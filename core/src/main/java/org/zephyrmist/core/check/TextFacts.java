package org.zephyrmist.core.check;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.zephyrmist.core.content.Embedded;
import org.zephyrmist.core.content.Html;
import org.zephyrmist.core.content.Suspicious;
import org.zephyrmist.core.content.Wording;

/**
 * What checks ask of a text. The same text stands in hundreds of shells, so it is taken apart once.
 *
 * @param plain its words, title first
 * @param addresses that it leads to, pictures too
 * @param frames addresses that it shows in frames
 * @param note what is certainly a note from builder to builder
 * @param perhaps a sentence that looks like one, where none is certain
 */
public record TextFacts(
    String plain,
    List<String> addresses,
    Set<String> frames,
    Optional<String> note,
    Optional<String> perhaps) {
  public static TextFacts of(Wording w) {
    String html = w.html();
    Optional<String> note =
        html.contains("z-builder")
            ? Optional.of("It is marked as a note to the builder.")
            : Suspicious.certainIn(html);
    return new TextFacts(
        w.title() + "\n" + (html.isEmpty() ? "" : Html.text(html)),
        Html.addresses(html).stream().distinct().toList(),
        Html.embedded(html).stream()
            .filter(Embedded::frame)
            .map(Embedded::address)
            .collect(Collectors.toSet()),
        note,
        note.isPresent() ? Optional.empty() : Suspicious.sentence(w.title(), html));
  }
}
