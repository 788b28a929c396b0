package org.zephyrmist.core.cartridge;

import java.util.regex.Pattern;

/** The package cannot be read. Says where and what to do. */
public final class CartridgeException extends Exception {
  /** Names in hostile archives hold anything, and this is stored, logged and shown. */
  private static final Pattern UNSEEN = Pattern.compile("\\p{Cc}");

  private final String place;
  private final String remedy;

  public CartridgeException(String place, String problem, String remedy) {
    super(UNSEEN.matcher(problem).replaceAll("·"));
    this.place = UNSEEN.matcher(place).replaceAll("·");
    this.remedy = remedy;
  }

  /** File inside the package, and line where there is one; empty for the package itself. */
  public String place() {
    return place;
  }

  public String remedy() {
    return remedy;
  }
}
