package org.zephyrmist.server.people;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.regex.Pattern;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.beans.factory.config.BeanPostProcessor;
import org.springframework.boot.web.servlet.AbstractFilterRegistrationBean;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpMethod;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.security.config.annotation.method.configuration.EnableMethodSecurity;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.annotation.web.configurers.HeadersConfigurer;
import org.springframework.security.config.http.SessionCreationPolicy;
import org.springframework.security.core.Authentication;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.security.crypto.password.DelegatingPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.authentication.UsernamePasswordAuthenticationFilter;
import org.springframework.security.web.context.SecurityContextHolderFilter;
import org.springframework.security.web.csrf.CsrfException;
import org.springframework.security.web.firewall.FirewalledRequest;
import org.springframework.security.web.firewall.HttpFirewall;
import org.springframework.security.web.firewall.RequestRejectedHandler;
import org.springframework.security.web.firewall.StrictHttpFirewall;
import org.springframework.security.web.header.writers.CrossOriginOpenerPolicyHeaderWriter.CrossOriginOpenerPolicy;
import org.springframework.security.web.header.writers.CrossOriginResourcePolicyHeaderWriter.CrossOriginResourcePolicy;
import org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter.ReferrerPolicy;
import org.zephyrmist.server.web.Problems;

/**
 * Sign-in with sessions or tokens, CSRF tokens, headers. What a role may do stands at each call and
 * in docs/security.md.
 */
@Configuration
@EnableMethodSecurity
class SecurityConfiguration {
  /** As it is sent: a semicolon of a name is encoded there. */
  private static final Pattern FILE = Pattern.compile("/api/files/[0-9a-f]{64}/[^/;\\\\]+");

  private static final String PICKED = "/api/lti/picked/*";
  private static final String POLICY =
      "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data:;"
          + " font-src 'self'; connect-src 'self'; frame-src 'self'; object-src 'none';"
          + " base-uri 'none'; form-action 'self'; frame-ancestors 'self'";
  private static final String PERMISSIONS =
      "camera=(), microphone=(), geolocation=(), payment=(), usb=(), interest-cohort=()";

  /** Scripts: a token in the header, no session, no cookie, so no CSRF either. */
  @Bean
  @Order(1)
  SecurityFilterChain scriptCalls(HttpSecurity http, Tokens tokens) throws Exception {
    return http.securityMatcher(TokenFilter::carriesToken)
        .sessionManagement(s -> s.sessionCreationPolicy(SessionCreationPolicy.STATELESS))
        .csrf(c -> c.disable())
        .requestCache(c -> c.disable())
        .addFilterAfter(new TokenFilter(tokens), SecurityContextHolderFilter.class)
        .authorizeHttpRequests(a -> a.anyRequest().authenticated())
        .exceptionHandling(x -> x.accessDeniedHandler((q, r, e) -> notAllowed(r)))
        .headers(SecurityConfiguration::headers)
        .build();
  }

  @Bean
  @Order(2)
  SecurityFilterChain pageCalls(HttpSecurity http, SignIns signIns, Events events)
      throws Exception {
    return http.authorizeHttpRequests(
            a ->
                a.requestMatchers(HttpMethod.POST, "/api/sign-in")
                    .permitAll()
                    .requestMatchers(
                        "/api/first-person", "/api/ready", "/api/lti/keys", "/api/subscribed/**")
                    .permitAll()
                    .requestMatchers(HttpMethod.POST, PICKED)
                    .permitAll()
                    .requestMatchers("/api/**")
                    .authenticated()
                    .anyRequest()
                    .permitAll())
        .addFilterBefore(new ThrottleFilter(signIns), UsernamePasswordAuthenticationFilter.class)
        .formLogin(
            f ->
                f.loginPage("/sign-in")
                    .loginProcessingUrl("/api/sign-in")
                    .successHandler((q, r, a) -> signedIn(q, r, a, signIns, events))
                    .failureHandler(
                        (q, r, e) -> {
                          events.add(null, "sign-in failed", "", "from " + q.getRemoteAddr());
                          Problems.write(
                              r,
                              401,
                              "This address and password do not belong together.",
                              "Try again, or ask an administrator for a new password.");
                        })
                    .permitAll())
        .logout(
            l -> l.logoutUrl("/api/sign-out").logoutSuccessHandler((q, r, a) -> r.setStatus(204)))
        .csrf(
            c ->
                c.spa()
                    .csrfTokenRepository(new SessionTokens())
                    .ignoringRequestMatchers(PICKED)) // a tool signs what it sends there
        .requestCache(c -> c.disable()) // nothing is kept of whoever is not signed in
        .exceptionHandling(
            x ->
                x.authenticationEntryPoint(
                        (q, r, e) ->
                            Problems.write(r, 401, "You are not signed in.", "Sign in again."))
                    .accessDeniedHandler((q, r, e) -> refused(r, e)))
        .headers(SecurityConfiguration::headers)
        .build();
  }

