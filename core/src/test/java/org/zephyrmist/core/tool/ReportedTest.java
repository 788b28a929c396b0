package org.zephyrmist.core.tool;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;

class ReportedTest {
  private static Reported to(String host) {
    return new Reported("Item", host, "failed");
  }

  @Test
  void linksThatOnlyWaitForTheirToolAreFoldedIntoItsHost() {
    Reported.Folded f =
        Reported.folded(
            List.of(to("b.example"), to("a.example"), to("b.example")), Set.of("c.example"));
    assertThat(f.toConnect()).hasToString("{a.example=1, b.example=2}");
    assertThat(f.others()).isEmpty();
  }

  @Test
  void whatFailsAlthoughItsToolIsConnectedOrLeadsToNoneFailed() {
    Reported.Folded f =
        Reported.folded(List.of(to("a.example"), to("")), Set.of("a.example", "b.example"));
    assertThat(f.toConnect()).isEmpty();
    assertThat(f.others()).extracting(Reported::host).containsExactly("a.example", "");
  }
}
