package org.zephyrmist.standins.platform;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import org.springframework.web.util.ContentCachingResponseWrapper;
import org.zephyrmist.standins.db.tables.records.FaultRecord;

/** Makes calls for programs go wrong as the knobs say. */
@Component
@Order(10)
class FaultFilter extends OncePerRequestFilter {
  /** Request attribute with the kind of a fault that happens inside a batch. */
  static final String INSIDE = "fault";

  private static final Pattern SHELL = Pattern.compile("/api/shells/([^/]+)/.*");
  private final Faults faults;

  FaultFilter(Faults faults) {
    this.faults = faults;
  }

  @Override
  protected boolean shouldNotFilter(HttpServletRequest request) {
    String path = request.getServletPath();
    boolean makes = request.getMethod().equals("POST") && path.equals("/api/shells");
    // asked by itself at any time, which would use up faults that are meant for others
    boolean looks = path.equals("/api/tools/look");
    return !path.startsWith("/api/") || path.startsWith("/api/faults") || makes || looks;
  }

  @Override
  protected void doFilterInternal(HttpServletRequest q, HttpServletResponse r, FilterChain chain)
      throws ServletException, IOException {
    Matcher shell = SHELL.matcher(q.getServletPath());
    Optional<FaultRecord> fault = faults.next(shell.matches() ? shell.group(1) : "");
    if (fault.isEmpty()) {
      chain.doFilter(q, r);
      return;
    }
    FaultRecord f = fault.get();
    Faults.Kind kind = Faults.Kind.valueOf(f.getKind());
    switch (kind) {
      case SLOW -> {
        pause(f.getSeconds());
        chain.doFilter(q, r);
      }
      case REFUSE -> r.sendError(HttpServletResponse.SC_FORBIDDEN);
      case TOKEN -> r.sendError(HttpServletResponse.SC_UNAUTHORIZED);
      case LIMIT -> {
        r.setHeader("Retry-After", String.valueOf((int) Math.ceil(f.getSeconds())));
        r.sendError(429);
      }
      case ERROR -> r.sendError(f.getStatus());
      case CUT, DOWN -> cut(r);
      case LOSE -> {
        chain.doFilter(q, new ContentCachingResponseWrapper(r));
        cut(r);
      }
      case PART, MEDDLE, UNCONNECTED -> {
        q.setAttribute(INSIDE, kind);
        chain.doFilter(q, r);
      }
    }
  }

  private static void pause(double seconds) throws IOException {
    try {
      Thread.sleep((long) (seconds * 1000));
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IOException(e);
    }
  }

  /** Promises more than it sends, then closes. */
  private static void cut(HttpServletResponse r) throws IOException {
    r.reset();
    r.setHeader("Connection", "close");
    r.setContentLength(1_000);
    r.getOutputStream().write('{');
    r.flushBuffer();
  }
}
