package org.zephyrmist.server.web;

import org.springframework.http.HttpStatus;

/** A call that cannot be carried out: what happened and what to do. */
public final class Refusal extends RuntimeException {
  private final HttpStatus status;
  private final String remedy;

  public Refusal(HttpStatus status, String problem, String remedy) {
    super(problem);
    this.status = status;
    this.remedy = remedy;
  }

  public static Refusal notFound(String what) {
    return new Refusal(
        HttpStatus.NOT_FOUND,
        "There is no such " + what + ", or it is not yours to see.",
        "Go back to the list and choose again.");
  }

  public static Refusal bad(String problem, String remedy) {
    return new Refusal(HttpStatus.UNPROCESSABLE_CONTENT, problem, remedy);
  }

  public HttpStatus status() {
    return status;
  }

  public String remedy() {
    return remedy;
  }
}
