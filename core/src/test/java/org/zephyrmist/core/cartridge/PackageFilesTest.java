package org.zephyrmist.core.cartridge;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.KeySpace;

/** Files are kept on one thread while another reads the outline; nobody is to notice. */
@Timeout(60)
class PackageFilesTest {
  private static final int PAGES = 60;
  @TempDir Path folder;

  /** Every page shows a picture of its own, a shared one and a large one, all after the pages. */
  private Path pictures() throws IOException {
    StringBuilder items = new StringBuilder();
    StringBuilder resources = new StringBuilder();
    for (int i = 0; i < PAGES; i++) {
      items.append(
          "<item identifier='i%d' identifierref='r%d'><title>P%d</title></item>"
              .formatted(i, i, i));
      resources.append(
          "<resource identifier='r%d' type='webcontent' href='p%d.html'/>".formatted(i, i));
    }
    Package p = Package.cc12(items.toString(), resources.toString());
    for (int i = 0; i < PAGES; i++) {
      p.with(
          "p" + i + ".html",
          "<p><img src='z/" + i + ".png'><img src='z/all.png'><a href='z/large.bin'>x</a></p>");
    }
    for (int i = 0; i < PAGES; i++) {
      p.with("z/" + i + ".png", bytes(2_000, i));
    }
    return p.with("z/all.png", bytes(500, -1))
        .with("z/large.bin", bytes(3 << 20, -2))
        .write(folder);
  }

  private static byte[] bytes(int size, long seed) {
    byte[] all = new byte[size];
    new Random(seed).nextBytes(all);
    return all;
  }

  /** Passes everything on, but may hold files up or fail. */
  private abstract static class Odd implements Intake {
    @Override
    public KeySpace keySpace(CartridgeFacts facts) {
      return KeySpace.of(facts.title());
    }

    final Package.Memory memory = new Package.Memory();

    abstract void before(String path) throws IOException;

    @Override
    public FileRef file(String path, String name, String mediaType, InputStream in)
        throws IOException {
      before(path);
      return memory.file(path, name, mediaType, in);
    }

    @Override
    public FileRef made(String name, String mediaType, byte[] content) {
      return memory.made(name, mediaType, content);
    }

    @Override
    public void item(Item item) {
      memory.item(item);
    }

    @Override
    public void progress(int done, int total, String what) {}
  }

  private static Odd odd(Before before) {
    return new Odd() {
      @Override
      void before(String path) throws IOException {
        before.before(path);
      }
    };
  }

  private interface Before {
    void before(String path) throws IOException;
  }

  @RepeatedTest(10)
  void theReadingIsTheSameWhicheverThreadIsQuicker() throws Exception {
    Path file = pictures();
    Package.Memory plain = new Package.Memory();
    ReadingReport report = CartridgeReader.read(file, Limits.DEFAULT, plain);
    Random random = new Random();
    Odd slow = odd(path -> pause(random.nextInt(3)));
    assertThat(CartridgeReader.read(file, Limits.DEFAULT, slow)).isEqualTo(report);
    assertThat(slow.memory.items).isEqualTo(plain.items);
    assertThat(slow.memory.paths).isEqualTo(plain.paths).hasSize(2 * PAGES + 3);
    assertThat(report.deadReferences()).isEmpty();
  }

  @Test
  void anIntakeThatFailsEndsTheReadingWithItsOwnFailure() throws Exception {
    Path file = pictures();
    AtomicInteger kept = new AtomicInteger();
    Odd full =
        odd(
            path -> {
              if (kept.incrementAndGet() == 30) {
                throw new IllegalStateException("The disk is full");
              }
            });
    assertThatThrownBy(() -> CartridgeReader.read(file, Limits.DEFAULT, full))
        .isInstanceOf(IllegalStateException.class)
        .hasMessage("The disk is full");
    assertThat(kept).hasValue(30);
  }

  @Test
  void anErrorOnTheThreadOfTheFilesLeavesNobodyWaiting() throws Exception {
    Path file = pictures();
    Odd broken =
        odd(
            path -> {
              throw new AssertionError("as if memory had run out");
            });
    assertThatThrownBy(() -> CartridgeReader.read(file, Limits.DEFAULT, broken))
        .isInstanceOf(IllegalStateException.class)
        .hasMessageContaining("not kept");
  }

  @Test
  void aManifestThatIsRefusedEndsTheKeepingOfFiles() throws Exception {
    Package p = Package.of("<manifest><broken></manifest>");
    for (int i = 0; i < 200; i++) {
      p.with("f" + i, bytes(10, i));
    }
    Path file = p.write(folder);
    Odd slow = odd(path -> pause(5));
    assertThatThrownBy(() -> CartridgeReader.read(file, Limits.DEFAULT, slow))
        .isInstanceOf(CartridgeException.class)
        .hasMessageContaining("malformed");
    assertThat(slow.memory.paths).hasSizeLessThan(200);
    assertThat(keepers()).isEmpty();
  }

  @Test
  void aReadingThatIsStoppedLeavesNoThreadBehind() throws Exception {
    Path file = pictures();
    CountDownLatch begun = new CountDownLatch(1);
    Odd never =
        odd(
            path -> {
              begun.countDown();
              pause(60_000);
            });
    List<Throwable> ends = new ArrayList<>();
    Thread reading =
        new Thread(
            () -> {
              try {
                CartridgeReader.read(file, Limits.DEFAULT, never);
              } catch (Exception e) {
                ends.add(e);
              }
            });
    reading.start();
    assertThat(begun.await(10, TimeUnit.SECONDS)).isTrue();
    reading.interrupt();
    reading.join(Duration.ofSeconds(10).toMillis());
    assertThat(reading.isAlive()).isFalse();
    assertThat(ends).hasSize(1);
    assertThat(keepers()).isEmpty();
  }

  private static List<Thread> keepers() {
    return Thread.getAllStackTraces().keySet().stream()
        .filter(t -> t.getName().equals("files of a package") && t.isAlive())
        .toList();
  }

  private static void pause(int millis) {
    try {
      Thread.sleep(millis);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException("stopped", e);
    }
  }
}
