package org.zephyrmist.core.lti;

import java.time.Duration;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.zephyrmist.core.tool.BasicLaunch;
import org.zephyrmist.core.tool.BasicLaunch.Course;
import org.zephyrmist.core.tool.BasicLaunch.Person;
import org.zephyrmist.core.tool.BasicLaunch.Role;
import org.zephyrmist.core.tool.Privacy;

/**
 * Messages of a platform as claims of an id token (LTI 1.3 core, section 5; LTI Deep Linking 2.0,
 * section 4.4; LTI Assignment and Grade Services 2.0, section 3.1).
 *
 * @param issuer the platform
 * @param nonce of the request that is answered
 */
public record Messages(String issuer, Registration registration, String nonce, Instant now) {
  private static final Duration VALID = Duration.ofMinutes(5);
  static final String LTI = "https://purl.imsglobal.org/spec/lti/claim/";
  static final String DEEP = "https://purl.imsglobal.org/spec/lti-dl/claim/";
  private static final String GRADES = "https://purl.imsglobal.org/spec/lti-ags/";
  private static final String ROLE = "http://purl.imsglobal.org/vocab/lis/v2/membership#";

  /** A score may be sent for this link (AGS 2.0, section 3.2). */
  public static final String SCORE = GRADES + "scope/score";

  /** Points and dates of a task may be read and told (AGS 2.0, section 3.1). */
  public static final String LINE_ITEM = GRADES + "scope/lineitem";

  /**
   * A launch of a link.
   *
   * @param launch the same as of LTI 1.1
   * @param lineItem where its scores go, if they do
   */
  public Map<String, Object> resourceLink(BasicLaunch launch, Optional<String> lineItem) {
    Map<String, Object> all = common("LtiResourceLinkRequest", launch.link().address());
    who(all, launch.person(), launch.privacy());
    all.put(LTI + "resource_link", Map.of("id", launch.resource(), "title", launch.title()));
    all.put(LTI + "context", context(launch.course()));
    all.put(LTI + "tool_platform", Map.of("guid", launch.platform()));
    all.put(LTI + "custom", new TreeMap<>(launch.link().parameters()));
    launch.back().ifPresent(b -> all.put(LTI + "launch_presentation", Map.of("return_url", b)));
    lineItem.ifPresent(
        l ->
            all.put(
                GRADES + "claim/endpoint",
                Map.of("scope", List.of(LINE_ITEM, SCORE), "lineitem", l)));
    return all;
  }

  /**
   * A request to pick resources of the tool.
   *
   * @param data comes back with the answer
   * @param back where the answer is to be sent
   */
  public Map<String, Object> deepLinking(
      String target, Course course, Person person, Privacy privacy, String data, String back) {
    Map<String, Object> all = common("LtiDeepLinkingRequest", target);
    who(all, person, privacy);
    all.put(LTI + "context", context(course));
    Map<String, Object> settings = new LinkedHashMap<>();
    settings.put("accept_types", List.of("ltiResourceLink", "link"));
    settings.put("accept_presentation_document_targets", List.of("window"));
    settings.put("accept_multiple", true);
    settings.put("accept_lineitem", true);
    settings.put("auto_create", false);
    settings.put("deep_link_return_url", back);
    settings.put("data", data);
    all.put(DEEP + "deep_linking_settings", settings);
    return all;
  }

  private Map<String, Object> common(String type, String target) {
    Map<String, Object> all = new LinkedHashMap<>();
    all.put("iss", issuer);
    all.put("aud", registration.client());
    all.put("iat", now.getEpochSecond());
    all.put("exp", now.plus(VALID).getEpochSecond());
    all.put("nonce", nonce);
    all.put(LTI + "message_type", type);
    all.put(LTI + "version", "1.3.0");
    all.put(LTI + "deployment_id", registration.deployment());
    all.put(LTI + "target_link_uri", target);
    return all;
  }

  private static void who(Map<String, Object> all, Person person, Privacy privacy) {
    all.put("sub", person.id());
    String role = person.role() == Role.INSTRUCTOR ? "Instructor" : "Learner";
    all.put(LTI + "roles", List.of(ROLE + role));
    if (privacy.name()) {
      all.put("name", person.name());
    }
    if (privacy.mail() && !person.mail().isEmpty()) {
      all.put("email", person.mail());
    }
  }

  private static Map<String, Object> context(Course c) {
    return Map.of("id", c.id(), "label", c.label(), "title", c.title());
  }
}
