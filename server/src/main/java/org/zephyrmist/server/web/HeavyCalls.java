package org.zephyrmist.server.web;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.security.Principal;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.HttpStatus;
import org.springframework.web.method.HandlerMethod;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/**
 * Gives each person a number of {@link Heavy} calls at once on this server. A few more wait in
 * line, in the order in which they came; who sends still more is told, so that the threads that
 * answer everybody never wait for one person.
 */
@Configuration
class HeavyCalls implements WebMvcConfigurer, HandlerInterceptor {
  private static final int AT_ONCE = 2;
  private static final int IN_LINE = 6;
  private static final int SECONDS = 120;
  private static final String MINE = HeavyCalls.class.getName();

  private final Map<String, Line> lines = new ConcurrentHashMap<>();

  /** Of one person; it is forgotten when nobody is in it. */
  private static final class Line {
    private final Semaphore places = new Semaphore(AT_ONCE, true);
    private final AtomicInteger calls = new AtomicInteger();
  }

  @Override
  public void addInterceptors(InterceptorRegistry registry) {
    registry.addInterceptor(this).addPathPatterns("/api/**");
  }

  @Override
  public boolean preHandle(HttpServletRequest call, HttpServletResponse answer, Object handler)
      throws InterruptedException {
    Principal who = call.getUserPrincipal();
    if (who == null
        || !(handler instanceof HandlerMethod m)
        || !m.hasMethodAnnotation(Heavy.class)) {
      return true;
    }
    Line line = enter(who.getName());
    if (line.calls.get() > AT_ONCE + IN_LINE) {
      leave(who.getName());
      throw tooMany();
    }
    boolean placed = false;
    try {
      placed = line.places.tryAcquire(SECONDS, TimeUnit.SECONDS);
    } finally {
      if (!placed) {
        leave(who.getName());
      }
    }
    if (!placed) {
      throw tooMany();
    }
    call.setAttribute(MINE, line);
    return true;
  }

  @Override
  public void afterCompletion(
      HttpServletRequest call, HttpServletResponse answer, Object handler, Exception e) {
    if (call.getAttribute(MINE) instanceof Line line) {
      call.removeAttribute(MINE);
      line.places.release();
      leave(call.getUserPrincipal().getName());
    }
  }

  private Line enter(String who) {
    return lines.compute(
        who,
        (name, known) -> {
          Line line = known == null ? new Line() : known;
          line.calls.incrementAndGet();
          return line;
        });
  }

  private void leave(String who) {
    lines.computeIfPresent(who, (name, line) -> line.calls.decrementAndGet() == 0 ? null : line);
  }

  private static Refusal tooMany() {
    return new Refusal(
        HttpStatus.TOO_MANY_REQUESTS,
        "You have " + (AT_ONCE + IN_LINE) + " large calls under way here already.",
        "Wait until some of them have ended, then try again.");
  }
}
