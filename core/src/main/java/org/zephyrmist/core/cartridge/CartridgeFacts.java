package org.zephyrmist.core.cartridge;

/**
 * What a package says about itself; what it does not say is empty.
 *
 * @param profile for instance "Common Cartridge 1.3"
 * @param restricted whether it asks for authorisation before use
 */
public record CartridgeFacts(
    String title,
    String description,
    String language,
    String rights,
    String profile,
    boolean restricted) {}
