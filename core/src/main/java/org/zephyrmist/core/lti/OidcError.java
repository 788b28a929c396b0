package org.zephyrmist.core.lti;

/** An error as OpenID Connect Core 1.0, section 3.1.2.6, and RFC 6749, section 4.1.2.1, name it. */
public final class OidcError extends RuntimeException {
  private static final long serialVersionUID = 1;
  private final String code;

  public OidcError(String code, String description) {
    super(description);
    this.code = code;
  }

  /** Such as {@code invalid_request}. */
  public String code() {
    return code;
  }
}
