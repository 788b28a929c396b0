package org.zephyrmist.bench;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.math.BigDecimal;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.zephyrmist.core.cartridge.CartridgeFacts;
import org.zephyrmist.core.cartridge.CartridgeWriter;
import org.zephyrmist.core.cartridge.PackageChoices;
import org.zephyrmist.core.cartridge.PackageFormat;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Grading;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.References;
import org.zephyrmist.stage.Samples;

/** A package with four files for each item, about 10 KB each, none like another. */
final class LargePackage {
  private static final int PICTURE = 12_500;

  private LargePackage() {}

  static Path write(Path folder, String title, int items, long seed) throws IOException {
    Map<String, Long> seeds = new HashMap<>();
    List<Item> all = new ArrayList<>();
    for (int i = 0; i < items; i++) {
      String week = "w" + i / 20;
      if (i % 20 == 0) {
        Samples.item(all, week, null, i / 20, "Week " + (i / 20 + 1), new Content.Module());
      } else if (i % 2 == 0) {
        Samples.item(all, "i" + i, week, i, "Exercise " + i, exercise(i));
      } else {
        StringBuilder html = new StringBuilder("<h2>Lamp " + i + "</h2>");
        for (int p = 0; p < 6; p++) {
          long own = seed * 1_000_003L + i * 7L + p;
          String sha = Fingerprint.of(Fingerprint.sha256().digest(picture(own))).hex();
          seeds.put(sha, own);
          html.append("<p>The beam at ").append(p * 10).append(" degrees.</p><p><img src=\"");
          html.append(References.file(sha, "lamp" + i + "-" + p + ".jpg", "")).append("\"></p>");
        }
        Samples.item(all, "i" + i, week, i, "Reading " + i, new Content.Page(html.toString()));
      }
    }
    Path file = Files.createTempFile(folder, "package", ".imscc");
    try (OutputStream out = Files.newOutputStream(file)) {
      CartridgeWriter.write(
          out,
          new CartridgeFacts(title, "", "en", "", "", false),
          all,
          PackageChoices.all(PackageFormat.CC_1_3),
          sha -> new ByteArrayInputStream(picture(seeds.get(sha))));
    }
    return file;
  }

  private static Content exercise(int i) {
    String text = "<p>Draw the plot of lamp " + i + ".</p>".repeat(5);
    return new Content.Assignment(text, Grading.points(BigDecimal.TEN));
  }

  private static byte[] picture(long seed) {
    byte[] bytes = new byte[PICTURE];
    new Random(seed).nextBytes(bytes);
    return bytes;
  }
}
