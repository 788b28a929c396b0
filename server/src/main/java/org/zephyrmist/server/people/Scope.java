package org.zephyrmist.server.people;

import jakarta.servlet.http.HttpServletRequest;
import org.zephyrmist.server.web.CallPath;

/** What a token may be used for. */
public enum Scope {
  /** Look at everything that its person may see. */
  READ,
  /** Take packages in, make and edit masters, freeze versions. */
  SOURCES,
  /** Plan, confirm, stop and go on with deliveries; read shells again. */
  DELIVER,
  /** Take rosters in, name platforms. */
  COLLEGE,
  /** Not for tokens at all: people, passwords and tokens themselves. */
  NONE;

  /** The scope that a call needs. */
  static Scope of(HttpServletRequest q) {
    String path = CallPath.of(q);
    if (path.startsWith("/api/me/")
        || path.startsWith("/api/lti/")
        || path.startsWith("/api/calendars/due/addresses")) {
      return NONE;
    }
    if (q.getMethod().equals("GET") || q.getMethod().equals("HEAD")) {
      return READ;
    }
    if (path.startsWith("/api/cartridges")
        || path.startsWith("/api/masters")
        || path.startsWith("/api/tools/tasks") // what tools say of tasks goes into drafts
        || path.startsWith("/api/tools/rules/") && path.endsWith("/draft")
        || path.startsWith("/api/archives")) {
      return SOURCES;
    }
    boolean applies = path.endsWith("/apply"); // what was entered is put to use
    if (path.startsWith("/api/tools/connections") && !applies) {
      return COLLEGE;
    }
    if (path.startsWith("/api/deliveries")
        || path.startsWith("/api/tools")
        || path.startsWith("/api/hand-overs")
        || path.startsWith("/api/packages")
        || path.startsWith("/api/shells")
        || path.startsWith("/api/checks/") && !path.startsWith("/api/checks/choices")
        || path.startsWith("/api/coverage")) {
      return DELIVER;
    }
    return path.startsWith("/api/roster")
            || path.startsWith("/api/platforms")
            || path.startsWith("/api/calendars")
            || path.startsWith("/api/checks/choices")
            || path.startsWith("/api/values")
        ? COLLEGE
        : NONE;
  }
}
