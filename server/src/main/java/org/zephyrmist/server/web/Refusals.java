package org.zephyrmist.server.web;

import java.io.IOException;
import java.sql.SQLException;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.security.web.firewall.RequestRejectedException;
import org.springframework.web.ErrorResponse;
import org.springframework.web.bind.MethodArgumentNotValidException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.method.annotation.HandlerMethodValidationException;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import org.springframework.web.servlet.resource.NoResourceFoundException;

/** Answers as problem details (RFC 9457), with a remedy. */
@RestControllerAdvice
class Refusals {
  private static final Logger LOG = LoggerFactory.getLogger(Refusals.class);
  private static final String CORRECT = "Correct it and send again.";

  private static ProblemDetail problem(HttpStatus status, String detail, String remedy) {
    ProblemDetail p = ProblemDetail.forStatusAndDetail(status, detail);
    p.setProperty("remedy", remedy);
    return p;
  }

  @ExceptionHandler
  ProblemDetail refusal(Refusal r) {
    return problem(r.status(), r.getMessage(), r.remedy());
  }

  @ExceptionHandler
  ProblemDetail invalid(MethodArgumentNotValidException e) {
    String fields =
        e.getBindingResult().getFieldErrors().stream()
            .map(f -> f.getField() + " " + f.getDefaultMessage())
            .distinct()
            .reduce((a, b) -> a + ", " + b)
            .orElse("a field is not right");
    return problem(HttpStatus.BAD_REQUEST, "Not valid: " + fields + ".", CORRECT);
  }

  @ExceptionHandler
  ProblemDetail invalid(HandlerMethodValidationException e) {
    String fields =
        e.getParameterValidationResults().stream()
            .flatMap(
                p ->
                    p.getResolvableErrors().stream()
                        .map(
                            m ->
                                p.getMethodParameter().getParameterName()
                                    + " "
                                    + m.getDefaultMessage()))
            .reduce((a, b) -> a + ", " + b)
            .orElse("a value is not right");
    return problem(HttpStatus.BAD_REQUEST, "Not valid: " + fields + ".", CORRECT);
  }

  @ExceptionHandler
  ProblemDetail mistyped(MethodArgumentTypeMismatchException e) {
    return problem(HttpStatus.BAD_REQUEST, "Not valid: " + e.getName() + ".", CORRECT);
  }

  @ExceptionHandler
  ProblemDetail unreadable(HttpMessageNotReadableException e) {
    LOG.debug("Unreadable body", e);
    return problem(
        HttpStatus.BAD_REQUEST,
        "The body is no JSON that this call takes.",
        "See the description of the API, then send it again.");
  }

  @ExceptionHandler
  ProblemDetail nowhere(NoResourceFoundException e) {
    return problem(
        HttpStatus.NOT_FOUND,
        "There is nothing at this address.",
        "Go back to the list and choose again.");
  }

  @ExceptionHandler
  ProblemDetail notAllowed(AccessDeniedException e) {
    return problem(
        HttpStatus.FORBIDDEN, "Your role may not do this.", "Ask a person whose role may.");
  }

  @ExceptionHandler
  ProblemDetail rejected(RequestRejectedException e) {
    return problem(HttpStatus.BAD_REQUEST, "A value in the address is not allowed.", CORRECT);
  }

  /**
   * Everything else: what Spring has a status for, what the database refused, and our own faults.
   */
  @ExceptionHandler
  ProblemDetail other(Exception e) {
    if (e instanceof ErrorResponse r) {
      ProblemDetail p = r.getBody();
      p.setProperty("remedy", "See the description of the API, then try again.");
      return p;
    }
    if (e instanceof IOException) {
      LOG.info("A call broke off: {}", e.toString());
      return problem(HttpStatus.BAD_REQUEST, "The call broke off.", "Send it again.");
    }
    return Outage.of(e)
        .map(this::refusal)
        .or(() -> refused(e))
        .orElseGet(
            () -> {
              LOG.error("A call failed", e);
              return problem(
                  HttpStatus.INTERNAL_SERVER_ERROR,
                  "Something went wrong in Zephyrmist itself.",
                  "Try again; if it fails again, tell its people when it was.");
            });
  }

  /** A constraint of the schema (SQLSTATE class 23) holds where two people do things at once. */
  private static Optional<ProblemDetail> refused(Exception e) {
    for (Throwable t = e; t != null; t = t.getCause()) {
      if (t instanceof SQLException s && String.valueOf(s.getSQLState()).startsWith("23")) {
        return Optional.of(
            problem(
                HttpStatus.CONFLICT,
                "Somebody else changed this at the same moment; nothing of yours was kept.",
                "Load it anew, then try again."));
      }
    }
    return Optional.empty();
  }
}
