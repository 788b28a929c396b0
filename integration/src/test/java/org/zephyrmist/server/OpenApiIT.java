package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.MapperFeature;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;

class OpenApiIT extends ServerIT {
  /** The interface's types are made from web/openapi.json; after a change, commit the new file. */
  @Test
  void theDescriptionThatTheInterfaceIsBuiltFromIsTheServersOwn() throws Exception {
    JsonMapper json =
        JsonMapper.builder()
            .enable(SerializationFeature.INDENT_OUTPUT)
            .enable(SerializationFeature.ORDER_MAP_ENTRIES_BY_KEYS)
            .enable(MapperFeature.SORT_PROPERTIES_ALPHABETICALLY)
            .build();
    Object served = json.readValue(coordinator.get("/api/openapi/anew").text(), Object.class);
    Path file = Path.of(System.getProperty("root"), "web/openapi.json");
    Object committed = json.readValue(Files.readString(file), Object.class);
    if (!served.equals(committed)) {
      Files.writeString(file, json.writeValueAsString(served) + "\n");
    }
    assertThat(served)
        .as("web/openapi.json was out of date and is written anew")
        .isEqualTo(committed);
  }

  @Test
  void theDescriptionIsServedAsItWasBuiltAndNotMadeAtTheFirstCall() throws Exception {
    JsonMapper json = new JsonMapper();
    assertThat(coordinator.get("/api/openapi").json())
        .isEqualTo(
            json.readTree(
                Files.readString(Path.of(System.getProperty("root"), "web/openapi.json"))));
  }
}
