package org.zephyrmist.server.web;

import io.swagger.v3.core.util.Json31;
import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.servers.Server;
import java.util.List;
import org.springdoc.core.customizers.PropertyCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** The OpenAPI description that the interface's types are made from. */
@Configuration
class ApiDescription {
  @Bean
  OpenAPI description() {
    return new OpenAPI()
        .info(new Info().title("Zephyrmist").version("1"))
        .servers(List.of(new Server().url("/")));
  }

  /** A primitive is always there. */
  @Bean
  PropertyCustomizer primitivesAreRequired() {
    return (property, type) -> {
      boolean primitive = Json31.mapper().constructType(type.getType()).isPrimitive();
      if (primitive && type.getParent() != null) {
        type.getParent().addRequiredItem(type.getPropertyName());
      }
      return property;
    };
  }
}
