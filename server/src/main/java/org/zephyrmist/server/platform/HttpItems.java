package org.zephyrmist.server.platform;

import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.server.platform.PlatformGateway.ShellItem;
import org.zephyrmist.server.platform.PlatformGateway.Write;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** Items as docs/api.md describes them on the wire, from and to the forms of their aspects. */
final class HttpItems {
  private static final int LONGEST_TEXT = 4 << 20;
  private final JsonMapper json;

  HttpItems(JsonMapper json) {
    this.json = json;
  }

  /** None for kinds that we do not know: a platform may have some of its own. */
  private static Optional<Kind> kind(JsonNode n) {
    String kind = n.path("kind").asString("");
    return Stream.of(Kind.values()).filter(k -> k.name().equals(kind)).findFirst();
  }

  /** An item of a shell; none if it is of a kind of the platform's own. */
  Optional<ShellItem> item(JsonNode n) {
    return kind(n)
        .map(
            kind ->
                new ShellItem(
                    Odd.id(n.path("id").asString("")),
                    kind,
                    parent(n),
                    forms(n),
                    n.path("submissions").asInt(0) + n.path("posts").asInt(0) > 0,
                    n.path("changedBy").asString(""),
                    n.path("changedAt").asString(""),
                    n.path("revision").asString("")));
  }

  private static Optional<String> parent(JsonNode n) {
    return Optional.ofNullable(n.path("parent").asString(null));
  }

  private Map<Aspect, String> forms(JsonNode n) {
    EnumMap<Aspect, String> forms = new EnumMap<>(Aspect.class);
    for (Aspect a : Aspect.values()) {
      forms.put(
          a,
          switch (a) {
            case WORDING -> wording(n);
            case PLACE -> place(n);
            default -> object(n.path(name(a)));
          });
    }
    return forms;
  }

  private String wording(JsonNode n) {
    ObjectNode wording = json.createObjectNode();
    JsonNode said = n.path("wording");
    said.path("more").properties().forEach(e -> wording.set(e.getKey(), e.getValue()));
    String html = said.path("html").asString("");
    if (html.length() > LONGEST_TEXT) {
      throw Odd.answer("the text of item " + n.path("id").asString("") + " is larger than 4 MB");
    }
    return wording.put("title", said.path("title").asString("")).put("html", html).toString();
  }

  private String place(JsonNode n) {
    ObjectNode place = json.createObjectNode();
    parent(n).ifPresent(p -> place.put("parent", p));
    return place.put("rank", n.path("rank").asString("")).toString();
  }

  private static String name(Aspect aspect) {
    return aspect.name().toLowerCase(Locale.ROOT);
  }

  private static String object(JsonNode n) {
    return n.isObject() ? n.toString() : "{}";
  }

  /** One thing to write, as a step of a call. */
  void write(ObjectNode step, Write w) {
    step.put("key", w.key());
    if (w instanceof Write.Add a) {
      step.put("op", "ADD").put("kind", a.kind().name());
      forms(step, a.forms());
    } else if (w instanceof Write.Update u) {
      step.put("op", "UPDATE").put("id", u.id()).put("revision", u.revision());
      forms(step, u.forms());
    } else if (w instanceof Write.Remove r) {
      step.put("op", "REMOVE").put("id", r.id()).put("revision", r.revision());
    }
  }

  private void forms(ObjectNode step, Map<Aspect, String> forms) {
    forms.forEach(
        (aspect, form) -> {
          ObjectNode n = (ObjectNode) json.readTree(form);
          if (aspect == Aspect.WORDING) {
            ObjectNode wording = step.putObject("wording");
            wording.put("title", n.path("title").asString(""));
            wording.put("html", n.path("html").asString(""));
            n.remove(List.of("title", "html"));
            wording.set("more", n);
          } else {
            step.set(name(aspect), n);
          }
        });
  }
}
