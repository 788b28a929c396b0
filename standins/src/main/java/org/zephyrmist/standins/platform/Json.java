package org.zephyrmist.standins.platform;

import java.util.Map;
import org.jooq.JSONB;
import org.springframework.stereotype.Component;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Between JSON columns and maps. */
@Component
class Json {
  private final JsonMapper mapper;

  Json(JsonMapper mapper) {
    this.mapper = mapper;
  }

  Map<String, Object> map(JSONB column) {
    return mapper.readValue(column.data(), new TypeReference<>() {});
  }

  JSONB column(Map<String, Object> map) {
    return JSONB.valueOf(mapper.writeValueAsString(map == null ? Map.of() : map));
  }
}
