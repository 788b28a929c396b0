package org.zephyrmist.core.archive;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

/**
 * Counts the entries of a ZIP archive (APPNOTE 6.3, 4.3.12 to 4.3.16) without keeping any of them:
 * what opens archives keeps the whole directory in memory first.
 */
public final class ZipDirectory {
  private static final int ENTRY = 0x02014b50;
  private static final int END = 0x06054b50;
  private static final int LOCATOR64 = 0x07064b50;
  private static final int ENTRY_SIZE = 46;
  private static final int END_SIZE = 22;
  private static final int LOCATOR_SIZE = 20;
  private static final int END64_SIZE = 56;
  private static final int COMMENT = 0xffff;

  /** Bytes of the directory for each entry that is allowed: its header and a name and more. */
  private static final long EACH = 1_024;

  private ZipDirectory() {}

  /**
   * Whether the directory has at most so many entries and is no larger than they may make it. It is
   * read as far as it goes on, whatever the archive says of its length, and wherever a reader may
   * find it. True for what is no ZIP archive at all; whoever opens it will tell.
   */
  public static boolean holdsAtMost(Path file, int entries) throws IOException {
    try (FileChannel in = FileChannel.open(file)) {
      for (long start : starts(in)) {
        if (!holdsAtMost(in, start, entries)) {
          return false;
        }
      }
      return true;
    }
  }

  private static boolean holdsAtMost(FileChannel in, long start, int entries) throws IOException {
    ByteBuffer header = buffer(ENTRY_SIZE);
    long at = start;
    for (int n = 0; at >= 0 && at <= in.size() - ENTRY_SIZE; n++) {
      read(in, header, at);
      if (header.getInt(0) != ENTRY) {
        return true;
      }
      int more = unsigned(header, 28) + unsigned(header, 30) + unsigned(header, 32);
      at += ENTRY_SIZE + more;
      if (n >= entries || at - start > entries * EACH) {
        return false;
      }
    }
    return true;
  }

  /**
   * Where a directory may begin: where the end says, or, if something stands before the archive,
   * right before the end; and the same of the 64-bit end, if there is one.
   */
  private static Set<Long> starts(FileChannel in) throws IOException {
    Set<Long> all = new LinkedHashSet<>();
    long size = in.size();
    int tail = (int) Math.min(size, END_SIZE + COMMENT);
    ByteBuffer b = buffer(tail);
    read(in, b, size - tail);
    for (int i = tail - END_SIZE; i >= 0; i--) {
      if (b.getInt(i) == END) {
        long end = size - tail + i;
        all.add(b.getInt(i + 16) & 0xffffffffL);
        all.add(end - (b.getInt(i + 12) & 0xffffffffL));
        all.addAll(starts64(in, end));
        return all;
      }
    }
    return all;
  }

  private static Set<Long> starts64(FileChannel in, long end) throws IOException {
    if (end < LOCATOR_SIZE) {
      return Set.of();
    }
    ByteBuffer locator = buffer(LOCATOR_SIZE);
    read(in, locator, end - LOCATOR_SIZE);
    long record = locator.getLong(8);
    if (locator.getInt(0) != LOCATOR64 || record < 0 || record > in.size() - END64_SIZE) {
      return Set.of();
    }
    ByteBuffer b = buffer(END64_SIZE);
    read(in, b, record);
    return new HashSet<>(List.of(b.getLong(48), record - b.getLong(40)));
  }

  private static ByteBuffer buffer(int size) {
    return ByteBuffer.allocate(size).order(ByteOrder.LITTLE_ENDIAN);
  }

  private static int unsigned(ByteBuffer b, int at) {
    return b.getShort(at) & 0xffff;
  }

  private static void read(FileChannel in, ByteBuffer b, long at) throws IOException {
    b.clear();
    while (b.hasRemaining()) {
      int n = in.read(b, at + b.position());
      if (n < 0) {
        return;
      }
    }
  }
}
