package org.zephyrmist.server;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.zephyrmist.core.cartridge.CartridgeFacts;
import org.zephyrmist.core.cartridge.CartridgeWriter;
import org.zephyrmist.core.cartridge.PackageChoices;
import org.zephyrmist.core.cartridge.PackageFormat;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Grading;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.content.Rank;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.Visibility;

/** A small cartridge and a small roster. */
final class Samples {
  static final byte[] PDF = "%PDF-1.4 load table".getBytes(StandardCharsets.UTF_8);
  private static final String SHA = Fingerprint.of(Fingerprint.sha256().digest(PDF)).hex();

  private Samples() {}

  /** Week 3 with a reading that refers to a file and to a later page, an exercise, a link. */
  static byte[] cartridge(String title) throws IOException {
    return cartridge(title, "<p>Gloves.</p>");
  }

  /** The same with this text as its checklist. */
  static byte[] cartridge(String title, String checklist) throws IOException {
    String html =
        "<p>A circuit carries 2,400 watts.</p><p>Open the <a href=\""
            + References.file(SHA, "loads.pdf", "")
            + "\">table</a>, then the <a class=\"x\" target=\"_blank\" href=\""
            + References.item(new ItemKey("check"), "")
            + "\">checklist</a>.</p>";
    List<Item> items =
        List.of(
            item("week", null, 0, "Week 3", new Content.Module()),
            item("read", "week", 0, "Reading: loads", new Content.Page(html)),
            item(
                "table",
                "week",
                1,
                "Load table",
                new Content.File(new FileRef(SHA, "loads.pdf", "application/pdf", PDF.length))),
            item(
                "plot",
                "week",
                2,
                "Paper plot",
                new Content.Assignment("<p>Draw it.</p>", Grading.points(BigDecimal.TEN))),
            item("manual", "week", 3, "Manual", new Content.WebLink("https://m.example/", true)),
            item("check", "week", 4, "Checklist", new Content.Page(checklist)));
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    CartridgeWriter.write(
        out,
        new CartridgeFacts(title, "", "en", "", "", false),
        items,
        PackageChoices.all(PackageFormat.CC_1_3),
        sha -> new ByteArrayInputStream(PDF));
    return out.toByteArray();
  }

  /** A module with a tool link for each host, and a page that leads to the first of them. */
  static byte[] toolCartridge(String title, String... hosts) throws IOException {
    List<Item> items = new java.util.ArrayList<>();
    items.add(item("week", null, 1, "Week 1", new Content.Module()));
    items.add(
        item(
            "page",
            "week",
            2,
            "Before you begin",
            new Content.Page("<p><a href=\"https://" + hosts[0] + "/help\">Help</a></p>")));
    for (int i = 0; i < hosts.length; i++) {
      items.add(
          item(
              "tool" + i,
              "week",
              3 + i,
              "Open " + hosts[i],
              new Content.ToolLink(
                  "",
                  "https://" + hosts[i] + "/launch?unit=" + i,
                  new java.util.TreeMap<>(Map.of("unit", "" + i)))));
    }
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    CartridgeWriter.write(
        out,
        new CartridgeFacts(title, "", "en", "", "", false),
        items,
        PackageChoices.all(PackageFormat.CC_1_3),
        sha -> new ByteArrayInputStream(PDF));
    return out.toByteArray();
  }

  private static Item item(String key, String parent, int n, String title, Content c) {
    Place place = new Place(Optional.ofNullable(parent), Rank.nth(n));
    return new Item(
        new ItemKey(key), title, c, Timing.NONE, place, Visibility.SHOWN, EditRule.ADAPTABLE);
  }

  /** Lighting and sound, each with these sections; "instructor@x.example" teaches the first. */
  static byte[] roster(String... sections) throws IOException {
    StringBuilder classes =
        new StringBuilder(
            "sourcedId,title,classCode,courseSourcedId,schoolSourcedId,termSourcedIds\n");
    StringBuilder enrollments = new StringBuilder("sourcedId,classSourcedId,userSourcedId,role\n");
    for (String s : sections) {
      String course = s.startsWith("snd") ? "snd120" : "lgt110";
      classes.append(s).append(",Section,").append(s).append(',').append(course);
      classes.append(s.contains("-pk") ? ",south,t1\n" : ",north,t1\n");
      if (s.equals(sections[0])) {
        enrollments.append("e,").append(s).append(",u1,teacher\n");
      }
    }
    return zip(
        Map.of(
            "manifest.csv",
            "propertyName,value\nmanifest.version,1.0\noneroster.version,1.1\n",
            "orgs.csv",
            "sourcedId,name,type\nnorth,North,school\n"
                + (String.join(" ", sections).contains("-pk") ? "south,South,school\n" : "")
                + "light,Lighting,department\n"
                + "sound,Sound,department\n",
            "academicSessions.csv",
            "sourcedId,title,type,startDate,endDate\nt1,Autumn,term,2026-09-07,2026-12-18\n",
            "courses.csv",
            "sourcedId,title,courseCode,orgSourcedId\nlgt110,Light,LGT 110,light\n"
                + "snd120,Sound,SND 120,sound\n",
            "classes.csv",
            classes.toString(),
            "users.csv",
            "sourcedId,givenName,familyName,email,role\nu1,Agnes,Pell,instructor@x.example,teacher\n",
            "enrollments.csv",
            enrollments.toString()));
  }

  static byte[] zip(Map<String, String> files) throws IOException {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try (ZipOutputStream zip = new ZipOutputStream(out)) {
      for (Map.Entry<String, String> f : files.entrySet()) {
        zip.putNextEntry(new ZipEntry(f.getKey()));
        zip.write(f.getValue().getBytes(StandardCharsets.UTF_8));
        zip.closeEntry();
      }
    }
    return out.toByteArray();
  }
}
