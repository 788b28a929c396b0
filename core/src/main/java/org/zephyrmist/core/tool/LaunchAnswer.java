package org.zephyrmist.core.tool;

import org.jsoup.Jsoup;

/**
 * What a tool made of a launch.
 *
 * @param said its own words, or what happened instead
 */
public record LaunchAnswer(Outcome outcome, String said) {
  /** Whether it let the person in. */
  public enum Outcome {
    OPENED,
    /** It answered that it would not. */
    REFUSED,
    /** It did not answer, or with an error of its own. */
    NO_ANSWER
  }

  public boolean opened() {
    return outcome == Outcome.OPENED;
  }

  private static final int MOST = 300;
  private static final int CLIENT_ERROR = 400;
  private static final int SERVER_ERROR = 500;
  private static final int TOO_MANY = 429;

  /**
   * From the answer to the post of the launch, redirects followed but for one that leads back.
   *
   * @param status of HTTP
   * @param location where it leads on to; empty if nowhere
   * @param back where the tool may send the person back to (LTI 1.1.1, section 3, "
   *     launch_presentation_return_url")
   * @param page that came with it
   */
  public static LaunchAnswer of(int status, String location, String back, String page) {
    if (!back.isEmpty() && location.startsWith(back)) {
      String said = Query.of(location).getOrDefault("lti_errormsg", "");
      return new LaunchAnswer(Outcome.REFUSED, cut(said));
    }
    if (status < CLIENT_ERROR) {
      return new LaunchAnswer(Outcome.OPENED, "");
    }
    boolean refused = status < SERVER_ERROR && status != TOO_MANY;
    String said = refused ? cut(Jsoup.parse(page).body().text()) : "";
    return new LaunchAnswer(
        refused ? Outcome.REFUSED : Outcome.NO_ANSWER,
        "HTTP status " + status + (said.isEmpty() ? "" : ": " + said));
  }

  private static String cut(String said) {
    String line = said.replaceAll("\\s+", " ").strip();
    return line.length() > MOST ? line.substring(0, MOST) + " …" : line;
  }
}
