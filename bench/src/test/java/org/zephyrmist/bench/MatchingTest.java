package org.zephyrmist.bench;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** The quality that bench matching measures, at a tenth of its size. */
class MatchingTest {
  @ParameterizedTest
  @EnumSource(TwoEditions.Identifiers.class)
  void editionsRewrittenByATenthAreMatchedAsWellAsWeSay(TwoEditions.Identifiers ids) {
    Matching.Quality q = Matching.quality(TwoEditions.drawn(11, 300, 0.1, ids));
    assertThat(q.precision()).isGreaterThanOrEqualTo(0.98);
    assertThat(q.recall()).isGreaterThanOrEqualTo(0.98);
    assertThat(q.sure()).isGreaterThanOrEqualTo(0.99);
  }
}
