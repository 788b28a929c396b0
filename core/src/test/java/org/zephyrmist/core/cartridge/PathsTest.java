package org.zephyrmist.core.cartridge;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class PathsTest {
  @ParameterizedTest
  @CsvSource({
    "table.pdf, pages/carry.html, pages/table.pdf",
    "../files/load%20table.pdf, pages/carry.html, files/load table.pdf",
    "./a/./b.png, pages/carry.html, pages/a/b.png",
    "$IMS-CC-FILEBASE$/img/bar.png, pages/deep/carry.html, img/bar.png",
    "$IMS-CC-FILEBASE$img/bar.png, pages/carry.html, img/bar.png",
    "%24IMS-CC-FILEBASE%24/img/bar.png, carry.html, img/bar.png",
    "/img/bar.png, pages/carry.html, img/bar.png",
    "answers.html#q2, pages/carry.html, pages/answers.html",
    "film.mp4?t=10, carry.html, film.mp4",
    "a\\b.png, carry.html, a/b.png",
    "caf%C3%A9.html, carry.html, café.html",
    "100%.html, carry.html, 100%.html",
  })
  void anAddressOnAPageMeansAPathInThePackage(String address, String page, String path) {
    assertThat(Paths.resolve(address, page)).contains(path);
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "https://maker.example/x",
        "//maker.example/x",
        "mailto:a@b.example",
        "#top",
        "",
        "javascript:x()",
        "data:text/html,x",
        "../../etc/passwd",
        "$IMS-CC-FILEBASE$/../../x"
      })
  void anAddressThatLeadsOutsideMeansNothingInThePackage(String address) {
    assertThat(Paths.resolve(address, "pages/carry.html")).isEmpty();
  }

  @Test
  void mediaTypesFollowFromTheEnding() {
    assertThat(MediaTypes.of("A/B.PDF")).isEqualTo("application/pdf");
    assertThat(MediaTypes.of("x.vtt")).isEqualTo("text/vtt");
    assertThat(MediaTypes.of("noending")).isEqualTo("application/octet-stream");
  }

  @Test
  void resourceTypesAreRecognisedThroughTheirVersions() {
    assertThat(ResourceType.of("imsdt_xmlv1p1")).contains(ResourceType.DISCUSSION);
    assertThat(ResourceType.of("imsqti_xmlv1p2/imscc_xmlv1p3/question-bank"))
        .contains(ResourceType.QUESTION_BANK);
    assertThat(ResourceType.of("associatedcontent/imscc_xmlv1p2/learning-application-resource"))
        .contains(ResourceType.ASSOCIATED_CONTENT);
    assertThat(ResourceType.of("imsbasiclti_xmlv1p0")).contains(ResourceType.TOOL_LINK);
    assertThat(ResourceType.of("something/else")).isEmpty();
  }
}
