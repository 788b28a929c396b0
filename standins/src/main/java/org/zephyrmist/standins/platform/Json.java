package org.zephyrmist.standins.platform;

import java.util.HashMap;
import java.util.List;
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

  /** What of a visibility is kept beside its two marks. */
  JSONB opening(Wire.Visibility v) {
    Map<String, Object> kept = new HashMap<>();
    if (v.asks() != null && !v.asks().isEmpty()) {
      kept.put("asks", v.asks());
    }
    if (v.conditions() != null && !v.conditions().isEmpty()) {
      kept.put("conditions", v.conditions());
    }
    return column(kept);
  }

  Wire.Visibility visibility(boolean shown, boolean instructorsOnly, JSONB opening) {
    Opening kept = mapper.readValue(opening.data(), Opening.class);
    return new Wire.Visibility(shown, instructorsOnly, kept.asks(), kept.conditions());
  }

  private record Opening(String asks, List<Map<String, Object>> conditions) {}

  JSONB column(Map<String, Object> map) {
    return JSONB.valueOf(mapper.writeValueAsString(map == null ? Map.of() : map));
  }
}
