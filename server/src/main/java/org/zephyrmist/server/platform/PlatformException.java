package org.zephyrmist.server.platform;

/** A platform did not do what it was asked. */
public final class PlatformException extends RuntimeException {
  private final boolean mayPass;
  private final String remedy;

  public PlatformException(String problem, String remedy, boolean mayPass, Throwable cause) {
    super(problem, cause);
    this.mayPass = mayPass;
    this.remedy = remedy;
  }

  /** Whether the same call may go through later. */
  public boolean mayPass() {
    return mayPass;
  }

  public String remedy() {
    return remedy;
  }
}
