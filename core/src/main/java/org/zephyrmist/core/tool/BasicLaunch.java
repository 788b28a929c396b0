package org.zephyrmist.core.tool;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import org.zephyrmist.core.tool.OAuthSignature.Parameter;
import org.zephyrmist.core.tool.RelinkRule.Link;

/**
 * A launch of LTI 1.1 as a form that is posted to the tool (LTI 1.1.1 implementation guide, section
 * 3, "Basic Launch Data"; names as there).
 *
 * @param link where it leads and what it sends along
 * @param resource id of the link in its shell
 * @param title of the link
 * @param grades where its grades come back, if they do
 * @param platform the platform's own lasting id
 * @param back where the tool may send the person back to, with what it has to say
 */
public record BasicLaunch(
    Link link,
    String resource,
    String title,
    Course course,
    Person person,
    Privacy privacy,
    Optional<GradeReturn> grades,
    String platform,
    Optional<String> back) {
  /** The section as the tool is told of it. */
  public record Course(String id, String label, String title) {}

  /** Who launches it. */
  public record Person(String id, String name, String mail, Role role) {}

  /** A role of LIS, by its handle (section A.2). */
  public enum Role {
    INSTRUCTOR("Instructor"),
    LEARNER("Learner");

    private final String handle;

    Role(String handle) {
      this.handle = handle;
    }
  }

  /**
   * @param service address of Basic Outcomes (section 6)
   * @param result id of the person's grade there
   */
  public record GradeReturn(String service, String result) {}

  /** What is sent, without what signs it. */
  public SortedMap<String, String> parameters() {
    SortedMap<String, String> all = new TreeMap<>();
    link.parameters().forEach((name, value) -> all.put(custom(name), value));
    all.put("lti_message_type", "basic-lti-launch-request");
    all.put("lti_version", "LTI-1p0");
    all.put("resource_link_id", resource);
    all.put("resource_link_title", title);
    all.put("context_id", course.id());
    all.put("context_label", course.label());
    all.put("context_title", course.title());
    all.put("user_id", person.id());
    all.put("roles", person.role().handle);
    all.put("tool_consumer_instance_guid", platform);
    back.ifPresent(b -> all.put("launch_presentation_return_url", b));
    if (privacy.name()) {
      all.put("lis_person_name_full", person.name());
    }
    if (privacy.mail()) {
      all.put("lis_person_contact_email_primary", person.mail());
    }
    grades.ifPresent(
        g -> {
          all.put("lis_outcome_service_url", g.service());
          all.put("lis_result_sourcedid", g.result());
        });
    return all;
  }

  /** Small letters and digits, all else a low line (section 3, "custom_keyname"). */
  static String custom(String name) {
    return "custom_" + name.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]", "_");
  }

  /**
   * All that is posted (section 4).
   *
   * @param nonce never used before with this key
   */
  public SortedMap<String, String> signed(String key, String secret, Instant now, String nonce) {
    SortedMap<String, String> all = parameters();
    all.put("oauth_consumer_key", key);
    all.put("oauth_signature_method", "HMAC-SHA1");
    all.put("oauth_timestamp", Long.toString(now.getEpochSecond()));
    all.put("oauth_nonce", nonce);
    all.put("oauth_version", "1.0");
    all.put("oauth_callback", "about:blank");
    List<Parameter> signed = new ArrayList<>();
    for (Map.Entry<String, String> p : all.entrySet()) {
      signed.add(new Parameter(p.getKey(), p.getValue()));
    }
    String base = OAuthSignature.base("POST", link.address(), signed);
    all.put("oauth_signature", OAuthSignature.of(base, secret, ""));
    return all;
  }
}
