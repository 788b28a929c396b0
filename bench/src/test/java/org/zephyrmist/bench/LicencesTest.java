package org.zephyrmist.bench;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import java.util.zip.ZipInputStream;
import org.junit.jupiter.api.Test;

/** Every library that ships has its licence with it, in its own archive or in the list. */
class LicencesTest {
  private static final String LIBRARIES = "BOOT-INF/lib/";

  @Test
  void ofEveryLibraryThatHasNoneOfItsOwnTheListHasTheText() throws Exception {
    Path app = Path.of(System.getProperty("root", "."), "app/target/zephyrmist-server.jar");
    try (ZipFile zip = new ZipFile(app.toFile())) {
      String list = text(zip, LIBRARIES + "server-1.jar", "static/licences-of-libraries.txt");
      List<String> without = new ArrayList<>();
      for (ZipEntry e : zip.stream().filter(e -> e.getName().startsWith(LIBRARIES)).toList()) {
        String library = e.getName().substring(LIBRARIES.length()).replaceFirst("-[0-9].*", "");
        boolean ours = Set.of("core", "server", "web").contains(library);
        if (!e.isDirectory() && !ours && !named(list, library) && !holdsOne(zip, e)) {
          without.add(library);
        }
      }
      assertThat(without).isEmpty();
    }
  }

  private static boolean named(String list, String library) {
    return list.lines().anyMatch(library::equals);
  }

  private static String text(ZipFile zip, String jar, String name) throws IOException {
    try (ZipInputStream in = new ZipInputStream(zip.getInputStream(zip.getEntry(jar)))) {
      for (ZipEntry e; (e = in.getNextEntry()) != null; ) {
        if (e.getName().equals(name)) {
          return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
      }
    }
    throw new IOException(name + " is not in " + jar);
  }

  private static boolean holdsOne(ZipFile zip, ZipEntry jar) throws IOException {
    byte[] bytes;
    try (InputStream in = zip.getInputStream(jar)) {
      bytes = in.readAllBytes();
    }
    try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(bytes))) {
      for (ZipEntry e; (e = in.getNextEntry()) != null; ) {
        String name = e.getName().toLowerCase(Locale.ROOT);
        if (!e.isDirectory() && name.matches("(.*/)?(licen[cs]e|copying)[^/]*")) {
          return true;
        }
      }
      return false;
    }
  }
}
