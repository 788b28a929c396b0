package org.zephyrmist.core.lti;

/**
 * A score as a tool sends it (LTI Assignment and Grade Services 2.0, section 3.4).
 *
 * @param given at least 0; more than the maximum for extra credit
 * @param maximum more than 0
 */
public record Score(double given, double maximum) {
  public Score {
    if (!(given >= 0) || !(maximum > 0) || Double.isInfinite(given) || Double.isInfinite(maximum)) {
      throw new OidcError(
          "invalid_request", "scoreGiven is 0 or more, scoreMaximum is more than 0");
    }
  }

  /** As it counts where there are other points (section 3.4). */
  public double of(double points) {
    return given * points / maximum;
  }
}
