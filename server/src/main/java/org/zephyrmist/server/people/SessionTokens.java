package org.zephyrmist.server.people;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import org.springframework.security.web.csrf.CookieCsrfTokenRepository;
import org.springframework.security.web.csrf.CsrfToken;
import org.springframework.security.web.csrf.CsrfTokenRepository;
import org.springframework.security.web.csrf.DefaultCsrfToken;

/**
 * Tokens against forged calls. Each belongs to one session and is kept there; the cookie, from
 * which our pages read it, is a copy that proves nothing. Before there is a session, at the
 * sign-in, the cookie alone counts.
 */
final class SessionTokens implements CsrfTokenRepository {
  private static final String KEPT = SessionTokens.class.getName();
  private final CookieCsrfTokenRepository cookie = CookieCsrfTokenRepository.withHttpOnlyFalse();

  @Override
  public CsrfToken generateToken(HttpServletRequest call) {
    return cookie.generateToken(call);
  }

  @Override
  public void saveToken(CsrfToken token, HttpServletRequest call, HttpServletResponse answer) {
    call.setAttribute(KEPT, token == null ? null : token.getToken());
    bind(call);
    cookie.saveToken(token, call, answer);
  }

  /** The token that this call was given belongs to its session, which may be younger. */
  static void bind(HttpServletRequest call) {
    HttpSession session = call.getSession(false);
    if (session != null) {
      session.setAttribute(KEPT, call.getAttribute(KEPT));
    }
  }

  @Override
  public CsrfToken loadToken(HttpServletRequest call) {
    HttpSession session = call.getSession(false);
    if (session == null) {
      return cookie.loadToken(call);
    }
    CsrfToken named = cookie.generateToken(call);
    return session.getAttribute(KEPT) instanceof String kept
        ? new DefaultCsrfToken(named.getHeaderName(), named.getParameterName(), kept)
        : null;
  }
}
