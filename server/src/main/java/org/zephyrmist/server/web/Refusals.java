package org.zephyrmist.server.web;

import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.web.bind.MethodArgumentNotValidException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;

/** Answers as problem details (RFC 9457), with a remedy. */
@RestControllerAdvice
class Refusals {
  @ExceptionHandler
  ProblemDetail refusal(Refusal r) {
    ProblemDetail p = ProblemDetail.forStatusAndDetail(r.status(), r.getMessage());
    p.setProperty("remedy", r.remedy());
    return p;
  }

  @ExceptionHandler
  ProblemDetail invalid(MethodArgumentNotValidException e) {
    String fields =
        e.getBindingResult().getFieldErrors().stream()
            .map(f -> f.getField() + " " + f.getDefaultMessage())
            .distinct()
            .reduce((a, b) -> a + ", " + b)
            .orElse("a field is not right");
    ProblemDetail p =
        ProblemDetail.forStatusAndDetail(HttpStatus.BAD_REQUEST, "Not valid: " + fields + ".");
    p.setProperty("remedy", "Correct it and send again.");
    return p;
  }
}
