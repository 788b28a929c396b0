package org.zephyrmist.bench;

import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.sql.Connection;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import org.zephyrmist.stage.Folders;
import org.zephyrmist.stage.Stage;

/** Taking a package in, against unpacking, hashing and copying the same bytes; and its heap. */
final class TakeIn {
  private static final int WARM = 4; // half as large; till Java's compiler is done with most
  private final int items;

  TakeIn(int items) {
    this.items = items;
  }

  Figure time() throws Exception {
    Path folder = Folders.fresh("takein");
    List<Path> warm = new ArrayList<>();
    for (int i = 0; i < WARM; i++) {
      warm.add(LargePackage.write(folder, "Warm " + i, items / 2 + 1, 10 + i));
    }
    Path file = LargePackage.write(folder, "Measured", items, 2);
    try (Stage s = Measuring.stage()) {
      College college = College.found(1, folder);
      for (Path w : warm) {
        college.takeIn(w);
      }
      try (Connection db = s.connect()) {
        for (Path w : warm) {
          raw(db, w);
        }
        double baseline = Stopwatch.seconds(() -> raw(db, file));
        Busy busy = new Busy();
        double measured = Stopwatch.seconds(() -> college.takeIn(file));
        double cores = busy.cores();
        return Figure.of("take in", measured, baseline, 2.0, "s")
            .with("items", items)
            .with("megabytes", Files.size(file) >> 20)
            .with("cores busy", cores);
      }
    }
  }

  private static void raw(Connection db, Path file) throws Exception {
    db.setAutoCommit(false);
    try (Statement s = db.createStatement()) {
      s.execute("drop table if exists raw_chunk");
      s.execute(
          "create table raw_chunk (sha256 bytea, n int, data bytea, primary key (sha256, n))");
      s.execute("alter table raw_chunk alter column data set storage external");
    }
    MessageDigest digest = MessageDigest.getInstance("SHA-256");
    try (ZipFile zip = new ZipFile(file.toFile());
        RawCopy copy = new RawCopy(db, "raw_chunk")) {
      for (ZipEntry e : Collections.list(zip.entries())) {
        try (InputStream in = zip.getInputStream(e)) {
          byte[] all = in.readAllBytes();
          byte[] sha = digest.digest(all);
          for (int at = 0, n = 0; at < all.length; at += 262_144, n++) {
            copy.row(sha, n, Arrays.copyOfRange(all, at, Math.min(all.length, at + 262_144)));
          }
        }
      }
    }
    db.commit();
    db.setAutoCommit(true);
  }

  /**
   * Live heap at its highest, ten times the items and files against the size, within 512 MB. The
   * large one comes first, so that what a server remembers up to a bound is there in both.
   */
  Figure heap() throws Exception {
    Path folder = Folders.fresh("takein");
    Path large = LargePackage.write(folder, "Ten", items * 10, 4);
    Path small = LargePackage.write(folder, "One", items, 3);
    try (Stage s = Measuring.stage("-Xmx512m", Map.of())) {
      Heap heap = new Heap(folder, s.pid(0));
      College college = College.found(1, folder);
      long ten = heap.peakDuring(() -> college.takeIn(large));
      long one = heap.peakDuring(() -> college.takeIn(small));
      return Figure.of("take in, ten times the size: peak heap", ten, one, 1.2, "MB")
          .with("items", items * 10)
          .with("megabytes", Files.size(large) >> 20);
    }
  }
}
