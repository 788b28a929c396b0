package org.zephyrmist.stage;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.zephyrmist.core.cartridge.CartridgeFacts;
import org.zephyrmist.core.cartridge.CartridgeWriter;
import org.zephyrmist.core.cartridge.PackageChoices;
import org.zephyrmist.core.cartridge.PackageFormat;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Grading;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.content.Rank;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.Visibility;

/** Packages and rosters of any size. */
public final class Samples {
  private static final byte[] PICTURE =
      Base64.getDecoder()
          .decode(
              "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5E"
                  + "rkJggg==");

  private static final String LOAD = "<p>Write the load beside every lantern on the plot.</p>";

  private Samples() {}

  /** A cartridge of so many items, ten in a module, each module's first page naming its last. */
  public static Path cartridge(Path folder, int items) throws IOException {
    return cartridge(folder, items, "", "Stage Light");
  }

  /** Another publisher's: its items have the same identifiers, its title is another. */
  public static Path alike(Path folder, int items) throws IOException {
    return cartridge(folder, items, "", "Light for the Stage");
  }

  /** The same under any title. */
  public static Path titled(Path folder, int items, String title) throws IOException {
    return cartridge(folder, items, "", title);
  }

  /** The same, with a picture in its second page. */
  public static Path illustrated(Path folder, int items) throws IOException {
    String sha = Fingerprint.of(Fingerprint.sha256().digest(PICTURE)).hex();
    String address = References.file(sha, "lantern.png", "");
    return cartridge(
        folder, items, "<p><img src=\"" + address + "\" alt=\"A lantern\"></p>", "Stage Light");
  }

  /**
   * The next edition: two readings of week 1 say something else, two of week 2 have another
   * identifier and one title, a page of week 3 is new, one of week 4 is gone.
   */
  public static Path secondEdition(Path folder, int items) throws IOException {
    List<Item> all = items(items, "");
    List<Item> next = new ArrayList<>();
    for (Item i : all) {
      String key = i.key().value();
      switch (key) {
        case "w0-1", "w0-2" ->
            next.add(said(i, i.content().html().replace("2,400 watts", "1,920 watts")));
        case "w1-3", "w1-4" -> {}
        case "w3-4" -> {}
        default -> next.add(i);
      }
    }
    String twice =
        all.stream()
            .filter(i -> i.key().value().matches("w1-[34]"))
            .map(i -> i.content().html())
            .collect(Collectors.joining());
    item(next, "w1-3-b", "w1", 11, "Notes", new Content.Page(twice));
    item(next, "w1-4-b", "w1", 12, "Notes", new Content.Page(twice));
    item(next, "w2-new", "w2", 10, "Mixing light", new Content.Page("<p>Three make white.</p>"));
    return write(folder, "Stage Light", next);
  }

  /** A page of a cartridge. */
  public record Page(String title, String html) {}

  /** A cartridge of pages alone, by their identifiers. */
  public static Path pages(Path folder, String title, Map<String, Page> pages) throws IOException {
    List<Item> all = new ArrayList<>();
    pages.forEach(
        (id, p) -> item(all, id, null, all.size(), p.title(), new Content.Page(p.html())));
    return write(folder, title, all);
  }

  private static Item said(Item i, String html) {
    return new Item(
        i.key(),
        i.title(),
        new Content.Page(html),
        i.timing(),
        i.place(),
        i.visibility(),
        i.rule());
  }

  /** A module with a tool link for each of these hosts. */
  public static Path tools(Path folder, List<String> hosts) throws IOException {
    List<Item> all = new ArrayList<>();
    item(all, "week", null, 0, "Week 1", new Content.Module());
    for (int i = 0; i < hosts.size(); i++) {
      String host = hosts.get(i);
      item(
          all,
          "tool" + i,
          "week",
          i,
          "Open " + host,
          new Content.ToolLink(
              "", "https://" + host + "/launch", new java.util.TreeMap<>(Map.of("unit", "1"))));
    }
    return write(folder, "Tools of the trade", all);
  }

  private static Path cartridge(Path folder, int items, String figure, String title)
      throws IOException {
    return write(folder, title, items(items, figure));
  }

