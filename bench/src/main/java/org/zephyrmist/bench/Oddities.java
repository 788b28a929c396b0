package org.zephyrmist.bench;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.Iterator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.UUID;
import org.zephyrmist.stage.Caller;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** Values, paths and bodies as no honest caller sends them, drawn from a seed. */
final class Oddities {
  private static final List<String> TEXTS =
      List.of(
          "",
          " ",
          "\0",
          "a\0b",
          "\u200b\u2060",
          "\ud800",
          "null",
          "true",
          "-1",
          "0",
          "1e-200000000",
          "999999999999999999999",
          "+999999999-01-01T00:00",
          "../../etc/passwd",
          "%00",
          "%2e%2e/",
          "'; drop table person; --",
          "<script>alert(1)</script>",
          "javascript:alert(1)",
          "zref:file/xyz",
          "zref:item/!",
          "\r\nX-Odd: 1",
          "\u202eabc",
          "ﷺ",
          "x".repeat(300),
          "x".repeat(5_000),
          "<b>".repeat(2_000),
          "https://a b",
          "http://[::1",
          "ADMINISTRATOR");

  private final Random random;
  private final Map<String, List<String>> known;

  /**
   * @param known real values by the name of their parameter
   */
  Oddities(Random random, Map<String, List<String>> known) {
    this.random = random;
    this.known = known;
  }

  <T> T pick(List<T> all) {
    return all.get(random.nextInt(all.size()));
  }

  boolean chance(int percent) {
    return random.nextInt(100) < percent;
  }

  String text() {
    return pick(TEXTS);
  }

  /** Real ones most of the time, so that calls get far enough to go wrong. */
  String value(String name) {
    List<String> real = known.getOrDefault(name, List.of());
    if (!real.isEmpty() && chance(75)) {
      return pick(real);
    }
    return chance(50) ? new UUID(0, random.nextInt(3)).toString() : text();
  }

  static String encode(String text) {
    return URLEncoder.encode(text, StandardCharsets.UTF_8).replace("+", "%20");
  }

  /** A path with its parameters filled in, now and then spelled in another way. */
  String path(String template) {
    StringBuilder path = new StringBuilder();
    String before = "";
    for (String part : template.substring(1).split("/")) {
      String name = part.startsWith("{") ? part.substring(1, part.length() - 1) : "";
      String value =
          name.isEmpty() ? part : encode(value(name.equals("id") ? before + "/id" : name));
      path.append('/').append(value);
      before = part;
    }
    if (chance(4)) {
      int at = 1 + random.nextInt(Math.max(1, path.length() - 1));
      char c = path.charAt(at);
      if (Character.isLetter(c)) {
        path.replace(at, at + 1, "%%%02x".formatted((int) c));
      }
    }
    return chance(2) ? path + pick(List.of("/", ";x", "//", "%2f", "/.")) : path.toString();
  }

  /** A body of the schema, with some of it made odd; empty now and then, or no JSON at all. */
  String body(JsonNode schema, JsonNode schemas) {
    if (chance(5)) {
      return pick(
          List.of(
              "",
              "{",
              "null",
              "[]",
              "\"x\"",
              "{\"a\":".repeat(2_000),
              "[".repeat(5_000),
              "1e999999999"));
    }
    return Caller.JSON.writeValueAsString(node(schema, schemas, "", 0));
  }

  private JsonNode node(JsonNode schema, JsonNode schemas, String name, int depth) {
    JsonNode s = schema;
    if (s.has("$ref")) {
      String ref = s.path("$ref").asString();
      s = schemas.path(ref.substring(ref.lastIndexOf('/') + 1));
    }
    if (chance(8) || depth > 6) {
      return odd();
    }
    if (s.has("enum")) {
      return s.path("enum").get(random.nextInt(s.path("enum").size()));
    }
    String type =
        s.path("type").isArray() ? s.path("type").get(0).asString() : s.path("type").asString("");
    return switch (type) {
      case "object" -> object(s, schemas, depth);
      case "array" -> {
        ArrayNode all = Caller.JSON.createArrayNode();
        for (int n = random.nextInt(4); n > 0; n--) {
          all.add(node(s.path("items"), schemas, name.replaceFirst("s$", ""), depth + 1));
        }
        yield all;
      }
      case "integer", "number" -> Caller.JSON.valueToTree(random.nextInt(50));
      case "boolean" -> Caller.JSON.valueToTree(random.nextBoolean());
      default -> Caller.JSON.valueToTree(word(name));
    };
  }

  private String word(String name) {
    if (known.containsKey(name)) {
      return value(name);
    }
    return switch (name.toLowerCase(Locale.ROOT)) {
      case "title", "name", "note", "code" -> "Word " + random.nextInt(1_000_000);
      case "html" -> "<p>Text " + random.nextInt(1_000) + "</p>";
      case "points" -> String.valueOf(random.nextInt(100));
      case "due" -> "2026-10-0" + (1 + random.nextInt(9)) + "T18:00";
      case "address" -> "https://e.example/" + random.nextInt(100);
      case "email" -> "e" + random.nextInt(100_000) + "@x.example";
      default -> chance(50) ? text() : "word";
    };
  }

  private JsonNode object(JsonNode s, JsonNode schemas, int depth) {
    ObjectNode o = Caller.JSON.createObjectNode();
    Iterator<Map.Entry<String, JsonNode>> all = s.path("properties").properties().iterator();
    while (all.hasNext()) {
      Map.Entry<String, JsonNode> p = all.next();
      if (!chance(10)) {
        o.set(p.getKey(), node(p.getValue(), schemas, p.getKey(), depth + 1));
      }
    }
    if (chance(5)) {
      o.put(text(), text());
    }
    return o;
  }

  private JsonNode odd() {
    return switch (random.nextInt(6)) {
      case 0 -> Caller.JSON.nullNode();
      case 1 -> Caller.JSON.valueToTree(random.nextInt());
      case 2 -> Caller.JSON.createObjectNode().put("a", text());
      case 3 -> Caller.JSON.createArrayNode().add(text());
      case 4 -> Caller.JSON.valueToTree(random.nextBoolean());
      default -> Caller.JSON.valueToTree(text());
    };
  }
}
