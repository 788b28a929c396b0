package org.zephyrmist.core.cartridge;

import java.util.List;
import java.util.Set;

/**
 * What a package says about itself; what it does not say is empty.
 *
 * @param title in the package's own language, where it has several
 * @param profile for instance "Common Cartridge 1.3"
 * @param restricted whether it asks for authorisation before use
 * @param identifier that its maker gave it
 * @param publisher who published it
 * @param asks what it asks for before use, in words
 * @param keywords of its subject
 * @param level for whom it was made
 * @param cost whether it costs something: "yes" or "no"
 */
public record CartridgeFacts(
    String title,
    String description,
    String language,
    String rights,
    String profile,
    boolean restricted,
    String identifier,
    String publisher,
    String asks,
    List<String> keywords,
    String level,
    String cost) {
  private static final Set<String> KNOWN = Set.of("1.0", "1.1", "1.2", "1.3");

  /** Reports that were kept before some of it was read do not have it. */
  public CartridgeFacts {
    identifier = identifier == null ? "" : identifier;
    publisher = publisher == null ? "" : publisher;
    asks = asks == null ? "" : asks;
    keywords = keywords == null ? List.of() : List.copyOf(keywords);
    level = level == null ? "" : level;
    cost = cost == null ? "" : cost;
  }

  /** Without identifier, publisher and keywords. */
  public CartridgeFacts(
      String title,
      String description,
      String language,
      String rights,
      String profile,
      boolean restricted) {
    this(title, description, language, rights, profile, restricted, "", "", "", List.of(), "", "");
  }

  /** Whether it is of a version of the standard that we know, or of another profile. */
  boolean known() {
    return !profile.contains("Common Cartridge")
        || KNOWN.contains(profile.substring(profile.lastIndexOf(' ') + 1));
  }
}