  private static void refused(HttpServletResponse r, AccessDeniedException e)
      throws java.io.IOException {
    if (e instanceof CsrfException) {
      Problems.write(
          r,
          403,
          "The call lacks the token that shows that it comes from our own pages.",
          "Load the page anew, then try again; scripts send the header X-XSRF-TOKEN.");
    } else {
      notAllowed(r);
    }
  }

  /** Sessions are for calls: pages, scripts and health need none, so no database either. */
  @Bean
  static BeanPostProcessor sessionsForCallsAlone() {
    return new BeanPostProcessor() {
      @Override
      public Object postProcessBeforeInitialization(Object bean, String name) {
        if (bean instanceof AbstractFilterRegistrationBean<?> filter
            && name.equals("sessionRepositoryFilterRegistration")) {
          filter.setUrlPatterns(List.of("/api/*"));
        }
        return bean;
      }
    };
  }

  /** Names of files may hold what no other part of an address may; nothing is decided by them. */
  @Bean
  HttpFirewall firewall() {
    StrictHttpFirewall strict = strict();
    StrictHttpFirewall named = strict();
    named.setAllowUrlEncodedPercent(true);
    named.setAllowSemicolon(true);
    return new HttpFirewall() {
      @Override
      public FirewalledRequest getFirewalledRequest(HttpServletRequest q) {
        boolean file = FILE.matcher(q.getRequestURI()).matches();
        return (file ? named : strict).getFirewalledRequest(q);
      }

      @Override
      public HttpServletResponse getFirewalledResponse(HttpServletResponse r) {
        return strict.getFirewalledResponse(r);
      }
    };
  }

  /** Besides what the framework refuses: NUL, which no database keeps. */
  private static StrictHttpFirewall strict() {
    StrictHttpFirewall f = new StrictHttpFirewall();
    f.setAllowedParameterValues(v -> v.indexOf('\0') < 0);
    return f;
  }

  @Bean
  RequestRejectedHandler rejected() {
    return (q, r, e) ->
        Problems.write(r, 400, "This address or a value in it is not allowed.", "Correct it.");
  }

  private static void signedIn(
      HttpServletRequest q,
      HttpServletResponse r,
      Authentication a,
      SignIns signIns,
      Events events) {
    SessionTokens.bind(q);
    signIns.succeeded(ThrottleFilter.email(q), q.getRemoteAddr());
    UUID id = a.getPrincipal() instanceof SignedIn who ? who.id() : null;
    events.add(id, "signed in", "", "from " + q.getRemoteAddr());
    r.setStatus(HttpServletResponse.SC_NO_CONTENT);
  }

  private static void notAllowed(HttpServletResponse r) throws java.io.IOException {
    Problems.write(r, 403, "Your role may not do this.", "Ask a person whose role may.");
  }

  private static void headers(HeadersConfigurer<HttpSecurity> h) {
    h.contentSecurityPolicy(c -> c.policyDirectives(POLICY))
        .frameOptions(f -> f.sameOrigin())
        .referrerPolicy(r -> r.policy(ReferrerPolicy.SAME_ORIGIN))
        .permissionsPolicyHeader(p -> p.policy(PERMISSIONS))
        .crossOriginOpenerPolicy(p -> p.policy(CrossOriginOpenerPolicy.SAME_ORIGIN))
        .crossOriginResourcePolicy(p -> p.policy(CrossOriginResourcePolicy.SAME_ORIGIN));
  }

  /**
   * bcrypt, named in each password that is kept.
   *
   * @param cost of one guess: the logarithm of its rounds to the base 2, from 4 to 31
   */
  @Bean
  PasswordEncoder passwords(@Value("${zephyrmist.password-cost}") int cost) {
    return new DelegatingPasswordEncoder(
        "bcrypt", Map.of("bcrypt", new BCryptPasswordEncoder(cost)));
  }
}
