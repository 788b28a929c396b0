package org.zephyrmist.core.content;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.List;
import java.util.SortedMap;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.JsonParser;
import tools.jackson.databind.DeserializationContext;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.MapperFeature;
import tools.jackson.databind.SerializationContext;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.deser.std.StdDeserializer;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.module.SimpleModule;
import tools.jackson.databind.ser.std.StdSerializer;
import tools.jackson.databind.ser.std.ToStringSerializer;

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
          .addModule(localTimes())
          .withConfigOverride(SortedMap.class, o -> o.setNullHandling(nullsAsEmpty()))
          .build();

  private CanonicalJson() {}

  static String write(Object value) {
    return MAPPER.writeValueAsString(value);
  }

  static <T> T read(String json, Class<T> type) {
    return MAPPER.readValue(json, type);
  }

  /** One text of an object, whatever else is in it; empty if it is not there. */
  static String text(String json, String name) {
    return MAPPER.readTree(json).path(name).asString("");
  }

  /** Local dates and times as short as ISO 8601 allows, so that equal ones are one text. */
  private static SimpleModule localTimes() {
    return new SimpleModule()
        .addSerializer(LocalTime.class, new ToStringSerializer(LocalTime.class))
        .addSerializer(
            DatePattern.class,
            new StdSerializer<>(DatePattern.class) {
              @Override
              public void serialize(DatePattern p, JsonGenerator to, SerializationContext context) {
                to.writeString(p.text());
              }
            })
        .addDeserializer(
            DatePattern.class,
            new StdDeserializer<>(DatePattern.class) {
              @Override
              public DatePattern deserialize(JsonParser p, DeserializationContext context) {
                String text = p.getString();
                return DatePattern.of(text)
                    .orElseThrow(() -> new IllegalArgumentException("no pattern: " + text));
              }
            })
        .addSerializer(LocalDateTime.class, new ToStringSerializer(LocalDateTime.class))
        .addDeserializer(
            LocalDateTime.class,
            new StdDeserializer<>(LocalDateTime.class) {
              @Override
              public LocalDateTime deserialize(JsonParser p, DeserializationContext context) {
                String text = p.getString();
                return Timing.at(text)
                    .orElseThrow(
                        () -> new IllegalArgumentException("no local date and time: " + text));
              }
            });
  }

  private static com.fasterxml.jackson.annotation.JsonSetter.Value nullsAsEmpty() {
    return com.fasterxml.jackson.annotation.JsonSetter.Value.forContentNulls(
            com.fasterxml.jackson.annotation.Nulls.AS_EMPTY)
        .withValueNulls(com.fasterxml.jackson.annotation.Nulls.AS_EMPTY);
  }
}
