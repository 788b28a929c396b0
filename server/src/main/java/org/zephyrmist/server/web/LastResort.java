package org.zephyrmist.server.web;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/** Whatever fails before or after a controller is answered as a problem, too. */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
class LastResort extends OncePerRequestFilter {
  private static final Logger LOG = LoggerFactory.getLogger(LastResort.class);

  @Override
  protected boolean shouldNotFilterAsyncDispatch() {
    return false;
  }

  @Override
  protected void doFilterInternal(HttpServletRequest q, HttpServletResponse r, FilterChain chain)
      throws ServletException, IOException {
    try {
      chain.doFilter(q, r);
    } catch (IOException | ServletException | RuntimeException e) {
      if (r.isCommitted()) {
        throw e; // the answer is under way: the connection is cut, so that nobody takes it for
        // whole
      }
      r.reset();
      Refusal refusal = Outage.of(e).orElse(null);
      if (refusal == null && e instanceof IOException) {
        LOG.info("{} {} broke off: {}", q.getMethod(), q.getServletPath(), e.toString());
        Problems.write(r, 400, "The call broke off.", "Send it again.");
      } else if (refusal == null) {
        LOG.error("{} {} failed", q.getMethod(), q.getServletPath(), e);
        Problems.write(
            r, 500, "Something went wrong in Zephyrmist itself.", "Try again; tell its people.");
      } else {
        r.setHeader("Retry-After", "5");
        Problems.write(r, refusal.status().value(), refusal.getMessage(), refusal.remedy());
      }
    }
  }
}
