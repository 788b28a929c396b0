package org.zephyrmist.core.tool;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class AddressPatternTest {
  @Test
  void partsAreWhatStandsBetweenSlashes() {
    AddressPattern p = new AddressPattern("https://ropewalk.example/beam/{unit}?s={section}");
    assertThat(p.host()).isEqualTo("ropewalk.example");
    assertThat(p.parts("https://ropewalk.example/beam/7?s=140-03"))
        .contains(Map.of("unit", "7", "section", "140-03"));
    assertThat(p.parts("https://ropewalk.example/beam/7/8?s=140-03")).isEmpty();
    assertThat(p.parts("https://ropewalk.example/beam/?s=140-03")).isEmpty();
    assertThat(p.parts("http://ropewalk.example/beam/7?s=1")).as("another scheme").isEmpty();
  }

  @Test
  void theRestMayBeNothingAndSchemeAndHostAreTheSameInCapitals() {
    AddressPattern p = new AddressPattern("//Loads.Ropewalk.example{*rest}");
    assertThat(p.parts("HTTPS://loads.ropewalk.EXAMPLE")).contains(Map.of("rest", ""));
    assertThat(p.parts("http://loads.ropewalk.example/a?b=c#d"))
        .contains(Map.of("rest", "/a?b=c#d"));
    assertThat(new AddressPattern("https://a.example/Beam").parts("https://A.example/beam"))
        .as("a path is not")
        .isEmpty();
  }

  @Test
  void aLongerHostIsAnotherHost() {
    AddressPattern p = new AddressPattern("//a.example{*rest}");
    assertThat(p.parts("https://a.example.evil.example/x")).isEmpty();
    assertThat(p.parts("https://a.example:8443/x")).isEmpty();
    assertThat(p.parts("https://a.example@evil.example/x")).isEmpty();
  }

  @Test
  void signsOfOtherPatternsAreSigns() {
    AddressPattern p = new AddressPattern("https://a.example/x.y(z)*");
    assertThat(p.parts("https://a.example/x.y(z)*")).isPresent();
    assertThat(p.parts("https://a.example/xay(z)*")).isEmpty();
  }

  @ParameterizedTest
  @CsvSource({
    "'{*all}', names no host",
    "'https://{host}/x', names no host",
    "'ropewalk.example/x', names no host",
    "'', names no host",
    "'https://a.example/{x}/{x}', twice",
    "'https://a.example/{*x}/y', follow",
    "'https://a.example/{X y}', small letters",
    "'https://a.example/{', small letters"
  })
  void whatIsNoPatternIsToldInASentence(String text, String why) {
    assertThatThrownBy(() -> new AddressPattern(text)).hasMessageContaining(why);
  }

  @Test
  void aPartEndsAtTheSignThatFollowsIt() {
    AddressPattern p = new AddressPattern("//a.example/{course}-{unit}");
    assertThat(p.parts("https://a.example/lgt-beam-7"))
        .contains(Map.of("course", "lgt", "unit", "beam-7"));
    assertThatThrownBy(() -> new AddressPattern("//a.example/{course}{unit}"))
        .hasMessage("Nothing stands between {unit} and the part before it.");
  }

  @Test
  void anAddressIsGoneThroughOnce() {
    StringBuilder many = new StringBuilder("//a.example/{p0}");
    for (int i = 1; i < 50; i++) {
      many.append("-{p").append(i).append('}');
    }
    AddressPattern p = new AddressPattern(many + "!");
    String address = "https://a.example/" + "x-".repeat(2_000);
    assertThatCode(
            () ->
                org.junit.jupiter.api.Assertions.assertTimeoutPreemptively(
                    java.time.Duration.ofSeconds(5), () -> p.parts(address)))
        .doesNotThrowAnyException();
  }
}
