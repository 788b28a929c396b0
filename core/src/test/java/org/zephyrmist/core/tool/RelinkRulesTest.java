package org.zephyrmist.core.tool;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Laws;
import org.zephyrmist.core.tool.RelinkRule.Limits;
import org.zephyrmist.core.tool.RelinkRule.Link;
import org.zephyrmist.core.tool.RelinkRules.Relinked;

class RelinkRulesTest {
  private static final SectionPlace SECTION =
      new SectionPlace("s3", "RIG 140", "quay", "t1", Map.of("section-code", "140 03"));
  private static final LocalDate DAY = LocalDate.of(2026, 11, 2);

  private static RelinkRule rule(String from, String to) {
    return rule(from, to, Limits.NONE);
  }

  private static RelinkRule rule(String from, String to, Limits limits) {
    return new RelinkRule(from, new AddressPattern(from), new Template(to), Map.of(), limits);
  }

  private static Link link(String address) {
    return new Link(address, new TreeMap<>(Map.of("unit", "7")));
  }

  private static Relinked of(Link link, RelinkRule... rules) {
    return new RelinkRules(List.of(rules)).of(link, "m", SECTION, DAY);
  }

  @Test
  void aHostThatMovedKeepsWhatFollowsIt() {
    RelinkRule moved = rule("//loads.ropewalk.example{*rest}", "https://ropewalk.example/l{*rest}");
    Relinked r = of(link("https://loads.ropewalk.example/beam/7?s=1"), moved);
    assertThat(r.changed()).isTrue();
    assertThat(r.link()).isEqualTo(link("https://ropewalk.example/l/beam/7?s=1"));
    assertThat(of(link("https://elsewhere.example/beam"), moved).changed()).isFalse();
  }

  @Test
  void valuesOfTheSectionAreFilledInAndEncodedInAddressesAlone() {
    RelinkRule r =
        new RelinkRule(
            "r",
            new AddressPattern("https://a.example/{unit}"),
            new Template("https://b.example/{unit}?s={section-code}"),
            Map.of(
                "course",
                Optional.of(new Template("{section-code}/{unit}")),
                "unit",
                Optional.empty()),
            Limits.NONE);
    Link l = of(link("https://a.example/9"), r).link();
    assertThat(l.address()).isEqualTo("https://b.example/9?s=140%2003");
    assertThat(l.parameters()).isEqualTo(Map.of("course", "140 03/9"));
  }

  @Test
  void whereAValueIsNotKnownTheLinkStays() {
    SectionPlace bare = new SectionPlace("s", "c", "quay", "t1", Map.of());
    RelinkRule r = rule("https://a.example/{u}", "https://b.example/{section-code}/{u}");
    Link l = link("https://a.example/9");
    assertThat(new RelinkRules(List.of(r)).of(l, "m", bare, DAY).link()).isEqualTo(l);
  }

  @Test
  void theFirstRuleThatChangesItCounts() {
    RelinkRule first = rule("https://a.example/{x}", "https://b.example/{x}");
    RelinkRule second = rule("https://a.example{*x}", "https://c.example{*x}");
    assertThat(of(link("https://a.example/1"), first, second).rule()).contains(first);
    assertThat(of(link("https://a.example/1/2"), first, second).rule()).contains(second);
  }

  @Test
  void aChainOrALoopIsToldAndChangesNothing() {
    RelinkRule there = rule("//a.example{*x}", "https://b.example{*x}");
    RelinkRule on = rule("//b.example{*x}", "https://c.example{*x}");
    RelinkRule back = rule("//b.example{*x}", "https://a.example{*x}");
    RelinkRule growing = rule("//a.example{*x}", "https://a.example/again{*x}");
    Link l = link("https://a.example/1");
    for (RelinkRule[] rules :
        List.of(new RelinkRule[] {there, on}, new RelinkRule[] {there, back})) {
      assertThat(of(l, rules).link()).isEqualTo(l);
      assertThat(of(l, rules).leadsOn()).contains(rules[1]);
    }
    assertThat(of(l, growing).leadsOn()).contains(growing);
  }

