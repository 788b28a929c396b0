package org.zephyrmist.server.demo;

import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.springframework.core.io.ClassPathResource;
import org.yaml.snakeyaml.Yaml;

/** A course of the demo college, as written in demo/courses.yaml. */
record DemoCourse(
    String code, String title, String cartridge, String publisher, String tool, List<Week> weeks) {

  record Week(String title, List<String> facts, String exercise, String talk) {}

  @SuppressWarnings("unchecked") // the file is ours
  static List<DemoCourse> all() {
    try (InputStream in = new ClassPathResource("demo/courses.yaml").getInputStream()) {
      List<DemoCourse> all = new ArrayList<>();
      for (Object o : (List<Object>) new Yaml().load(in)) {
        Map<String, Object> m = (Map<String, Object>) o;
        List<Week> weeks = new ArrayList<>();
        for (List<String> w : (List<List<String>>) m.get("weeks")) {
          weeks.add(new Week(w.get(0), List.of(w.get(1).split("\\|")), w.get(2), w.get(3)));
        }
        all.add(
            new DemoCourse(
                (String) m.get("code"),
                (String) m.get("title"),
                (String) m.get("cartridge"),
                (String) m.get("publisher"),
                (String) m.get("tool"),
                weeks));
      }
      return all;
    } catch (IOException e) {
      throw new java.io.UncheckedIOException(e);
    }
  }
}
