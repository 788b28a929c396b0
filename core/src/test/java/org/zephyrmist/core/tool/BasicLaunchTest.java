package org.zephyrmist.core.tool;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.tool.BasicLaunch.Course;
import org.zephyrmist.core.tool.BasicLaunch.GradeReturn;
import org.zephyrmist.core.tool.BasicLaunch.Person;
import org.zephyrmist.core.tool.BasicLaunch.Role;
import org.zephyrmist.core.tool.OAuthSignature.Parameter;
import org.zephyrmist.core.tool.RelinkRule.Link;

class BasicLaunchTest {
  private static final Instant NOW = Instant.ofEpochSecond(1_793_000_000L);

  private static BasicLaunch launch(Privacy privacy, Optional<GradeReturn> grades) {
    return new BasicLaunch(
        new Link(
            "https://cuebench.example/launch?room=2",
            new TreeMap<>(Map.of("Unit No.", "7", "roles", "Admin"))),
        "p7",
        "CueBench: the space",
        new Course("s3", "110-03", "Stage lighting"),
        new Person("u9", "Agnes Pell", "agnes@larkmoor.example", Role.INSTRUCTOR),
        privacy,
        grades,
        "larkmoor",
        Optional.empty());
  }

  @Test
  void nameAndMailAreSentOnlyWhereTheConnectionSaysSo() {
    assertThat(launch(Privacy.NOTHING, Optional.empty()).parameters().toString())
        .doesNotContain("Agnes", "agnes@");
    assertThat(launch(new Privacy(true, false), Optional.empty()).parameters())
        .containsEntry("lis_person_name_full", "Agnes Pell")
        .doesNotContainKey("lis_person_contact_email_primary");
  }

  @Test
  void whatALinkSendsAlongIsCustomAndNothingElse() {
    SortedMap<String, String> all = launch(Privacy.NOTHING, Optional.empty()).parameters();
    assertThat(all)
        .containsEntry("custom_unit_no_", "7")
        .containsEntry("custom_roles", "Admin")
        .containsEntry("roles", "Instructor")
        .containsEntry("lti_version", "LTI-1p0")
        .doesNotContainKey("lis_outcome_service_url");
  }

  @Test
  void gradesComeBackWhereTheyAreAskedFor() {
    GradeReturn grades = new GradeReturn("https://larkmoor.example/outcomes", "r1");
    assertThat(launch(Privacy.NOTHING, Optional.of(grades)).parameters())
        .containsEntry("lis_result_sourcedid", "r1");
  }

  @Test
  void theSignatureCoversEverythingThatIsPostedAndTheQuery() {
    BasicLaunch launch = launch(Privacy.NOTHING, Optional.empty());
    SortedMap<String, String> posted = launch.signed("key", "secret", NOW, "n1");
    assertThat(posted).containsEntry("oauth_timestamp", "1793000000");
    SortedMap<String, String> other = new TreeMap<>(posted);
    assertThat(signature(other)).isEqualTo(posted.get("oauth_signature"));
    other.put("roles", "Learner");
    assertThat(signature(other)).isNotEqualTo(posted.get("oauth_signature"));
    assertThat(launch.signed("key", "another", NOW, "n1").get("oauth_signature"))
        .isNotEqualTo(posted.get("oauth_signature"));
  }

  private static String signature(SortedMap<String, String> posted) {
    List<Parameter> signed =
        posted.entrySet().stream()
            .filter(e -> !e.getKey().equals("oauth_signature"))
            .map(e -> new Parameter(e.getKey(), e.getValue()))
            .toList();
    String base = OAuthSignature.base("POST", "https://cuebench.example/launch?room=2", signed);
    return OAuthSignature.of(base, "secret", "");
  }
}
