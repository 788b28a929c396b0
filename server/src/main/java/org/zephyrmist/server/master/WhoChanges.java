package org.zephyrmist.server.master;

import static org.zephyrmist.server.db.Tables.MASTER;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.HandlerMapping;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import org.zephyrmist.server.db.tables.records.MasterRecord;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.Role;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/**
 * Before every call that changes a master: whether this person may, and whether it is still in use.
 * Who may see a master may not change it for that.
 */
@Configuration
class WhoChanges implements WebMvcConfigurer, HandlerInterceptor {
  private static final Set<String> SEEN = Set.of("GET", "HEAD", "OPTIONS");

  /** Calls that change nothing of the master, and one whose role is rarer still. */
  private static final Set<String> OTHERS = Set.of("/draft/here", "/packages", "/keepers");

  /** What may be done with one that is retired. */
  private static final Set<String> WHEN_RETIRED = Set.of("", "/retire", "/bring-back");

  private final DSLContext db;
  private final Reach reach;

  WhoChanges(DSLContext db, Reach reach) {
    this.db = db;
    this.reach = reach;
  }

  @Override
  public void addInterceptors(InterceptorRegistry registry) {
    registry.addInterceptor(this).addPathPatterns("/api/masters/{id}", "/api/masters/{id}/**");
  }

  @Override
  public boolean preHandle(HttpServletRequest call, HttpServletResponse answer, Object handler) {
    Object who = SecurityContextHolder.getContext().getAuthentication().getPrincipal();
    Optional<UUID> master = master(call);
    if (SEEN.contains(call.getMethod())
        || master.isEmpty()
        || !(who instanceof SignedIn person)
        || person.role() == Role.INSTRUCTOR) { // whose role is looked at first
      return true;
    }
    String path = call.getRequestURI().replaceFirst("^/api/masters/[^/]+", "");
    if (!OTHERS.contains(path)) {
      look(master.get(), path, person);
    }
    return true;
  }

  private static Optional<UUID> master(HttpServletRequest call) {
    Object named = call.getAttribute(HandlerMapping.URI_TEMPLATE_VARIABLES_ATTRIBUTE);
    String pattern = "" + call.getAttribute(HandlerMapping.BEST_MATCHING_PATTERN_ATTRIBUTE);
    if (!(named instanceof Map<?, ?> values) || !pattern.startsWith("/api/masters/{id}")) {
      return Optional.empty();
    }
    try {
      return Optional.of(UUID.fromString("" + values.get("id")));
    } catch (IllegalArgumentException noId) {
      return Optional.empty(); // which the call itself says
    }
  }

  private void look(UUID id, String path, SignedIn who) {
    MasterRecord m =
        db.selectFrom(MASTER)
            .where(MASTER.ID.eq(id))
            .and(reach.masters(who))
            .fetchOptional()
            .orElseThrow(() -> Refusal.notFound("master"));
    if (!db.fetchExists(MASTER, MASTER.ID.eq(id).and(reach.changes(who)))) {
      throw new Refusal(
          HttpStatus.FORBIDDEN,
          m.getCode() + " is the whole college's.",
          "An administrator changes it, or names you among those who do.");
    }
    if (m.getRetiredAt() != null && !WHEN_RETIRED.contains(path)) {
      throw new Refusal(
          HttpStatus.CONFLICT,
          m.getCode() + " is retired: nothing of it changes.",
          "Bring it back into use first.");
    }
  }
}
