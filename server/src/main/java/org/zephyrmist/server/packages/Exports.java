package org.zephyrmist.server.packages;

import static org.zephyrmist.server.db.Tables.SECTION;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.zephyrmist.core.cartridge.CartridgeException;
import org.zephyrmist.core.cartridge.CartridgeFacts;
import org.zephyrmist.core.cartridge.CartridgeReader;
import org.zephyrmist.core.cartridge.Intake;
import org.zephyrmist.core.cartridge.Limits;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Aspects;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.KeySpace;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Mentions;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.core.question.QuestionSet;
import org.zephyrmist.core.shell.Exported;
import org.zephyrmist.server.content.FileIntake;
import org.zephyrmist.server.content.Files;
import org.zephyrmist.server.content.Questions;
import org.zephyrmist.server.platform.KeptShells;
import org.zephyrmist.server.platform.KeptWrites;
import org.zephyrmist.server.platform.PlatformGateway;
import org.zephyrmist.server.platform.Platforms;
import org.zephyrmist.server.platform.ShellAddresses;
import org.zephyrmist.server.shell.Reading;
import org.zephyrmist.server.shell.Shell;
import org.zephyrmist.server.shell.ShellItems;
import org.zephyrmist.server.shell.ShellReader;
import org.zephyrmist.server.shell.Shells;
import org.zephyrmist.server.web.Refusal;

/** Packages that were exported from shells without an interface, taken in as readings. */
@Component
class Exports {
  private final DSLContext db;
  private final Files files;
  private final Questions questions;
  private final Platforms platforms;
  private final Shells shells;
  private final ShellReader reader;
  private final KeptShells kept;
  private final KeptWrites keptWrites;
  private final TransactionTemplate transaction;

  Exports(
      DSLContext db,
      Files files,
      Questions questions,
      Platforms platforms,
      Shells shells,
      ShellReader reader,
      KeptShells kept,
      KeptWrites keptWrites,
      TransactionTemplate transaction) {
    this.db = db;
    this.files = files;
    this.questions = questions;
    this.platforms = platforms;
    this.shells = shells;
    this.reader = reader;
    this.kept = kept;
    this.keptWrites = keptWrites;
    this.transaction = transaction;
  }

  /**
   * What an export told.
   *
   * @param came of the package that waited, so many items are there
   * @param missing of it, so many are not
   * @param changed so many items read otherwise than they were known
   */
  record Told(int items, int came, int missing, int changed, int gone, int fresh, int doubtful) {}

  /** Items of a package as they come, its files kept. */
  private static final class Taken implements Intake {
    private final FileIntake into;
    private final List<Item> items = new ArrayList<>();
    private CartridgeFacts facts;

    Taken(FileIntake into) {
      this.into = into;
    }

    @Override
    public FileRef file(String path, String name, String mediaType, InputStream in)
        throws IOException {
      return into.loose(name, mediaType, in);
    }

    @Override
    public FileRef made(String name, String mediaType, byte[] content) {
      return into.made(name, mediaType, content);
    }

    @Override
    public KeySpace keySpace(CartridgeFacts facts) {
      this.facts = facts;
      return KeySpace.WITHOUT_SOURCE;
    }

    @Override
    public void item(Item item) {
      items.add(item);
    }

    @Override
    public void progress(int done, int total, String what) {
      // it is over before anybody could look
    }
  }

  /**
   * Takes an export in as what the shell holds; all or nothing.
   *
   * @throws Refusal if it is no export of this shell, or an older one
   */
  Told take(UUID section, String name, Path file) {
    Shell shell = shells.of(section);
    PlatformGateway gateway =
        shell.id().map(id -> shells.gateway(shell)).orElseThrow(() -> Refusal.notFound("shell"));
    if (!gateway.byPackage()) {
      throw Refusal.bad(
          "The platform of this section has an interface.", "Read the shell again instead.");
    }
    Told told = transaction.execute(t -> take(shell, gateway, name, file));
    reader.refresh(section);
    return told;
  }

  private Told take(Shell shell, PlatformGateway gateway, String name, Path file) {
    Taken taken = read(name, file);
    itsOwn(shell, taken.facts);
    boolean waits = kept.state(shell.section()).flatMap(KeptShells.State::packageAt).isPresent();
    Reading is = reader.read(gateway, shell);
    PlatformGateway will = waits ? platforms.meant(shell.platform().orElseThrow()) : gateway;
    Reading known = waits ? reader.read(will, shell) : is;
    Optional<Exported> found =
        Exported.of(outline(known, will, shell), taken.items, this::questions);
    List<String> coming =
        known.items().stream().map(Held::id).filter(id -> is.item(id).isEmpty()).toList();
    Set<String> now =
        found
            .map(x -> x.items().stream().map(i -> i.key().value()).collect(Collectors.toSet()))
            .orElse(Set.of());
    int came = (int) coming.stream().filter(id -> now.contains(key(id))).count();
    boolean fits =
        found.isPresent()
            || waits
                && Exported.of(outline(is, gateway, shell), taken.items, this::questions)
                    .isPresent();
    if (!fits) {
      throw Refusal.bad(
          "“" + name + "” is no export of this shell: hardly anything is known.",
          "Export the shell of this section and upload that.");
    }
    if (waits && !coming.isEmpty() && came == 0) {
      throw new Refusal(
          HttpStatus.CONFLICT,
          "“" + name + "” is of a day before the package was brought in: nothing of it is there.",
          "Bring the package in, export the shell again, and upload that.");
    }
    Exported e = found.orElseThrow();
    keptWrites.exported(shell.section(), forms(e, will, shell));
    return new Told(
        e.items().size(),
        came,
        coming.size() - came,
        e.changed().size(),
        e.gone().size(),
        e.fresh().size(),
        e.doubtful());
  }

