package org.zephyrmist.server.people;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.Ordered;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.security.authorization.method.PreAuthorizeAuthorizationManager;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.util.SimpleMethodInvocation;
import org.springframework.web.method.HandlerMethod;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/**
 * Before a call's body is read: whether this role may make the call at all. Who may not is told so,
 * not what is wrong with what was sent. No rule looks at what is sent; the call itself asks again.
 */
@Configuration
class RoleFirst implements WebMvcConfigurer, HandlerInterceptor, Ordered {
  private final PreAuthorizeAuthorizationManager rules = new PreAuthorizeAuthorizationManager();

  @Override
  public int getOrder() {
    return HIGHEST_PRECEDENCE;
  }

  @Override
  public void addInterceptors(InterceptorRegistry registry) {
    registry.addInterceptor(this).addPathPatterns("/api/**").order(HIGHEST_PRECEDENCE);
  }

  @Override
  public boolean preHandle(HttpServletRequest call, HttpServletResponse answer, Object handler) {
    if (handler instanceof HandlerMethod m) {
      var asked = new SimpleMethodInvocation(m.getBean(), m.getMethod()) {};
      var told =
          rules.authorize(() -> SecurityContextHolder.getContext().getAuthentication(), asked);
      if (told != null && !told.isGranted()) {
        throw new AccessDeniedException("Not with this role");
      }
    }
    return true;
  }
}
