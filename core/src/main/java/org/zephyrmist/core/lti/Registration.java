package org.zephyrmist.core.lti;

import java.net.URI;
import java.util.List;
import java.util.Optional;

/**
 * A tool as it is registered with a platform (LTI 1.3 core, section 3.1.3; 1EdTech Security
 * Framework 1.0, section 5.1.1).
 *
 * @param client that the platform gave it
 * @param deployment of it (LTI 1.3 core, section 3.1.3)
 * @param login where logins are begun
 * @param launches where messages may be sent
 * @param keySet where its public keys are
 */
public record Registration(
    String client, String deployment, String login, List<String> launches, String keySet) {
  private static final int MOST = 255;

  public Registration {
    launches = List.copyOf(launches);
  }

  /** What is wrong with it, to be shown; nothing if it can be used. */
  public Optional<String> wrong() {
    if (client.isEmpty() || deployment.isEmpty()) {
      return Optional.of("A registration has a client id and a deployment id.");
    }
    if (client.length() > MOST || deployment.length() > MOST) {
      return Optional.of("An id of a registration is longer than " + MOST + " signs.");
    }
    if (launches.isEmpty()) {
      return Optional.of("A registration says where its launches go.");
    }
    if (!address(login)) {
      return Optional.of("“" + login + "” is no address where a login can begin.");
    }
    if (!address(keySet)) {
      return Optional.of("“" + keySet + "” is no address where its keys can be.");
    }
    return launches.stream()
        .filter(l -> !address(l))
        .findFirst()
        .map(l -> "“" + l + "” is no address that can be launched.");
  }

  private static boolean address(String text) {
    try {
      URI uri = URI.create(text);
      return uri.getHost() != null && uri.getScheme().matches("(?i)https?");
    } catch (IllegalArgumentException noAddress) {
      return false;
    }
  }
}
