package org.zephyrmist.server.demo;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/** The demo college as a OneRoster bundle. */
record DemoRoster(List<Section> sections, byte[] bundle) {
  static final List<String> GIVEN =
      List.of(
          "Agnes", "Karl", "Temi", "Dalia", "Lena", "Piet", "Rosa", "Jonas", "Mirela", "Osei",
          "Hanne", "Vikram", "Colm", "Nadia", "Bo", "Irena");
  static final List<String> FAMILY =
      List.of(
          "Pell",
          "Sundqvist",
          "Oyelaran",
          "Abara",
          "Tran-Ortega",
          "Hale",
          "Marchetti",
          "Vance",
          "Ruiz",
          "Osei",
          "Lindqvist-Amaral",
          "Kowalczyk");

  /**
   * @param id also the id of its shell
   */
  record Section(String id, String code, String course, String campus, String term) {}

  private record Course(String code, String title, String department, int sections) {}

  private static final List<Course> COURSES =
      List.of(
          new Course("LGT 110", "Stage Lighting Fundamentals", "lighting", 48),
          new Course("LGT 215", "Moving Light Programming", "lighting", 14),
          new Course("LGT 240", "Projection and Media", "lighting", 10),
          new Course("SND 120", "Sound for Performance", "sound", 36),
          new Course("SND 230", "Playback and Show Control", "sound", 11),
          new Course("SAF 100", "Backstage Safety", "safety", 62),
          new Course("RIG 140", "Rigging and Loads", "safety", 18),
          new Course("SCN 105", "Scenic Carpentry", "scenic", 28),
          new Course("SCN 220", "Metalwork for the Stage", "scenic", 9),
          new Course("SCN 160", "Scene Painting", "scenic", 14),
          new Course("CST 130", "Costume Construction", "costume", 24),
          new Course("CST 225", "Millinery and Wigs", "costume", 8),
          new Course("STM 210", "Stage Management", "management", 22),
          new Course("STM 115", "Front of House", "management", 16));

  static LocalDate firstDay(LocalDate today) {
    return today.with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY)).minusWeeks(10);
  }

  static DemoRoster make(LocalDate today) {
    LocalDate first = firstDay(today);
    List<Section> sections = new ArrayList<>();
    String[] campuses = {"north", "quay", "mill"};
    StringBuilder classes =
        new StringBuilder(
            "sourcedId,status,title,classCode,courseSourcedId,schoolSourcedId,termSourcedIds\n");
    StringBuilder enrollments =
        new StringBuilder("sourcedId,classSourcedId,schoolSourcedId,userSourcedId,role\n");
    int n = 0;
    for (Course c : COURSES) {
      for (String term : List.of("t1", "t2")) {
        int many = term.equals("t1") ? c.sections() : Math.max(2, c.sections() / 9);
        for (int i = 1; i <= many; i++) {
          String number = c.code().substring(4);
          String code = number + "-" + String.format("%02d", i);
          String id =
              (term + "-" + c.code().replace(" ", "") + "-" + String.format("%02d", i))
                  .toLowerCase(Locale.ROOT);
          String campus = campuses[(i * 7 + c.code().hashCode() % 3 + 3) % 3];
          sections.add(new Section(id, code, c.code(), campus, term));
          classes
              .append(
                  String.join(
                      ",",
                      id,
                      "active",
                      "\"" + c.title() + ", section " + i + "\"",
                      code,
                      sourced(c.code()),
                      campus,
                      term))
              .append('\n');
          int teacher = (i / 2 + c.code().hashCode() % 29 + 29) % 48;
          enrollments
              .append(String.join(",", "e" + n++, id, campus, "u" + teacher, "teacher"))
              .append('\n');
        }
      }
    }
    return new DemoRoster(
        sections,
        zip(
            "manifest.csv",
            "propertyName,value\nmanifest.version,1.0\noneroster.version,1.1\n",
            "orgs.csv",
            "sourcedId,name,type\nnorth,North,school\nquay,Quay,school\nmill,Mill,school\n"
                + "lighting,Stage Lighting,department\nsound,Sound,department\n"
                + "safety,Backstage Safety,department\nscenic,Scenic Carpentry,department\n"
                + "costume,Costume,department\nmanagement,Stage Management,department\n",
            "academicSessions.csv",
            "sourcedId,title,type,startDate,endDate\nt1,"
                + season(first)
                + ",term,"
                + first
                + ","
                + first.plusDays(102)
                + "\nt2,"
                + season(first.plusWeeks(19))
                + ",term,"
                + first.plusWeeks(19)
                + ","
                + first.plusWeeks(19).plusDays(102)
                + "\n",
            "courses.csv",
            courses(),
            "classes.csv",
            classes.toString(),
            "users.csv",
            users(),
            "enrollments.csv",
            enrollments.toString()));
  }

  private static String sourced(String code) {
    return code.replace(" ", "").toLowerCase(java.util.Locale.ROOT);
  }

  private static String season(LocalDate day) {
    int m = day.getMonthValue();
    return (m >= 7 ? "Autumn " : m >= 5 ? "Summer " : "Spring ") + day.getYear();
  }

  private static String courses() {
    StringBuilder s = new StringBuilder("sourcedId,title,courseCode,orgSourcedId\n");
    COURSES.forEach(
        c ->
            s.append(String.join(",", sourced(c.code()), c.title(), c.code(), c.department()))
                .append('\n'));
    return s.toString();
  }

  private static String users() {
    StringBuilder s = new StringBuilder("sourcedId,givenName,familyName,email,role\n");
    for (int i = 0; i < 48; i++) {
      String given = GIVEN.get(i % GIVEN.size());
      String family = FAMILY.get((i * 5) % FAMILY.size());
      String email = "u" + i + "@larkmoor.example";
      s.append(String.join(",", "u" + i, given, family, email, "teacher")).append('\n');
    }
    return s.toString();
  }

  private static byte[] zip(String... namesAndTexts) {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    try (ZipOutputStream zip = new ZipOutputStream(out)) {
      for (int i = 0; i < namesAndTexts.length; i += 2) {
        zip.putNextEntry(new ZipEntry(namesAndTexts[i]));
        zip.write(namesAndTexts[i + 1].getBytes(StandardCharsets.UTF_8));
        zip.closeEntry();
      }
    } catch (IOException e) {
      throw new java.io.UncheckedIOException(e);
    }
    return out.toByteArray();
  }
}
