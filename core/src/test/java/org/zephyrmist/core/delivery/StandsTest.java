package org.zephyrmist.core.delivery;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
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

  private static Base base(ItemKey k, String form) {
    Fingerprints f = Sample.all(form);
    return new Base(k, Kind.PAGE, k.value(), "p", f, f);
  }

  @Test
  void onePartOfAVersionDoesNotMakeItTheSectionsVersion() {
    Stands s =
        Stands.after(VERSION, ONLY_A, What.SOME, Map.of(A, base(A, "a"), B, base(B, "old")), true);
    assertThat(s.atVersion()).isFalse();
  }

  @Test
  void theLastMissingPartDoes() {
    Stands s =
        Stands.after(VERSION, ONLY_A, What.SOME, Map.of(A, base(A, "a"), B, base(B, "b")), true);
    assertThat(s).isEqualTo(new Stands(true, 0));
  }

  @Test
  void aSectionThatNeverHadItHoldsThePartsOfThisVersion() {
    Stands s = Stands.after(VERSION, ONLY_A, What.SOME, Map.of(A, base(A, "a")), false);
    assertThat(s).isEqualTo(new Stands(true, 0));
  }

  @Test
  void whatIsAlwaysLeftOutDoesNotKeepASectionBehindButIsNotCountedAsHeld() {
    Stands s =
        Stands.after(
            VERSION, ONLY_A, What.EVERYTHING, Map.of(A, base(A, "a"), B, base(B, "old")), true);
    assertThat(s).isEqualTo(new Stands(true, 1));
  }
}
