package org.zephyrmist.server.web;

import io.swagger.v3.oas.annotations.Hidden;
import org.springframework.core.io.ClassPathResource;
import org.springframework.core.io.Resource;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** The description of the API (OpenAPI), as the build has made it. */
@RestController
@Hidden
class ApiDescriptionApi {
  private static final Resource BUILT = new ClassPathResource("openapi.json");

  @GetMapping(path = "/api/openapi", produces = MediaType.APPLICATION_JSON_VALUE)
  Resource description() {
    return BUILT;
  }
}
