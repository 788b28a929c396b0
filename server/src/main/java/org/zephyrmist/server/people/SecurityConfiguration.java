package org.zephyrmist.server.people;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.HttpMethod;
import org.springframework.http.MediaType;
import org.springframework.security.config.annotation.method.configuration.EnableMethodSecurity;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.crypto.factory.PasswordEncoderFactories;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter.ReferrerPolicy;

/** Sign-in with sessions, CSRF tokens, headers. What a role may do stands at each call. */
@Configuration
@EnableMethodSecurity
class SecurityConfiguration {
  private static final String POLICY =
      "default-src 'self'; img-src 'self' data:; style-src 'self' 'unsafe-inline'; font-src 'self';"
          + " frame-src 'self'; object-src 'none'; base-uri 'none'; form-action 'self';"
          + " frame-ancestors 'self'";

  @Bean
  SecurityFilterChain chain(HttpSecurity http) throws Exception {
    http.authorizeHttpRequests(
            a ->
                a.requestMatchers(HttpMethod.POST, "/api/sign-in")
                    .permitAll()
                    .requestMatchers("/api/first-person", "/api/ready")
                    .permitAll()
                    .requestMatchers("/api/**")
                    .authenticated()
                    .anyRequest()
                    .permitAll())
        .formLogin(
            f ->
                f.loginPage("/sign-in")
                    .loginProcessingUrl("/api/sign-in")
                    .successHandler((q, r, a) -> r.setStatus(HttpServletResponse.SC_NO_CONTENT))
                    .failureHandler(
                        (q, r, e) ->
                            problem(
                                r,
                                401,
                                "This address and password do not belong together.",
                                "Try again, or ask an administrator for a new password."))
                    .permitAll())
        .logout(
            l -> l.logoutUrl("/api/sign-out").logoutSuccessHandler((q, r, a) -> r.setStatus(204)))
        .csrf(c -> c.spa())
        .exceptionHandling(
            x ->
                x.authenticationEntryPoint(
                        (q, r, e) -> problem(r, 401, "You are not signed in.", "Sign in again."))
                    .accessDeniedHandler(
                        (q, r, e) ->
                            problem(
                                r,
                                403,
                                "Your role may not do this.",
                                "Ask a person whose role may.")))
        .headers(
            h ->
                h.contentSecurityPolicy(c -> c.policyDirectives(POLICY))
                    .frameOptions(f -> f.sameOrigin())
                    .referrerPolicy(r -> r.policy(ReferrerPolicy.SAME_ORIGIN)));
    return http.build();
  }

  private static void problem(HttpServletResponse r, int status, String detail, String remedy)
      throws IOException {
    r.setStatus(status);
    r.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
    r.setCharacterEncoding("UTF-8");
    r.getWriter()
        .write(
            "{\"status\":%d,\"detail\":\"%s\",\"remedy\":\"%s\"}"
                .formatted(status, detail, remedy));
  }

  @Bean
  PasswordEncoder passwords() {
    return PasswordEncoderFactories.createDelegatingPasswordEncoder();
  }
}
