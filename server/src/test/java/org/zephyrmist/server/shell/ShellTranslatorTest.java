package org.zephyrmist.server.shell;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Condition;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Frames;
import org.zephyrmist.core.content.Grading;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.Visibility;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.server.platform.HttpAddresses;
import org.zephyrmist.server.platform.PlatformGateway.ShellItem;
import org.zephyrmist.server.platform.ShellAddresses;

class ShellTranslatorTest {
  private static final ShellAddresses ADDRESSES = HttpAddresses.SAME_EVERYWHERE;
  private static final UUID MASTER = new UUID(0, 1);
  private static final UUID OTHER = new UUID(0, 2);
  private static final Map<UUID, String> LETTERS = Map.of(MASTER, "b", OTHER, "c");
  private static final ShellTranslator.QuestionFiles AS_THEY_ARE =
      new ShellTranslator.QuestionFiles() {
        @Override
        public FileRef sent(FileRef kept) {
          return kept;
        }

        @Override
        public FileRef kept(FileRef sent) {
          return sent;
        }
      };
  private static final Ours NOTHING = new Ours();
  private static final Ours OURS = new Ours();

  static {
    OURS.put(MASTER, new ItemKey("week"), "m1");
    OURS.put(MASTER, new ItemKey("page"), "p1");
  }

  private static ShellTranslator translator(String shell, Ours ours) {
    return new ShellTranslator(ADDRESSES, shell, ours, LETTERS, Frames.NONE, AS_THEY_ARE);
  }

  private static ShellItem page(String html, String parent, String rank) {
    EnumMap<Aspect, String> forms = new EnumMap<>(Aspect.class);
    forms.put(Aspect.WORDING, "{\"title\":\"Lamps\",\"html\":\"" + html + "\"}");
    forms.put(Aspect.GRADING, "{}");
    forms.put(Aspect.TIMING, "{}");
    forms.put(
        Aspect.PLACE,
        parent == null
            ? "{\"rank\":\"" + rank + "\"}"
            : "{\"parent\":\"" + parent + "\",\"rank\":\"" + rank + "\"}");
    forms.put(Aspect.VISIBILITY, "{\"shown\":true}");
    forms.put(Aspect.LAUNCH, "{}");
    return new ShellItem(
        "p1", Kind.PAGE, Optional.ofNullable(parent), forms, false, "", "", "revision");
  }

  private static String wording(String shell, Ours known, String html) {
    return translator(shell, known).in(page(html, null, "b01")).forms().get(Aspect.WORDING);
  }

  @Test
  void theSameItemReadTwiceIsTheSame() {
    ShellItem item = page("<p>The beam.</p>", "m1", "03");
    ShellTranslator.Read first = translator("s1", OURS).in(item);
    ShellTranslator.Read again = translator("s2", OURS).in(item);
    assertThat(again.forms()).isEqualTo(first.forms());
    assertThat(again.held()).isEqualTo(first.held());
  }

  @Test
  void anAddressWithinAShellBecomesAReferenceOnlyInThatShell() {
    String html = "<a href='/shells/s1/items/m1'>Week</a>";
    assertThat(wording("s1", OURS, html)).contains("zref:item/week");
    assertThat(wording("s2", OURS, html)).contains("/shells/s1/items/m1");
    assertThat(wording("s1", NOTHING, html)).contains("/shells/s1/items/m1");
    assertThat(wording("s1", OURS, html)).contains("zref:item/week");
  }

  @Test
  void aFileIsTheSameFileInEveryShell() {
    String html = "<img src='/files/" + "ab".repeat(32) + "/lamp.jpg'>";
    assertThat(wording("s1", OURS, html))
        .contains("zref:file")
        .isEqualTo(wording("s2", OURS, html));
  }

  @Test
  void thePlaceIsInOurTerms() {
    ShellTranslator t = translator("s1", OURS);
    assertThat(t.in(page("x", "m1", "03")).forms().get(Aspect.PLACE))
        .isEqualTo("{\"parent\":\"week\",\"rank\":\"03\"}");
    assertThat(t.in(page("x", "theirs", "03")).forms().get(Aspect.PLACE))
        .isEqualTo("{\"parent\":\"here:theirs\",\"rank\":\"03\"}");
    assertThat(t.in(page("x", null, "b07")).forms().get(Aspect.PLACE))
        .isEqualTo("{\"rank\":\"07\"}");
  }

