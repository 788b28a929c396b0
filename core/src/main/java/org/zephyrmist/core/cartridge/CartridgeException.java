package org.zephyrmist.core.cartridge;

import java.util.regex.Pattern;

/** The package cannot be read. Says where and what to do. */
public final class CartridgeException extends Exception {
  /** Names in hostile archives hold anything, and this is stored, logged and shown. */
  private static final Pattern UNSEEN = Pattern.compile("\\p{Cc}");

  private final String place;
  private final String remedy;
  private final boolean torn;

  public CartridgeException(String place, String problem, String remedy) {
    this(place, problem, remedy, false);
  }

  private CartridgeException(String place, String problem, String remedy, boolean torn) {
    super(UNSEEN.matcher(problem).replaceAll("·"));
    this.place = UNSEEN.matcher(place).replaceAll("·");
    this.remedy = remedy;
    this.torn = torn;
  }

  /** One file is damaged; the rest of the package may be good. */
  static CartridgeException torn(String place, String problem, String remedy) {
    return new CartridgeException(place, problem, remedy, true);
  }

  /** Whether only this file is damaged, so that the rest can be taken without it. */
  boolean isTorn() {
    return torn;
  }

  /** File inside the package, and line where there is one; empty for the package itself. */
  public String place() {
    return place;
  }

  public String remedy() {
    return remedy;
  }
}
