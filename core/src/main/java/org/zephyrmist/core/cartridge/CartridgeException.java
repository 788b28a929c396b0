package org.zephyrmist.core.cartridge;

/** The package cannot be read. Says where and what to do. */
public final class CartridgeException extends Exception {
  private final String place;
  private final String remedy;

  public CartridgeException(String place, String problem, String remedy) {
    super(problem);
    this.place = place;
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
