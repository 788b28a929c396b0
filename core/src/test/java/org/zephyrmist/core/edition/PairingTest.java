package org.zephyrmist.core.edition;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.edition.Pairing.Decided;

class PairingTest {
  private static final String LIGHT =
      "A lens gathers what the lamp gives and sends it where the designer points; the reflector"
          + " behind it saves what would be lost to the back of the lantern.";
  private static final String POWER =
      "Before you plug anything in find the panel, read its label, and write the circuit number on"
          + " your plot; two circuits on one bar are never tied together.";

  private static Entry entry(
      String key, String id, Kind kind, String title, String parent, String words) {
    return new Entry(
        new ItemKey(key),
        id,
        kind,
        title,
        Optional.of(parent).filter(p -> !p.isEmpty()).map(ItemKey::new),
        Fingerprint.of(title + words),
        words);
  }

  private static Entry module(String key, String title) {
    return entry(key, key, Kind.MODULE, title, "", "");
  }

  private static Entry page(String key, String title, String parent, String words) {
    return entry(key, key, Kind.PAGE, title, parent, words);
  }

  private static Entry quiz(String key, String id, String title, String parent, String words) {
    return entry(key, id, Kind.QUIZ, title, parent, words);
  }

  private static Map<String, String> pairs(Pairing p) {
    Map<String, String> all = new java.util.TreeMap<>();
    p.pairs().forEach(x -> all.put(x.older().value(), x.newer().value()));
    return all;
  }

  private static final List<Entry> OLD =
      List.of(
          module("m1", "Unit 1 Lenses"),
          page("a", "Reading: lenses", "m1", LIGHT),
          quiz("q1", "q1", "Quiz 1", "m1", "Which of these would you sign on the call sheet"),
          module("m2", "Unit 2 Power"),
          page("b", "Reading: power", "m2", POWER),
          quiz("q2", "q2", "Quiz 2", "m2", "Which of these would you sign on the call sheet"));

  @Test
  void underNewIdentifiersAMovedAndRenamedTextIsFound() {
    List<Entry> now =
        List.of(
            module("n2", "Unit 1 Power"),
            page("nb", "Safe loads", "n2", POWER.replace("panel", "board")),
            module("n1", "Unit 2 Lenses"),
            page("na", "Reading: lenses and reflectors", "n1", LIGHT));
    assertThat(pairs(Pairing.of(OLD, now, Decided.NOTHING)))
        .containsEntry("a", "na")
        .containsEntry("b", "nb");
  }

  @Test
  void nearTwinsAreToldApartByTheirNumbersAndNeighbours() {
    List<Entry> now =
        List.of(
            module("n1", "Unit 1 Lenses"),
            page("na", "Reading: lenses", "n1", LIGHT),
            quiz(
                "nq1",
                "x1",
                "Quiz 1",
                "n1",
                "Which of these would you sign on the call sheet today"),
            module("n2", "Unit 2 Power"),
            page("nb", "Reading: power", "n2", POWER),
            quiz(
                "nq2",
                "x2",
                "Quiz 2",
                "n2",
                "Which of these would you sign on the call sheet now"));
    assertThat(pairs(Pairing.of(OLD, now, Decided.NOTHING)))
        .containsEntry("q1", "nq1")
        .containsEntry("q2", "nq2");
  }

  @Test
  void anIdentifierUsedForSomethingElseIsNoPair() {
    List<Entry> now =
        List.of(
            module("m1", "Unit 1 Lenses"),
            page(
                "a",
                "Crew calls",
                "m1",
                "Who is called when and how the sheet is posted at the stage door"),
            page("c", "Reading: lenses", "m1", LIGHT));
    assertThat(pairs(Pairing.of(OLD, now, Decided.NOTHING))).containsEntry("a", "c");
  }

  @Test
  void whatAPersonDecidedIsKeptTo() {
    Decided decided =
        new Decided(
            Map.of(
                new ItemKey("a"),
                Optional.of(new ItemKey("nb")),
                new ItemKey("b"),
                Optional.empty()));
    List<Entry> now =
        List.of(page("na", "Reading: lenses", "", LIGHT), page("nb", "Reading: power", "", POWER));
    Pairing p = Pairing.of(OLD, now, decided);
    assertThat(pairs(p)).containsEntry("a", "nb").doesNotContainKey("b");
    assertThat(p.pairs())
        .filteredOn(x -> x.older().value().equals("a"))
        .extracting(Pair::certainty)
        .containsExactly(Pair.Certainty.DECIDED);
    assertThat(p.gone()).contains(new ItemKey("b"));
    assertThat(p.fresh()).containsExactly(new ItemKey("na"));
  }

  @Test
  void twoThatAreEquallyLikelyAreAskedAbout() {
    List<Entry> now =
        List.of(page("x", "Lenses, first", "", LIGHT), page("y", "Lenses, second", "", LIGHT));
    Pairing p = Pairing.of(List.of(page("a", "Lenses", "", LIGHT)), now, Decided.NOTHING);
    assertThat(p.pairs()).extracting(Pair::certainty).containsExactly(Pair.Certainty.DOUBTFUL);
  }

  @Test
  void oneEditionWithItselfIsAllSureAndNothingElse() {
    Pairing p = Pairing.of(OLD, OLD, Decided.NOTHING);
    assertThat(p.gone()).isEmpty();
    assertThat(p.fresh()).isEmpty();
    assertThat(p.pairs()).allMatch(x -> x.older().equals(x.newer()));
  }
}
