package org.zephyrmist.server.web;

import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;

/** Every address of the interface leads to the one page that draws it. */
@Controller
class Pages {
  @GetMapping({
    "/",
    "/coverage/**",
    "/sources/**",
    "/deliveries/**",
    "/sections/**",
    "/seen/**",
    "/college/**",
    "/myself/**",
    "/record/**",
    "/tools/**",
    "/hand-overs/**",
    "/calendar/**",
    "/checks",
    "/next-term",
    "/api-description",
    "/sign-in"
  })
  String page() {
    return "forward:/index.html";
  }
}
