package org.zephyrmist.core.delivery;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Sample;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.PartsChoice.What;
import org.zephyrmist.core.tree.Tree;

class StandsTest {
  private static final ItemKey A = new ItemKey("a");
  private static final ItemKey B = new ItemKey("b");
  private static final Tree VERSION = Sample.tree(Sample.page("a"), Sample.page("b"));
  private static final Parts ONLY_A = Parts.only(Set.of(A));

  private static final PartsChoice SOME = new PartsChoice(What.SOME, PartSet.NONE);

  private static Base base(ItemKey k, String form) {
    Fingerprints f = Sample.all(form);
    return new Base(k, Kind.PAGE, k.value(), "p", f, f);
  }

  @Test
  void onePartOfAVersionDoesNotMakeItTheSectionsVersion() {
    Stands s =
        Stands.after(VERSION, ONLY_A, SOME, Map.of(A, base(A, "a"), B, base(B, "old")), true);
    assertThat(s.atVersion()).isFalse();
  }

  @Test
  void theLastMissingPartDoes() {
    Stands s = Stands.after(VERSION, ONLY_A, SOME, Map.of(A, base(A, "a"), B, base(B, "b")), true);
    assertThat(s).isEqualTo(new Stands(true, 0));
  }

  @Test
  void aSectionThatNeverHadItHoldsThePartsOfThisVersion() {
    Stands s = Stands.after(VERSION, ONLY_A, SOME, Map.of(A, base(A, "a")), false);
    assertThat(s).isEqualTo(new Stands(true, 0));
  }

  @Test
  void whatIsAlwaysLeftOutDoesNotKeepASectionBehindButIsNotCountedAsHeld() {
    Stands s =
        Stands.after(
            VERSION,
            ONLY_A,
            PartsChoice.EVERYTHING,
            Map.of(A, base(A, "a"), B, base(B, "old")),
            true);
    assertThat(s).isEqualTo(new Stands(true, 1));
  }

  @Test
  void aTaskWithoutItsAttachmentsIsNotCountedAsHeld() {
    Tree tasks = Sample.tree(Sample.in(null, "a", Kind.ASSIGNMENT), Sample.page("b"));
    PartsChoice bare =
        new PartsChoice(What.EVERYTHING, PartSet.NONE, PartSet.NONE, false, Optional.empty());
    Parts both = Parts.only(Set.of(A, B));
    Map<ItemKey, Base> after = Map.of(A, base(A, "without"), B, base(B, "kept"));
    assertThat(Stands.after(tasks, both, bare, after, true)).isEqualTo(new Stands(true, 1));
    assertThat(Stands.after(tasks, both, PartsChoice.EVERYTHING, after, true))
        .isEqualTo(new Stands(true, 0));
  }
}
