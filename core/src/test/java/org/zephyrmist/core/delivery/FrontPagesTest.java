package org.zephyrmist.core.delivery;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.function.Function;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Laws;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.content.SetupSubject;
import org.zephyrmist.core.content.Wording;

/** Two front pages become one, whose entries all lead to something. */
class FrontPagesTest {
  private static final Function<ItemKey, Optional<String>> EVERYTHING = k -> Optional.of(k.value());

  private static Wording page(String html, String... entries) {
    List<Content.Entry> all = new ArrayList<>();
    for (String e : entries) {
      all.add(new Content.Entry("To " + e, e.startsWith("https") ? e : "zref:item/" + e));
    }
    return Wording.of("Front page", html).withSetup(Optional.of(SetupSubject.FRONT_PAGE), all);
  }

  private static List<String> leads(Wording w) {
    return w.entries().stream().map(Content.Entry::value).toList();
  }

  @Test
  void whatTheFirstSaysComesFirstAndNothingIsSaidTwice() {
    Wording w =
        FrontPages.together(
            List.of(
                page("<p>Welcome</p><p>Help is near.</p>", "help"),
                page("<p>Stage Lighting</p><p>Help is near.</p>", "week1", "help")),
            EVERYTHING);
    assertThat(w.html()).isEqualTo("<p>Welcome</p><p>Help is near.</p><p>Stage Lighting</p>");
    assertThat(leads(w)).containsExactly("zref:item/help", "zref:item/week1");
  }

  @Test
  void entriesThatLeadToOneThingInTheShellAreOne() {
    Wording w =
        FrontPages.together(
            List.of(page("", "help"), page("", "old-help", "week1")),
            k -> Optional.of(k.value().equals("old-help") ? "help" : k.value()));
    assertThat(leads(w)).containsExactly("zref:item/help", "zref:item/week1");
  }

  @Test
  void aListEntryThatLeadsWhereAnEarlierPageLeadsIsNotSaidAgain() {
    String list = "<ul><li><a href=\"zref:item/%s\">Help</a></li>%s</ul>";
    String week = "<li><a href=\"zref:item/week1\">Week 1</a></li>";
    Wording w =
        FrontPages.together(
            List.of(page(list.formatted("help", "")), page(list.formatted("old-help", week))),
            k -> Optional.of(k.value().equals("old-help") ? "help" : k.value()));
    assertThat(w.html()).isEqualTo(list.formatted("help", "") + "<ul>" + week + "</ul>");
  }

  @Test
  void whatDidNotArriveIsNotLedTo() {
    String list =
        "<ul><li><a href=\"zref:item/week1\">Week 1</a></li>"
            + "<li><a href=\"zref:item/gone\">Gone</a></li></ul>";
    Wording w =
        FrontPages.together(
            List.of(page("<p>Welcome</p>"), page(list, "gone", "https://help.larkmoor.example/")),
            k -> Optional.of(k.value()).filter("week1"::equals));
    assertThat(w.html())
        .isEqualTo("<p>Welcome</p><ul><li><a href=\"zref:item/week1\">Week 1</a></li></ul>");
    assertThat(leads(w)).containsExactly("https://help.larkmoor.example/");
  }

  @Test
  void itLeadsOnlyToWhatIsThereToEachThingOnceAndPuttingTogetherAgainChangesNothing() {
    Laws.hold(
        random -> {
          Map<String, String> there = there(random);
          Function<ItemKey, Optional<String>> at = k -> Optional.ofNullable(there.get(k.value()));
          List<Wording> pages = new ArrayList<>();
          for (int n = 1 + random.nextInt(3); n > 0; n--) {
            pages.add(drawn(random));
          }
          Wording w = FrontPages.together(pages, at);
          assertThat(leads(w))
              .allMatch(v -> References.asItem(v).flatMap(r -> at.apply(r.key())).isPresent());
          assertThat(leads(w).stream().map(v -> at.apply(References.asItem(v).get().key())))
              .doesNotHaveDuplicates();
          assertThat(References.items(w.html())).allMatch(r -> at.apply(r.key()).isPresent());
          assertThat(FrontPages.together(List.of(w), at)).isEqualTo(w);
          List<Wording> twice = new ArrayList<>(pages);
          twice.addAll(pages);
          assertThat(FrontPages.together(twice, at)).isEqualTo(w);
        });
  }

  private static Map<String, String> there(Random random) {
    Map<String, String> there = new java.util.HashMap<>();
    for (int i = 0; i < 5; i++) {
      if (random.nextInt(3) > 0) {
        there.put("k" + i, "p" + random.nextInt(4));
      }
    }
    return there;
  }

  private static Wording drawn(Random random) {
    StringBuilder html = new StringBuilder("<p>Says " + random.nextInt(3) + "</p><ul>");
    List<String> entries = new ArrayList<>();
    for (int i = random.nextInt(4); i > 0; i--) {
      String k = "k" + random.nextInt(5);
      entries.add(k);
      html.append("<li><a href=\"zref:item/" + k + "\">" + k + "</a></li>");
    }
    return page(html + "</ul>", entries.toArray(String[]::new));
  }
}
