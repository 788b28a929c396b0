package org.zephyrmist.core.lti;

import static org.zephyrmist.core.lti.SignedByTool.wrong;

import com.nimbusds.jwt.JWTClaimsSet;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.zephyrmist.core.tool.RelinkRule.Link;

/**
 * What somebody picked in a tool (LTI Deep Linking 2.0, section 4.5).
 *
 * @param data of the request that it answers
 * @param message the tool's own words; empty if it says none
 * @param left types of items that a master cannot hold
 */
public record Picked(String data, List<Resource> resources, List<String> left, String message) {
  private static final int MOST = 200;
  private static final int LONGEST = 2000;

  /**
   * A resource.
   *
   * @param tool whether it is launched; else it is an ordinary address
   * @param points that the tool grades it with (section 3.2, "scoreMaximum")
   */
  public record Resource(
      boolean tool, String title, String text, Link link, Optional<Double> points) {}

  public Picked {
    resources = List.copyOf(resources);
    left = List.copyOf(left);
  }

  /**
   * @param jwt as the tool sent it
   * @param keySet of the tool, as it was got
   * @param issuer the platform that it has to be for
   * @throws OidcError for the first thing that is wrong
   */
  public static Picked of(String jwt, String keySet, Registration r, String issuer, Instant now) {
    JWTClaimsSet c = SignedByTool.claims(jwt, keySet, r.client(), issuer, now);
    if (!"LtiDeepLinkingResponse".equals(c.getClaim(Messages.LTI + "message_type"))) {
      throw wrong("message_type is not LtiDeepLinkingResponse");
    }
    if (!"1.3.0".equals(c.getClaim(Messages.LTI + "version"))) {
      throw wrong("version is not 1.3.0");
    }
    if (!r.deployment().equals(c.getClaim(Messages.LTI + "deployment_id"))) {
      throw wrong("deployment_id is not " + r.deployment());
    }
    if (!(c.getClaim(Messages.DEEP + "data") instanceof String data)) {
      throw wrong("data of the request is missing");
    }
    List<Resource> resources = new ArrayList<>();
    List<String> left = new ArrayList<>();
    if (c.getClaim(Messages.DEEP + "content_items") instanceof List<?> items) {
      if (items.size() > MOST) {
        throw wrong("more than " + MOST + " items at once");
      }
      items.forEach(i -> item(i, r, resources, left));
    }
    return new Picked(data, resources, left, text(c.getClaim(Messages.DEEP + "msg")));
  }

  private static void item(
      Object given, Registration r, List<Resource> resources, List<String> left) {
    if (!(given instanceof Map<?, ?> i)) {
      throw wrong("content_items holds something that is no item");
    }
    String type = text(i.get("type"));
    boolean tool = type.equals("ltiResourceLink");
    String url = text(i.get("url"));
    String address = tool && url.isEmpty() ? r.launches().get(0) : url; // section 3.2, "url"
    boolean fits = (tool || type.equals("link")) && address.matches("(?i)https?://[^/?#\\s]+\\S*");
    if (!fits) {
      left.add(type);
      return;
    }
    TreeMap<String, String> sent = new TreeMap<>();
    if (tool && i.get("custom") instanceof Map<?, ?> custom) {
      custom.forEach((k, v) -> sent.put(text(k), text(v)));
    }
    Optional<Double> points =
        i.get("lineItem") instanceof Map<?, ?> l && l.get("scoreMaximum") instanceof Number n
            ? Optional.of(n.doubleValue()).filter(p -> p > 0)
            : Optional.empty();
    String title = text(i.get("title"));
    resources.add(
        new Resource(
            tool,
            title.isEmpty() ? address : title,
            text(i.get("text")),
            new Link(address, sent),
            points));
  }

  private static String text(Object o) {
    String all = o == null ? "" : o.toString().strip();
    return all.length() > LONGEST ? all.substring(0, LONGEST) : all;
  }
}
