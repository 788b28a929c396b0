package org.zephyrmist.core.tool;

import java.util.Map;
import java.util.Optional;

/**
 * Where a section stands in the college, as far as tools ask.
 *
 * @param section its roster id
 * @param values what may be filled into addresses and parameters, by name
 */
public record SectionPlace(
    String section, String course, String campus, String term, Map<String, String> values) {
  public SectionPlace {
    values = Map.copyOf(values);
  }

  /** A value of the section; none if it has none of this name. */
  public Optional<String> value(String name) {
    return Optional.ofNullable(values.get(name));
  }
}
