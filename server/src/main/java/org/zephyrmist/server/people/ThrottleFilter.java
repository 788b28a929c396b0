package org.zephyrmist.server.people;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.time.Duration;
import java.util.Optional;
import org.springframework.web.filter.OncePerRequestFilter;
import org.zephyrmist.server.web.CallPath;
import org.zephyrmist.server.web.Problems;

/** Lets a sign-in through only when its time has come. */
final class ThrottleFilter extends OncePerRequestFilter {
  private final SignIns signIns;

  ThrottleFilter(SignIns signIns) {
    this.signIns = signIns;
  }

  static String email(HttpServletRequest q) {
    return Optional.ofNullable(q.getParameter("username")).orElse("");
  }

  @Override
  protected boolean shouldNotFilter(HttpServletRequest q) {
    return !(q.getMethod().equals("POST") && CallPath.of(q).equals("/api/sign-in"));
  }

  @Override
  protected void doFilterInternal(HttpServletRequest q, HttpServletResponse r, FilterChain chain)
      throws ServletException, IOException {
    Duration wait = signIns.begin(email(q), q.getRemoteAddr());
    if (wait.isZero() || wait.isNegative()) {
      chain.doFilter(q, r);
      return;
    }
    long seconds = Math.max(1, wait.toSeconds());
    r.setHeader("Retry-After", String.valueOf(seconds));
    Problems.write(
        r,
        429,
        "Too many sign-ins have failed.",
        "Try again in " + seconds + (seconds == 1 ? " second." : " seconds."));
  }
}
