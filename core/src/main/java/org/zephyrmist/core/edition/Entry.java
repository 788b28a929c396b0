package org.zephyrmist.core.edition;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Html;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.question.QuestionSet;

/**
 * An item of an edition as pairing looks at it, in outline order with the others.
 *
 * @param identifier what its maker calls it; two editions may use one for different things
 * @param parent the module it stands in; none at the top
 * @param form fingerprint of wording and launch together
 * @param words what it says, plain; of a link where it leads, of a file its name
 */
public record Entry(
    ItemKey key,
    String identifier,
    Kind kind,
    String title,
    Optional<ItemKey> parent,
    Fingerprint form,
    String words) {

  /**
   * An item as pairing looks at it.
   *
   * @param questions of a quiz or a bank, where they can be read
   */
  public static Entry of(Item i, Optional<QuestionSet> questions) {
    Map<Aspect, String> forms = AspectForms.of(i);
    return new Entry(
        i.key(),
        i.key().value(),
        i.kind(),
        i.title(),
        i.place().parent().map(ItemKey::new),
        Fingerprint.of(forms.get(Aspect.WORDING) + forms.get(Aspect.LAUNCH)),
        words(i.content(), questions.map(QuestionSet::texts).orElse(List.of())));
  }

  /**
   * What a content says in plain words.
   *
   * @param questions the texts of its questions, if it has any
   */
  public static String words(Content c, Iterable<String> questions) {
    StringBuilder all = new StringBuilder(c.html().isEmpty() ? "" : Html.text(c.html()));
    questions.forEach(q -> all.append(' ').append(Html.text(q)));
    if (!c.launch().address().isEmpty()) {
      all.append(' ').append(c.launch().address());
      c.launch().parameters().forEach((k, v) -> all.append(' ').append(v));
    }
    if (c.kind() == Kind.FILE) {
      c.madeOf().ifPresent(f -> all.append(' ').append(f.name()));
    }
    c.criteria().forEach(k -> all.append(' ').append(k.text()));
    return all.toString();
  }
}
