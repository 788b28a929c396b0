package org.zephyrmist.core.merge;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.zephyrmist.core.content.Html;
import org.zephyrmist.core.content.Wording;

/**
 * Merges what an item says, changed on two sides since they were one: the title apart from the text
 * below it, lists of things by what was put in and taken out, all else as a whole.
 *
 * @param wording what both become; where both changed the same words, ours and then theirs; of
 *     titles that both changed, ours
 * @param clean whether nobody has to decide anything
 * @param text the passages of the text
 */
public record WordingMerge(Wording wording, boolean clean, TextMerge text) {

  /**
   * @return none where both changed the same of what cannot stand side by side: a file, questions,
   *     an entry
   */
  public static Optional<WordingMerge> of(Wording base, Wording ours, Wording theirs) {
    Sides s = new Sides();
    TextMerge text = TextMerge.of(base.html(), ours.html(), theirs.html());
    boolean titles = one(base.title(), ours.title(), theirs.title()).isPresent();
    Wording merged =
        new Wording(
            one(base.title(), ours.title(), theirs.title()).orElse(ours.title()),
            Html.canonical(text.together()),
            s.whole(base.file(), ours.file(), theirs.file()),
            s.whole(base.questions(), ours.questions(), theirs.questions()),
            s.list(base.criteria(), ours.criteria(), theirs.criteria()),
            s.list(base.groups(), ours.groups(), theirs.groups()),
            s.list(base.attached(), ours.attached(), theirs.attached()),
            s.list(base.standards(), ours.standards(), theirs.standards()),
            s.whole(base.subject(), ours.subject(), theirs.subject()),
            s.list(base.entries(), ours.entries(), theirs.entries()),
            s.whole(base.lasting(), ours.lasting(), theirs.lasting()));
    return s.meet
        ? Optional.empty()
        : Optional.of(new WordingMerge(merged, titles && text.clean(), text));
  }

  /** The one that was changed, if not both were, each in another way. */
  private static <T> Optional<T> one(T base, T ours, T theirs) {
    return ours.equals(theirs) || theirs.equals(base)
        ? Optional.of(ours)
        : ours.equals(base) ? Optional.of(theirs) : Optional.empty();
  }

  private static final class Sides {
    private boolean meet;

    <T> T whole(T base, T ours, T theirs) {
      Optional<T> one = one(base, ours, theirs);
      meet |= one.isEmpty();
      return one.orElse(ours);
    }

    <T> List<T> list(List<T> base, List<T> ours, List<T> theirs) {
      List<T> all = new ArrayList<>();
      for (Merge.Stretch<T> s : Merge.of(base, ours, theirs)) {
        boolean both = s.from() == Merge.From.CLASH;
        if (both && s.base().isEmpty()) { // each put something in at the same place
          all.addAll(s.ours());
          s.theirs().stream().filter(x -> !s.ours().contains(x)).forEach(all::add);
        } else {
          meet |= both;
          all.addAll(both ? s.ours() : s.result());
        }
      }
      return all;
    }
  }
}
