package org.zephyrmist.core.archive;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.file.Path;

/**
 * Counts the entries of a ZIP archive (APPNOTE 6.3, 4.3.12 to 4.3.16) without keeping any of them:
 * what opens archives keeps the whole directory in memory first.
 */
public final class ZipDirectory {
  private static final int ENTRY = 0x02014b50;
  private static final int END = 0x06054b50;
  private static final int END64 = 0x06064b50;
  private static final int LOCATOR64 = 0x07064b50;
  private static final int ENTRY_SIZE = 46;
  private static final int END_SIZE = 22;
  private static final int LOCATOR_SIZE = 20;
  private static final int COMMENT = 0xffff;

  /** Bytes of the directory for each entry that is allowed: its header and a name and more. */
  private static final long EACH = 1_024;

  private ZipDirectory() {}

  /**
   * Whether the directory has at most so many entries and is no larger than they may make it. It is
   * read as far as it goes on, whatever the archive says of its length. True for what is no ZIP
   * archive at all; whoever opens it will tell.
   */
  public static boolean holdsAtMost(Path file, int entries) throws IOException {
    try (FileChannel in = FileChannel.open(file)) {
      long at = start(in);
      long first = at;
      ByteBuffer header = buffer(ENTRY_SIZE);
      for (int n = 0; at >= 0 && at + ENTRY_SIZE <= in.size(); n++) {
        read(in, header, at);
        if (header.getInt(0) != ENTRY) {
          return true;
        }
        int more = unsigned(header, 28) + unsigned(header, 30) + unsigned(header, 32);
        at += ENTRY_SIZE + more;
        if (n >= entries || at - first > entries * EACH) {
          return false;
        }
      }
      return true;
    }
  }

  /** Where the directory begins; -1 if there is none. */
  private static long start(FileChannel in) throws IOException {
    long size = in.size();
    int tail = (int) Math.min(size, END_SIZE + COMMENT);
    ByteBuffer b = buffer(tail);
    read(in, b, size - tail);
    for (int i = tail - END_SIZE; i >= 0; i--) {
      if (b.getInt(i) == END) {
        long end = size - tail + i;
        long told = b.getInt(i + 16) & 0xffffffffL;
        return told == 0xffffffffL ? start64(in, end) : begins(in, told, end, b.getInt(i + 12));
      }
    }
    return -1;
  }

  /** Something may stand before the archive; then the directory lies right before its end. */
  private static long begins(FileChannel in, long told, long end, int length) throws IOException {
    long before = end - (length & 0xffffffffL);
    return isEntry(in, told) || before < 0 ? told : before;
  }

  private static boolean isEntry(FileChannel in, long at) throws IOException {
    if (at + 4 > in.size()) {
      return false;
    }
    ByteBuffer b = buffer(4);
    read(in, b, at);
    return b.getInt(0) == ENTRY;
  }

  private static long start64(FileChannel in, long end) throws IOException {
    if (end < LOCATOR_SIZE) {
      return -1;
    }
    ByteBuffer locator = buffer(LOCATOR_SIZE);
    read(in, locator, end - LOCATOR_SIZE);
    long record = locator.getLong(8);
    if (locator.getInt(0) != LOCATOR64 || record < 0 || record + 56 > in.size()) {
      return -1;
    }
    ByteBuffer b = buffer(56);
    read(in, b, record);
    return b.getInt(0) == END64 ? b.getLong(48) : -1;
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
