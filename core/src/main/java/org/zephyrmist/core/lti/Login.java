package org.zephyrmist.core.lti;

import java.util.SortedMap;
import java.util.TreeMap;

/**
 * The begin of a login by a platform (1EdTech Security Framework 1.0, section 5.1.1.1; LTI 1.3
 * core, section 4.1).
 *
 * @param issuer the platform
 * @param target where the person wants to go
 * @param hint who it is, for the platform to know again
 * @param message what is to be sent, for the platform to know again
 */
public record Login(
    String issuer, String target, Registration registration, String hint, String message) {

  public SortedMap<String, String> parameters() {
    SortedMap<String, String> all = new TreeMap<>();
    all.put("iss", issuer);
    all.put("login_hint", hint);
    all.put("target_link_uri", target);
    all.put("lti_message_hint", message);
    all.put("client_id", registration.client());
    all.put("lti_deployment_id", registration.deployment());
    return all;
  }
}
