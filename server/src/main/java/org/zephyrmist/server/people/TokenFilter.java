package org.zephyrmist.server.people;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Optional;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.web.filter.OncePerRequestFilter;
import org.zephyrmist.server.web.Problems;

/** Calls with a personal access token. They have no session, and cookies do not count. */
final class TokenFilter extends OncePerRequestFilter {
  static final String BEARER = "Bearer ";
  private final Tokens tokens;

  TokenFilter(Tokens tokens) {
    this.tokens = tokens;
  }

  static boolean carriesToken(HttpServletRequest q) {
    String header = q.getHeader("Authorization");
    return header != null && header.startsWith(BEARER);
  }

  @Override
  protected void doFilterInternal(HttpServletRequest q, HttpServletResponse r, FilterChain chain)
      throws ServletException, IOException {
    Optional<Tokens.Bearer> bearer =
        tokens.find(q.getHeader("Authorization").substring(BEARER.length()).strip());
    if (bearer.isEmpty()) {
      Problems.write(
          r, 401, "This token is unknown or has expired.", "Make a new one under your name.");
      return;
    }
    Scope needed = Scope.of(q);
    if (needed == Scope.NONE || !bearer.get().scopes().contains(needed)) {
      Problems.write(
          r,
          403,
          needed == Scope.NONE
              ? "Tokens may not be used for this."
              : "This token is not meant for this; it needs the scope " + needed + ".",
          needed == Scope.NONE ? "Do it in the interface." : "Make a token with that scope.");
      return;
    }
    SignedIn who = bearer.get().person();
    SecurityContext context = SecurityContextHolder.createEmptyContext();
    context.setAuthentication(
        UsernamePasswordAuthenticationToken.authenticated(who, null, who.getAuthorities()));
    SecurityContextHolder.setContext(context);
    chain.doFilter(q, r);
  }
}