  private static List<Item> items(int items, String figure) {
    List<Item> all = new ArrayList<>();
    String week = "";
    for (int i = 0; i < items; i++) {
      int n = i % 10;
      if (n == 0) {
        week = "w" + i / 10;
        item(all, week, null, i / 10, "Week " + (i / 10 + 1), new Content.Module());
      } else {
        item(all, week + "-" + n, week, n, kind(n) + " " + i, content(n, week, i, items, figure));
      }
    }
    return all;
  }

  private static Path write(Path folder, String title, List<Item> all) throws IOException {
    Path file = Files.createTempFile(folder, "cartridge", ".imscc");
    try (OutputStream out = Files.newOutputStream(file)) {
      CartridgeWriter.write(
          out,
          new CartridgeFacts(title, "", "en", "CC BY", "", false),
          all,
          PackageChoices.all(PackageFormat.CC_1_3),
          sha -> new ByteArrayInputStream(PICTURE));
    }
    return file;
  }

  private static String kind(int n) {
    return n < 6 ? "Reading" : n == 6 ? "Exercise" : n == 7 ? "Talk" : n == 8 ? "Manual" : "Sheet";
  }

  private static Content content(int n, String week, int i, int items, String figure) {
    String text =
        "<h2>Lamp "
            + i
            + "</h2><p>A circuit carries 2,400 watts; lamp "
            + i
            + " draws its share.</p>"
            + LOAD.repeat(4);
    boolean last = i / 10 == (items - 1) / 10;
    return switch (n) {
      case 1 -> last ? new Content.Page(text) : new Content.Page(text + link(week + "-9"));
      case 2 -> new Content.Page(i == 2 ? text + figure : text);
      case 6 -> new Content.Assignment(text, Grading.points(BigDecimal.TEN));
      case 7 -> new Content.Discussion(text);
      case 8 -> new Content.WebLink("https://maker.example/" + i, true);
      default -> new Content.Page(text);
    };
  }

  private static String link(String key) {
    return "<p>See the <a href=\"" + References.item(new ItemKey(key), "") + "\">sheet</a>.</p>";
  }

  /** Adds an item that may be adapted and is shown. */
  public static void item(
      List<Item> all, String key, String parent, int n, String title, Content c) {
    Place place = new Place(Optional.ofNullable(parent), Rank.nth(n));
    all.add(
        new Item(
            new ItemKey(key), title, c, Timing.NONE, place, Visibility.SHOWN, EditRule.ADAPTABLE));
  }

  /**
   * Sections of LGT 110; those whose ids begin with "out-" are on the south campus, with "nxt-" in
   * the next term.
   */
  public static Path roster(Path folder, List<String> sections) throws IOException {
    StringBuilder classes =
        new StringBuilder(
            "sourcedId,title,classCode,courseSourcedId,schoolSourcedId,termSourcedIds\n");
    for (String id : sections) {
      String campus = id.startsWith("out-") ? "south" : "north";
      classes.append(id).append(",Light,110-").append(id.substring(4)).append(",lgt110,");
      classes.append(campus).append(id.startsWith("nxt-") ? ",t2\n" : ",t1\n");
    }
    Map<String, String> files =
        Map.of(
            "manifest.csv",
            "propertyName,value\nmanifest.version,1.0\noneroster.version,1.1\n",
            "orgs.csv",
            "sourcedId,name,type\nnorth,North,school\nsouth,South,school\n"
                + "light,Lighting,department\n",
            "academicSessions.csv",
            "sourcedId,title,type,startDate,endDate\nt1,Autumn,term,2026-09-07,2036-12-18\n"
                + (String.join(" ", sections).contains("nxt-")
                    ? "t2,Spring,term,2037-01-12,2037-05-15\n"
                    : ""),
            "courses.csv",
            "sourcedId,title,courseCode,orgSourcedId\nlgt110,Stage Lighting,LGT 110,light\n",
            "classes.csv",
            classes.toString());
    Path file = Files.createTempFile(folder, "roster", ".zip");
    try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(file))) {
      for (Map.Entry<String, String> f : files.entrySet()) {
        zip.putNextEntry(new ZipEntry(f.getKey()));
        zip.write(f.getValue().getBytes(StandardCharsets.UTF_8));
        zip.closeEntry();
      }
    }
    return file;
  }
}
