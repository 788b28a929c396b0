package org.zephyrmist.core.cartridge;

import java.net.URLConnection;
import java.util.Locale;
import java.util.Map;

/** Media types of files; the JDK does not know all endings. */
public final class MediaTypes {
  private static final Map<String, String> MORE =
      Map.ofEntries(
          Map.entry("css", "text/css"),
          Map.entry("js", "text/javascript"),
          Map.entry("json", "application/json"),
          Map.entry("svg", "image/svg+xml"),
          Map.entry("webp", "image/webp"),
          Map.entry("mp3", "audio/mpeg"),
          Map.entry("mp4", "video/mp4"),
          Map.entry("vtt", "text/vtt"),
          Map.entry("csv", "text/csv"),
          Map.entry(
              "docx", "application/vnd.openxmlformats-officedocument.wordprocessingml.document"),
          Map.entry("xlsx", "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"),
          Map.entry(
              "pptx", "application/vnd.openxmlformats-officedocument.presentationml.presentation"));

  private MediaTypes() {}

  /** Media type by the ending of a name; octet-stream if nothing is known of it. */
  public static String of(String path) {
    String type = URLConnection.guessContentTypeFromName(path.toLowerCase(Locale.ROOT));
    if (type != null) {
      return type;
    }
    String ending = path.substring(path.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT);
    return MORE.getOrDefault(ending, "application/octet-stream");
  }
}