  private static List<Item> outline(Reading r, PlatformGateway gateway, Shell shell) {
    return ShellItems.outline(r, gateway.addresses(), shell.there()).stream()
        .map(ShellItems.Placed::item)
        .toList();
  }

  private Optional<QuestionSet> questions(Item i) {
    return i.kind() == Kind.QUIZ || i.kind() == Kind.QUESTION_BANK
        ? i.content().madeOf().flatMap(questions::read)
        : Optional.empty();
  }

  private static String key(String id) {
    return ShellItems.key(id).value();
  }

  private Taken read(String name, Path file) {
    try (FileIntake into = files.loose()) {
      Taken taken = new Taken(into);
      CartridgeReader.read(file, Limits.DEFAULT, taken);
      into.flush();
      return taken;
    } catch (CartridgeException e) {
      throw Refusal.bad(name + ", " + e.place() + ": " + e.getMessage(), e.remedy());
    } catch (IOException e) {
      throw Refusal.bad("“" + name + "” is damaged: " + e.getMessage(), "Export the shell again.");
    }
  }

  /** A package that goes in is no export, and an export names whose it is, if it names anyone. */
  private void itsOwn(Shell shell, CartridgeFacts facts) {
    if (facts.identifier().startsWith(SectionPackages.OURS)) {
      throw Refusal.bad(
          "This is a package that goes into the shell, not one that came out of it.",
          "Bring it in, export the shell, and upload that.");
    }
    String title = " " + facts.title() + " ";
    String code =
        db.select(SECTION.CODE)
            .from(SECTION)
            .where(SECTION.ID.eq(shell.section()))
            .fetchSingle(SECTION.CODE);
    if (title.contains(code) || title.contains(shell.there())) {
      return;
    }
    Optional<String> another =
        db
            .select(SECTION.CODE, SECTION.SHELL)
            .from(SECTION)
            .where(SECTION.PLATFORM_ID.eq(shell.platform().orElseThrow()))
            .fetch()
            .stream()
            .filter(r -> names(title, r.value1()) || names(title, r.value2()))
            .map(r -> r.value1())
            .findFirst();
    if (another.isPresent()) {
      throw Refusal.bad(
          "This is the export of " + another.get() + ", not of " + code + ".",
          "Upload it at " + another.get() + ", or export the shell of " + code + ".");
    }
  }

  private static boolean names(String title, String what) {
    return title.matches(
        "(?s).*[^A-Za-z0-9-]" + java.util.regex.Pattern.quote(what) + "[^A-Za-z0-9-].*");
  }

  /** In the shell's terms; what is as it was known keeps the form in which it was kept. */
  private static List<KeptWrites.Item> forms(Exported e, PlatformGateway known, Shell shell) {
    Map<String, PlatformGateway.ShellItem> raw = new HashMap<>();
    known.read(shell.there()).items().forEach(i -> raw.put(key(i.id()), i));
    List<KeptWrites.Item> all = new ArrayList<>();
    for (Item i : e.items()) {
      PlatformGateway.ShellItem was = raw.get(i.key().value());
      Map<Aspect, String> forms = new HashMap<>(there(i, known.addresses(), shell).forms());
      if (was != null && !e.changed().contains(i.key())) {
        String place = forms.get(Aspect.PLACE);
        boolean moved = !was.parent().equals(AspectForms.place(place).parent());
        forms = new HashMap<>(was.forms());
        if (moved) {
          forms.put(Aspect.PLACE, place);
        }
      } else if (was != null) {
        for (Aspect a : Aspect.values()) {
          if (a != Aspect.WORDING && a != Aspect.LAUNCH) {
            forms.put(a, was.forms().get(a));
          }
        }
      }
      all.add(new KeptWrites.Item(was == null ? i.key().value() : was.id(), i.kind(), forms));
    }
    return all;
  }

  private static Aspects there(Item i, ShellAddresses at, Shell shell) {
    Aspects a = Aspects.of(i);
    return a.with(
        Mentions.addresses(
            a.wording(),
            address ->
                References.asFile(address)
                    .map(at::file)
                    .or(
                        () ->
                            References.asItem(address)
                                .map(r -> at.item(shell.there(), r.key().value(), r.fragment())))
                    .orElse(address)));
  }
}
