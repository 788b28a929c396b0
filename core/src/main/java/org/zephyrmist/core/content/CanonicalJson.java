package org.zephyrmist.core.content;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.List;
import java.util.SortedMap;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.MapperFeature;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;

/** One text for one value: sorted names, no empty members, no white space. */
final class CanonicalJson {
  private static final JsonMapper MAPPER =
      JsonMapper.builder()
          .enable(MapperFeature.SORT_PROPERTIES_ALPHABETICALLY)
          .enable(SerializationFeature.ORDER_MAP_ENTRIES_BY_KEYS)
          .disable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
          .changeDefaultPropertyInclusion(v -> v.withValueInclusion(JsonInclude.Include.NON_EMPTY))
          .withConfigOverride(String.class, o -> o.setNullHandling(nullsAsEmpty()))
          .withConfigOverride(List.class, o -> o.setNullHandling(nullsAsEmpty()))
          .withConfigOverride(SortedMap.class, o -> o.setNullHandling(nullsAsEmpty()))
          .build();

  private CanonicalJson() {}

  static String write(Object value) {
    return MAPPER.writeValueAsString(value);
  }

  static <T> T read(String json, Class<T> type) {
    return MAPPER.readValue(json, type);
  }

  private static com.fasterxml.jackson.annotation.JsonSetter.Value nullsAsEmpty() {
    return com.fasterxml.jackson.annotation.JsonSetter.Value.forContentNulls(
            com.fasterxml.jackson.annotation.Nulls.AS_EMPTY)
        .withValueNulls(com.fasterxml.jackson.annotation.Nulls.AS_EMPTY);
  }
}
