package org.zephyrmist.core.tool;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Laws;
import org.zephyrmist.core.tool.Moves.Move;
import org.zephyrmist.core.tool.Moves.Proposal;
import org.zephyrmist.core.tool.RelinkRule.Limits;
import org.zephyrmist.core.tool.RelinkRule.Link;

class MovesTest {
  private static final SectionPlace SECTION = new SectionPlace("s", "c", "quay", "t1", Map.of());

  private static Move move(String before, String after) {
    return new Move("https://" + before, "https://" + after);
  }

  private static String written(Proposal p, String address) {
    RelinkRule rule = new RelinkRule("r", p.from(), p.to(), Map.of(), Limits.NONE);
    Link link = new Link(address, new TreeMap<>());
    return new RelinkRules(List.of(rule)).of(link, "m", SECTION, LocalDate.EPOCH).link().address();
  }

  @Test
  void aHostThatMovedIsOneRule() {
    List<Proposal> found =
        Moves.of(
            List.of(
                move("loads.ropewalk.example/beam/7", "ropewalk.example/l/beam/7"),
                move("loads.ropewalk.example/rope/2?s=1", "ropewalk.example/l/rope/2?s=1"),
                move("other.example/a", "other.example/a")));
    assertThat(found).hasSize(1);
    assertThat(found.get(0).from().text()).isEqualTo("https://loads.ropewalk.example{*rest}");
    assertThat(found.get(0).to().text()).isEqualTo("https://ropewalk.example/l{*rest}");
    assertThat(found.get(0).moves()).isEqualTo(2);
  }

  @Test
  void theOneThatCoversMostComesFirst() {
    List<Proposal> found =
        Moves.of(
            List.of(
                move("a.example/old/1", "a.example/new/1"),
                move("b.example/1", "c.example/1"),
                move("b.example/2", "c.example/2")));
    assertThat(found).extracting(Proposal::moves).containsExactly(2, 1);
    assertThat(found.get(1).from().text()).isEqualTo("https://a.example/old{*rest}");
  }

  @Test
  void whereOneBeginningBecameTwoNothingIsProposed() {
    assertThat(
            Moves.of(
                List.of(move("a.example/1", "b.example/1"), move("a.example/2", "c.example/2"))))
        .isEmpty();
    assertThat(Moves.of(List.of(new Move("none", "https://a.example/"), new Move("", ""))))
        .isEmpty();
  }

  @Test
  void aSchemeInCapitalsIsOne() {
    List<Proposal> found =
        Moves.of(List.of(new Move("HTTPS://a.example/1", "https://b.example/1")));
    assertThat(found).hasSize(1);
    assertThat(written(found.get(0), "https://a.example/1")).isEqualTo("https://b.example/1");
  }

  @Test
  void aRuleThatWouldLeadToItselfIsNotProposed() {
    assertThat(Moves.of(List.of(move("a.example/1", "a.example/x/1")))).isEmpty();
  }

  @Test
  void aProposalWritesEachOfItsMovesAsItWas() {
    List<String> beginnings = List.of("a.example", "a.example/x", "b.example/y", "c.example");
    List<String> rests = List.of("", "/1", "/x/2", "/y?u=7", "/2#part");
    Laws.hold(
        random -> {
          String before = beginnings.get(random.nextInt(4));
          String after = beginnings.get(random.nextInt(4));
          List<Move> moves = new ArrayList<>();
          for (int i = random.nextInt(4); i >= 0; i--) {
            String rest = rests.get(random.nextInt(5));
            moves.add(move(before + rest, after + rest));
          }
          for (Proposal p : Moves.of(moves)) {
            long covered =
                moves.stream()
                    .filter(m -> written(p, m.before()).equals(m.after()))
                    .filter(m -> !m.before().equals(m.after()))
                    .count();
            assertThat(covered).as("%s of %s", p, moves).isGreaterThanOrEqualTo(p.moves());
          }
        });
  }
}
