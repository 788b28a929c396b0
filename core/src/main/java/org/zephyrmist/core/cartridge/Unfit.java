package org.zephyrmist.core.cartridge;

import java.io.IOException;

/** A file of the archive cannot be used. Goes through streams; the reader makes it a refusal. */
final class Unfit extends IOException {
  private final String name;
  private final String remedy;

  private Unfit(String name, String problem, String remedy) {
    super(problem);
    this.name = name;
    this.remedy = remedy;
  }

  static Unfit large(String name, String problem) {
    return new Unfit(name, problem, "Do not use this package, or raise the limit for it.");
  }

  static Unfit damaged(String name, IOException why) {
    return why instanceof Unfit u
        ? u
        : new Unfit(
            name,
            "The file is damaged in the archive: " + why.getMessage() + ".",
            "Download the package again; if that does not help, ask for a fresh export.");
  }

  CartridgeException refusal() {
    return new CartridgeException(name, getMessage(), remedy);
  }
}
