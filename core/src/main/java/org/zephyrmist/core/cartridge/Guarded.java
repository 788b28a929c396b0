package org.zephyrmist.core.cartridge;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.zip.CRC32;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;

/** One file of an archive as it is unpacked: counted, held to the ratio, its check sum compared. */
final class Guarded extends FilterInputStream {
  /** Bytes from which the ratio counts. */
  static final long RATIO_FROM = 1 << 20;

  /** Counts bytes of the whole package. */
  interface Counter {
    void count(String name, int n) throws Unfit;
  }

  private final ZipArchiveEntry entry;
  private final String name;
  private final Limits limits;
  private final Counter counter;
  private final CRC32 sum = new CRC32();
  private long read;
  private boolean ended;

  Guarded(InputStream in, ZipArchiveEntry entry, String name, Limits limits, Counter counter) {
    super(in);
    this.entry = entry;
    this.name = name;
    this.limits = limits;
    this.counter = counter;
  }

  @Override
  public int read() throws IOException {
    byte[] one = new byte[1];
    return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
  }

  @Override
  public int read(byte[] b, int off, int len) throws IOException {
    int n;
    try {
      n = in.read(b, off, len);
    } catch (IOException e) {
      throw Unfit.damaged(name, e);
    }
    if (n < 0) {
      end();
      return n;
    }
    sum.update(b, off, n);
    read += n;
    counter.count(name, n);
    if (read > RATIO_FROM && read / Math.max(1, entry.getCompressedSize()) > limits.ratio()) {
      throw Unfit.large(
          name, "The file is more than " + limits.ratio() + " times its packed size.");
    }
    return n;
  }

  private void end() throws Unfit {
    if (!ended && (sum.getValue() != entry.getCrc() || read != entry.getSize())) {
      throw Unfit.damaged(name, new IOException("its check sum or size is another"));
    }
    ended = true;
  }

  @Override
  public boolean markSupported() {
    return false;
  }
}
