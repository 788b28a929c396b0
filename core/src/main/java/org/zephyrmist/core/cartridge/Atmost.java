package org.zephyrmist.core.cartridge;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;

/** A stream of at most so many bytes. */
final class Atmost extends FilterInputStream {
  private final String name;
  private final long most;
  private long read;

  Atmost(InputStream in, String name, long most) {
    super(in);
    this.name = name;
    this.most = most;
  }

  @Override
  public int read() throws IOException {
    byte[] one = new byte[1];
    return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
  }

  @Override
  public int read(byte[] b, int off, int len) throws IOException {
    int n = in.read(b, off, len);
    read += Math.max(0, n);
    if (read > most) {
      throw Unfit.large(name, "The file is larger than " + most / (1 << 20) + " MB.");
    }
    return n;
  }
}
