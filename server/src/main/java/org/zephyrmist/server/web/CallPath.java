package org.zephyrmist.server.web;

import jakarta.servlet.http.HttpServletRequest;

/** The path of a call as controllers match it: decoded, without parameters in it. */
public final class CallPath {
  private CallPath() {}

  /** The one place that rules about paths look at; the raw address can be spelled in many ways. */
  public static String of(HttpServletRequest q) {
    String more = q.getPathInfo();
    return more == null ? q.getServletPath() : q.getServletPath() + more;
  }
}
