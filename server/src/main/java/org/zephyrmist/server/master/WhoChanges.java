package org.zephyrmist.server.master;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.springframework.context.annotation.Configuration;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.HandlerMapping;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import org.zephyrmist.server.people.Role;
import org.zephyrmist.server.people.SignedIn;

/**
 * Before every call that changes a master: whether this person may, and whether it is still in use.
 * Who may see a master may not change it for that.
 */
@Configuration
class WhoChanges implements WebMvcConfigurer, HandlerInterceptor {
  private static final String OF = "/api/masters/{id}";
  private static final Set<String> SEEN = Set.of("GET", "HEAD", "OPTIONS");

  /** Calls that change nothing of the master, and one whose role is rarer still. */
  private static final Set<String> OTHERS = Set.of("/draft/here", "/packages", "/keepers");

  /** What may be done with one that is retired. */
  private static final Set<String> WHEN_RETIRED = Set.of("", "/retire", "/bring-back");

  private final Masters masters;

  WhoChanges(Masters masters) {
    this.masters = masters;
  }

  @Override
  public void addInterceptors(InterceptorRegistry registry) {
    registry.addInterceptor(this).addPathPatterns(OF, OF + "/**");
  }

  @Override
  public boolean preHandle(HttpServletRequest call, HttpServletResponse answer, Object handler) {
    Object who = SecurityContextHolder.getContext().getAuthentication().getPrincipal();
    String pattern = "" + call.getAttribute(HandlerMapping.BEST_MATCHING_PATTERN_ATTRIBUTE);
    Optional<UUID> master = master(call, pattern);
    if (SEEN.contains(call.getMethod())
        || master.isEmpty()
        || !(who instanceof SignedIn person)
        || person.role() == Role.INSTRUCTOR) { // whose role is looked at first
      return true;
    }
    String path = pattern.substring(OF.length());
    if (WHEN_RETIRED.contains(path)) {
      masters.rightful(master.get(), person);
    } else if (!OTHERS.contains(path)) {
      masters.toChange(master.get(), person);
    }
    return true;
  }

  private static Optional<UUID> master(HttpServletRequest call, String pattern) {
    Object named = call.getAttribute(HandlerMapping.URI_TEMPLATE_VARIABLES_ATTRIBUTE);
    if (!(named instanceof Map<?, ?> values) || !pattern.startsWith(OF)) {
      return Optional.empty();
    }
    try {
      return Optional.of(UUID.fromString("" + values.get("id")));
    } catch (IllegalArgumentException noId) {
      return Optional.empty(); // which the call itself says
    }
  }
}
