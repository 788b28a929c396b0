package org.zephyrmist.server.web;

import io.swagger.v3.oas.annotations.Hidden;
import jakarta.servlet.DispatcherType;
import jakarta.servlet.RequestDispatcher;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.boot.webmvc.error.ErrorController;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.RequestMapping;

/** Errors that the container found, as problem details; asked for by hand there is no such page. */
@Controller
@Hidden
class ErrorPages implements ErrorController {
  @RequestMapping("/error")
  void error(HttpServletRequest q, HttpServletResponse r) throws IOException {
    Object found = q.getAttribute(RequestDispatcher.ERROR_STATUS_CODE);
    boolean asked = q.getDispatcherType() != DispatcherType.ERROR || !(found instanceof Integer);
    HttpStatus status =
        asked ? HttpStatus.NOT_FOUND : HttpStatus.resolve(((Integer) found).intValue());
    HttpStatus known = status == null ? HttpStatus.BAD_REQUEST : status;
    Problems.write(
        r,
        known.value(),
        known == HttpStatus.NOT_FOUND
            ? "There is nothing at this address."
            : "This cannot be answered: " + known.getReasonPhrase() + ".",
        "Go back to the list and choose again.");
  }
}
