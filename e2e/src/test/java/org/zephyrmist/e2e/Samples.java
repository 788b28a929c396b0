package org.zephyrmist.e2e;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.zephyrmist.core.cartridge.CartridgeFacts;
import org.zephyrmist.core.cartridge.CartridgeWriter;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Grading;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.content.Rank;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.Visibility;

/** A cartridge of four weeks and a roster of so many sections, as files. */
final class Samples {
  private Samples() {}

  static Path cartridge(Path folder) throws IOException {
    List<Item> items = new ArrayList<>();
    for (int w = 1; w <= 4; w++) {
      String week = "w" + w;
      item(items, week, null, w, "Week " + w, new Content.Module());
      String text = "<h2>Reading " + w + "</h2><p>A circuit carries 2,400 watts.</p>";
      item(items, week + "r", week, 0, "Reading " + w, new Content.Page(text));
      item(
          items,
          week + "x",
          week,
          1,
          "Exercise " + w,
          new Content.Assignment("<p>Draw it.</p>", Grading.points(BigDecimal.TEN)));
      item(items, week + "t", week, 2, "Talk " + w, new Content.Discussion("<p>Why?</p>"));
      item(
          items,
          week + "l",
          week,
          3,
          "Manual " + w,
          new Content.WebLink("https://m.example", true));
    }
    Path file = folder.resolve("stage-light.imscc");
    try (OutputStream out = Files.newOutputStream(file)) {
      CartridgeWriter.write(
          out,
          new CartridgeFacts("Stage Light", "Four weeks of light.", "en", "CC BY", "", false),
          items,
          sha -> new ByteArrayInputStream(new byte[0]));
    }
    return file;
  }

  private static void item(
      List<Item> all, String key, String parent, int n, String title, Content c) {
    Place place = new Place(Optional.ofNullable(parent), Rank.nth(n));
    all.add(
        new Item(
            new ItemKey(key), title, c, Timing.NONE, place, Visibility.SHOWN, EditRule.ADAPTABLE));
  }

  static List<String> sectionIds(int many) {
    List<String> ids = new ArrayList<>();
    for (int i = 1; i <= many; i++) {
      ids.add(String.format("lgt-%02d", i));
    }
    return ids;
  }

  static Path roster(Path folder, int many) throws IOException {
    StringBuilder classes =
        new StringBuilder(
            "sourcedId,title,classCode,courseSourcedId,schoolSourcedId,termSourcedIds\n");
    for (String id : sectionIds(many)) {
      classes.append(id).append(",Light,110-").append(id.substring(4)).append(",lgt110,north,t1\n");
    }
    Map<String, String> files =
        Map.of(
            "orgs.csv",
            "sourcedId,name,type\nnorth,North,school\nlight,Lighting,department\n",
            "academicSessions.csv",
            "sourcedId,title,type,startDate,endDate\nt1,Autumn,term,2026-09-07,2036-12-18\n",
            "courses.csv",
            "sourcedId,title,courseCode,orgSourcedId\nlgt110,Stage Lighting,LGT 110,light\n",
            "classes.csv",
            classes.toString());
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
      for (Map.Entry<String, String> f : files.entrySet()) {
        zip.putNextEntry(new ZipEntry(f.getKey()));
        zip.write(f.getValue().getBytes(StandardCharsets.UTF_8));
        zip.closeEntry();
      }
    }
    return Files.write(folder.resolve("roster.zip"), bytes.toByteArray());
  }
}