  @Test
  void itsLimitsAreItsLimits() {
    RelinkRule r =
        rule(
            "//a.example{*x}",
            "https://b.example{*x}",
            new Limits(
                Set.of("m"), Set.of("t1"), Set.of("quay"), Optional.of(DAY), Optional.of(DAY)));
    RelinkRules rules = new RelinkRules(List.of(r));
    Link l = link("https://a.example/1");
    assertThat(rules.of(l, "m", SECTION, DAY).changed()).isTrue();
    assertThat(rules.of(l, "other", SECTION, DAY).changed()).isFalse();
    assertThat(rules.of(l, "m", SECTION, DAY.minusDays(1)).changed()).isFalse();
    assertThat(rules.of(l, "m", SECTION, DAY.plusDays(1)).changed()).isFalse();
    SectionPlace mill = new SectionPlace("s", "c", "mill", "t1", Map.of());
    assertThat(rules.of(l, "m", mill, DAY).changed()).isFalse();
  }

  @Test
  void whatIsNeitherAPartNorAValueIsRefused() {
    assertThatThrownBy(() -> rule("https://a.example/{x}", "https://b.example/{y}"))
        .hasMessageContaining("{y} is neither");
  }

  private static <T> T pick(Random random, List<T> of) {
    return of.get(random.nextInt(of.size()));
  }

  @Test
  void relinkingTwiceIsRelinkingOnceWhateverTheRules() {
    List<String> hosts = List.of("a.example", "b.example", "c.example");
    List<String> tails = List.of("", "/x", "/x/y", "/y?s=1");
    Laws.hold(
        random -> {
          List<RelinkRule> rules = new ArrayList<>();
          for (int i = random.nextInt(5); i >= 0; i--) {
            String into = pick(random, List.of("", "/x", "/new"));
            rules.add(
                rule(
                    "//" + pick(random, hosts) + pick(random, List.of("", "/x")) + "{*r}",
                    "https://" + pick(random, hosts) + into + "{*r}"));
          }
          RelinkRules all = new RelinkRules(rules);
          Link before = link("https://" + pick(random, hosts) + pick(random, tails));
          Link once = all.of(before, "m", SECTION, DAY).link();
          assertThat(all.of(once, "m", SECTION, DAY).link()).as("%s", rules).isEqualTo(once);
          assertThat(all.of(before, "m", SECTION, DAY).link()).isEqualTo(once);
        });
  }

  @Test
  void aRuleThatWouldStopAnotherIsFoundBeforeItCounts() {
    RelinkRule first = rule("https://a.example/{*rest}", "https://b.example{*rest}", Limits.NONE);
    RelinkRules rules = new RelinkRules(List.of(first));
    assertThat(
            rules.chain(rule("https://b.example/{*rest}", "https://c.example{*rest}", Limits.NONE)))
        .contains(first);
    assertThat(
            rules.chain(rule("https://z.example/{*rest}", "https://a.example{*rest}", Limits.NONE)))
        .contains(first);
    assertThat(
            rules.chain(rule("https://y.example/{*rest}", "https://c.example{*rest}", Limits.NONE)))
        .isEmpty();
    RelinkRule north =
        rule(
            "https://a.example/{*rest}",
            "https://b.example{*rest}",
            new Limits(Set.of(), Set.of(), Set.of("north"), Optional.empty(), Optional.empty()));
    RelinkRule south =
        rule(
            "https://b.example/{*rest}",
            "https://c.example{*rest}",
            new Limits(Set.of(), Set.of(), Set.of("south"), Optional.empty(), Optional.empty()));
    assertThat(new RelinkRules(List.of(north)).chain(south)).isEmpty();
  }
}
