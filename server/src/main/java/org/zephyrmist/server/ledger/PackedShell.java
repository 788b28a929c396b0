package org.zephyrmist.server.ledger;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.Optional;
import java.util.zip.GZIPInputStream;
import java.util.zip.GZIPOutputStream;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.Held;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** What a shell held, in few bytes; the texts are kept apart, by their fingerprints. */
@Component
public class PackedShell {
  private static final TypeReference<List<Was>> ITEMS = new TypeReference<>() {};
  private final JsonMapper json;

  PackedShell(JsonMapper json) {
    this.json = json;
  }

  /**
   * An item as it was.
   *
   * @param module the platform's id of the module it stood in; absent at the top
   * @param aspects packed fingerprints
   */
  record Was(
      String id,
      Kind kind,
      String title,
      String module,
      byte[] aspects,
      boolean work,
      boolean own) {
    static Was of(Held h) {
      return new Was(
          h.id(),
          h.kind(),
          h.title(),
          h.parent().orElse(null),
          h.aspects().pack(),
          h.studentWork(),
          h.free());
    }

    Held held() {
      return new Held(
          id, kind, title, Optional.ofNullable(module), Fingerprints.unpack(aspects), work, own);
    }
  }

  public byte[] pack(List<Held> items) {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (GZIPOutputStream zip = new GZIPOutputStream(bytes)) {
      json.writeValue(zip, items.stream().map(Was::of).toList());
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return bytes.toByteArray();
  }

  public List<Held> unpack(byte[] bytes) {
    try (GZIPInputStream zip = new GZIPInputStream(new ByteArrayInputStream(bytes))) {
      return json.readValue(zip, ITEMS).stream().map(Was::held).toList();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
