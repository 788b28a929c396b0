package org.zephyrmist.server.delivery;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.EnumMap;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.server.delivery.ShellTranslator.Known;
import org.zephyrmist.server.platform.PlatformGateway.ShellItem;

class ShellTranslatorTest {
  private static final Map<String, Known> OURS =
      Map.of("m1", new Known(new ItemKey("week"), "b"), "p1", new Known(new ItemKey("page"), "b"));

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

  private static String wording(String shell, Map<String, Known> known, String html) {
    return new ShellTranslator(shell, known)
        .in(page(html, null, "b01"))
        .forms()
        .get(Aspect.WORDING);
  }

  @Test
  void theSameItemReadTwiceIsTheSame() {
    ShellItem item = page("<p>The beam.</p>", "m1", "03");
    ShellTranslator.Read first = new ShellTranslator("s1", OURS).in(item);
    ShellTranslator.Read again = new ShellTranslator("s2", OURS).in(item);
    assertThat(again.forms()).isEqualTo(first.forms());
    assertThat(again.held()).isEqualTo(first.held());
  }

  @Test
  void anAddressWithinAShellBecomesAReferenceOnlyInThatShell() {
    String html = "<a href='/shells/s1/items/m1'>Week</a>";
    assertThat(wording("s1", OURS, html)).contains("zref:item/week");
    assertThat(wording("s2", OURS, html)).contains("/shells/s1/items/m1");
    assertThat(wording("s1", Map.of(), html)).contains("/shells/s1/items/m1");
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
    ShellTranslator t = new ShellTranslator("s1", OURS);
    assertThat(t.in(page("x", "m1", "03")).forms().get(Aspect.PLACE))
        .isEqualTo("{\"parent\":\"week\",\"rank\":\"03\"}");
    assertThat(t.in(page("x", "theirs", "03")).forms().get(Aspect.PLACE))
        .isEqualTo("{\"parent\":\"here:theirs\",\"rank\":\"03\"}");
    assertThat(t.in(page("x", null, "b07")).forms().get(Aspect.PLACE))
        .isEqualTo("{\"rank\":\"07\"}");
  }

  @Test
  void anItemThatNobodyDeliveredMayBeATwin() {
    assertThat(new ShellTranslator("s1", Map.of()).in(page("x", null, "01")).held().free())
        .isTrue();
    assertThat(new ShellTranslator("s1", OURS).in(page("x", null, "01")).held().free()).isFalse();
  }
}