  @Test
  void anItemThatNobodyDeliveredMayBeATwin() {
    assertThat(translator("s1", NOTHING).in(page("x", null, "01")).held().free()).isTrue();
    assertThat(translator("s1", OURS).in(page("x", null, "01")).held().free()).isFalse();
  }

  /** Both masters bring a module "week" and a page "page". */
  private static Ours both() {
    Ours both = new Ours();
    both.putAll(OURS);
    both.put(OTHER, new ItemKey("week"), "m2");
    both.put(OTHER, new ItemKey("page"), "p2");
    return both;
  }

  @Test
  void aReferenceMeansTheItemOfItsOwnMaster() {
    Item page =
        new Item(
            new ItemKey("page"),
            "Lamps",
            new Content.Page("<a href='zref:item/week'>Week</a>"),
            Timing.NONE,
            new Place(Optional.of("week"), "03"),
            Visibility.SHOWN,
            EditRule.ADAPTABLE);
    for (String n : List.of("1", "2")) {
      UUID master = n.equals("1") ? MASTER : OTHER;
      Map<Aspect, String> forms = AspectForms.of(page);
      Wording wording = AspectForms.wording(forms.get(Aspect.WORDING));
      Map<Aspect, String> out =
          translator("s1", both()).out(forms, Optional.of(wording), master).forms();
      assertThat(out.get(Aspect.WORDING)).contains("/shells/s1/items/m" + n);
      assertThat(out.get(Aspect.PLACE)).contains("\"parent\":\"m" + n + "\"");
    }
  }

  @Test
  void whatWasMovedOrLinkedToTheOtherMastersItemOfThatKeyIsSeen() {
    ShellTranslator t = translator("s1", both());
    assertThat(t.in(page("x", "m2", "03")).forms().get(Aspect.PLACE)).contains("here:m2");
    assertThat(wording("s1", both(), "<a href='/shells/s1/items/m2'>x</a>"))
        .contains("/shells/s1/items/m2");
    assertThat(wording("s1", both(), "<a href='/shells/s1/items/m1'>x</a>"))
        .contains("zref:item/week");
  }

  @Test
  void whatAnItemNamesIsNamedByTheShellsIdsAndComesBackEqual() {
    Item plot =
        new Item(
            new ItemKey("plot"),
            "Plot",
            new Content.Assignment(
                "", Grading.points(BigDecimal.TEN).withCategory(Optional.of("week"))),
            Timing.NONE,
            new Place(Optional.of("week"), "03"),
            Visibility.SHOWN.withConditions(
                List.of(
                    Condition.read(new ItemKey("page")), Condition.read(new ItemKey("elsewhere")))),
            EditRule.ADAPTABLE);
    ShellTranslator t = translator("s1", OURS);
    ShellTranslator.Written out = t.out(AspectForms.of(plot), Optional.empty(), MASTER);
    assertThat(out.complete()).as("one of them is not there").isFalse();
    assertThat(out.forms().get(Aspect.GRADING)).contains("\"category\":\"m1\"");
    assertThat(out.forms().get(Aspect.VISIBILITY)).contains("\"p1\"").doesNotContain("elsewhere");
    ShellItem there =
        new ShellItem("x1", Kind.ASSIGNMENT, Optional.empty(), out.forms(), false, "", "", "r");
    Map<Aspect, String> back = t.in(there).forms();
    assertThat(back.get(Aspect.GRADING)).isEqualTo(AspectForms.of(plot).get(Aspect.GRADING));
    assertThat(back.get(Aspect.VISIBILITY)).contains("\"item\":\"page\"");
    assertThat(translator("s2", NOTHING).in(there).forms().get(Aspect.GRADING))
        .as("theirs in another shell")
        .contains("here:m1");
  }
}
