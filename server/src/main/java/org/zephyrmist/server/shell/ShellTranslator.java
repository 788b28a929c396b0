package org.zephyrmist.server.shell;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.function.Function;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Aspects;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.FileRef;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.Frames;
import org.zephyrmist.core.content.Html;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Mentions;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.core.delivery.CleanStart;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.core.edit.ShellNames;
import org.zephyrmist.server.platform.PlatformGateway.ShellItem;
import org.zephyrmist.server.platform.ShellAddresses;

/**
 * Between our terms and a shell's: keys and item ids, references and addresses, order at the top.
 *
 * <p>Several masters meet at the top of one shell; the ranks of each get a letter before them, so
 * that the whole college's parts stand first.
 */
public final class ShellTranslator {
  /** An item as the platform writes it, but for its place. */
  private record Raw(ShellAddresses addresses, Kind kind, Map<Aspect, String> forms) {
    Raw {
      forms = new EnumMap<>(forms);
      forms.remove(Aspect.PLACE);
    }
  }

  /** The same in our terms; the form of the place is still to be put in. */
  private record Own(String title, Map<Aspect, String> forms, Fingerprints prints) {}

  /** The same items stand in hundreds of shells; so many characters of them are kept. */
  private static final Cache<Raw, Own> OWN =
      Caffeine.newBuilder()
          .maximumWeight(32_000_000)
          .weigher((Raw raw, Own own) -> chars(raw.forms()) + chars(own.forms()))
          .build();

  /** Before the platform's id of an item that is not ours, where a key would stand. */
  static final String HERE = ShellNames.HERE;

  private final ShellAddresses addresses;
  private final String shell;
  private final Ours ours;
  private final Map<UUID, String> letters;
  private final Frames frames;
  private final QuestionFiles questions;

  /** Files of questions as they are kept, and as they are sent to the platform. */
  interface QuestionFiles {
    FileRef sent(FileRef kept);

    FileRef kept(FileRef sent);
  }

  /**
   * @param ours what of the shell is ours
   * @param letters before the ranks at the top of a shell, by master
   * @param frames that may stand in texts
   */
  ShellTranslator(
      ShellAddresses addresses,
      String shell,
      Ours ours,
      Map<UUID, String> letters,
      Frames frames,
      QuestionFiles questions) {
    this.questions = questions;
    this.frames = frames;
    this.addresses = addresses;
    this.shell = shell;
    this.ours = ours;
    this.letters = letters;
  }

  /** An item as read, with its canonical forms. */
  record Read(Held held, Map<Aspect, String> forms) {}

  Read in(ShellItem s) {
    List<Ours.Known> known = ours.known(s.id());
    Own own = OWN.getIfPresent(new Raw(addresses, s.kind(), s.forms()));
    if (own == null) {
      own = translate(s, known);
    }
    String place = AspectForms.form(place(AspectForms.place(s.forms().get(Aspect.PLACE)), known));
    EnumMap<Aspect, String> forms = new EnumMap<>(own.forms());
    forms.put(Aspect.PLACE, place);
    Held held =
        new Held(
            s.id(),
            s.kind(),
            own.title(),
            s.parent(),
            own.prints().with(Aspect.PLACE, Fingerprint.of(place)),
            s.studentWork(),
            known.isEmpty());
    return new Read(held, forms);
  }

  /** What stands where a key would stand, for an item by the platform's id. */
  public static String hereKey(String id) {
    return HERE + id;
  }

  /** The platform's id in what stands where a key would stand. */
  static String here(String key) {
    return key.substring(HERE.length());
  }

  /** The platform's id in what stands where a key would stand; none if it is a key. */
  public static Optional<String> hereId(String key) {
    return key.startsWith(HERE) ? Optional.of(here(key)) : Optional.empty();
  }

  private Place place(Place place, List<Ours.Known> known) {
    Optional<String> parent =
        place.parent().map(p -> key(p, known).map(ItemKey::value).orElse(HERE + p));
    boolean lettered =
        parent.isEmpty()
            && known.stream().map(k -> letters.get(k.master())).anyMatch(place.rank()::startsWith);
    return new Place(parent, lettered ? place.rank().substring(1) : place.rank());
  }

  /**
   * The key under which an item refers to another; none for what is not ours, or is of another
   * master: a key means an item of the same master, or of one of those whose front pages are one.
   */
  private Optional<ItemKey> key(String id, List<Ours.Known> from) {
    return ours.known(id).stream()
        .filter(
            to ->
                from.isEmpty()
                    || from.stream().map(Ours.Known::master).anyMatch(to.master()::equals))
        .min(Comparator.comparing(to -> letters.get(to.master())))
        .map(Ours.Known::key);
  }

  /** All but the place; kept where no address is the shell's own. */
  private Own translate(ShellItem s, List<Ours.Known> known) {
    Item raw = AspectForms.item(new ItemKey("x"), s.kind(), EditRule.ADAPTABLE, s.forms());
    boolean[] local = {false};
    Function<String, Optional<String>> named =
        id -> {
          local[0] = true;
          return Optional.of(key(id, known).map(ItemKey::value).orElse(HERE + id));
        };
    Function<String, String> reference =
        address -> {
          local[0] |= addresses.isWithinAShell(address);
          return reference(address, known);
        };
    Aspects a = Aspects.of(raw);
    a =
        a.with(Mentions.renamed(a.grading(), named))
            .with(Mentions.renamed(a.visibility(), named))
            .with(Mentions.outcomes(a.wording(), named));
    Map<Aspect, String> forms = new EnumMap<>(a.forms());
    boolean pictured = pictured(a.wording());
    if (pictured) {
      a = a.with(a.wording().withFile(a.wording().file().map(questions::kept)));
    }
    if (pictured || !a.wording().html().isEmpty() || !a.wording().entries().isEmpty()) {
      forms.put(Aspect.WORDING, AspectForms.form(Mentions.addresses(a.wording(), reference)));
    }
    Own own = new Own(raw.title(), forms, AspectForms.fingerprints(forms));
    if (!local[0]) {
      OWN.put(new Raw(addresses, s.kind(), s.forms()), own);
    }
    return own;
  }

  /** Whether it is questions that show pictures. */
  public static boolean pictured(Wording w) {
    return w.file().isPresent() && !w.attached().isEmpty();
  }

  private String reference(String address, List<Ours.Known> from) {
    return addresses
        .asFile(address)
        .map(f -> References.file(f.sha256(), f.name(), f.fragment()))
        .or(
            () ->
                addresses
                    .asItem(shell, address)
                    .flatMap(i -> key(i.id(), from).map(k -> References.item(k, i.fragment()))))
        .orElse(address);
  }

  private static int chars(Map<Aspect, String> forms) {
    return forms.values().stream().mapToInt(String::length).sum();
  }

  /** Forms as the shell needs them, and whether every item they refer to is there. */
  public record Written(Map<Aspect, String> forms, boolean complete) {}

  /**
   * Forms of an item of a master, in the shell's terms.
   *
   * @param forms those that are written
   * @param wording the value of the form of the wording, if that is written
   */
  public Written out(Map<Aspect, String> forms, Optional<Wording> wording, UUID master) {
    Map<Aspect, String> out = new EnumMap<>(Aspect.class);
    out.putAll(forms);
    boolean[] complete = {true};
    wording.ifPresent(w -> out.put(Aspect.WORDING, AspectForms.form(out(w, master, complete))));
    Function<String, Optional<String>> named = key -> id(master, key, complete);
    out.computeIfPresent(
        Aspect.GRADING,
        (a, form) -> AspectForms.form(Mentions.renamed(AspectForms.grading(form), named)));
    out.computeIfPresent(
        Aspect.VISIBILITY,
        (a, form) -> AspectForms.form(Mentions.renamed(AspectForms.visibility(form), named)));
    out.computeIfPresent(
        Aspect.PLACE, (a, form) -> AspectForms.form(out(AspectForms.place(form), master)));
    return new Written(out, complete[0]);
  }

  private Wording out(Wording w, UUID master, boolean[] complete) {
    Wording safe = w.withHtml(Html.safe(w.html(), frames));
    if (pictured(w)) {
      safe = safe.withFile(w.file().map(questions::sent));
    }
    Wording there =
        Mentions.addresses(
            safe,
            a ->
                References.asFile(a)
                    .map(addresses::file)
                    .or(
                        () ->
                            References.asItem(a)
                                .map(
                                    r ->
                                        id(master, r.key().value(), complete)
                                            .map(x -> addresses.item(shell, x, r.fragment()))
                                            .orElse(References.NOWHERE)))
                    .orElseGet(() -> References.isOurs(a) ? References.NOWHERE : putBack(a)));
    return Mentions.outcomes(there, key -> id(master, key, complete))
        .withSetup(
            there.subject(),
            there.entries().stream().filter(e -> !e.value().equals(References.NOWHERE)).toList());
  }

  /** Where an address of the shell leads now, if its item was put back since. */
  private String putBack(String address) {
    return addresses
        .asItem(shell, address)
        .flatMap(i -> again(i.id()).map(now -> addresses.item(shell, now, i.fragment())))
        .orElse(address);
  }

  /** What the platform calls an item of a master; notes it if the item is not there. */
  private Optional<String> id(UUID master, String key, boolean[] complete) {
    Optional<String> id = id(master, key);
    complete[0] &= id.isPresent();
    return id;
  }

  /** What is not ours is called as it was read, or as it is since it was put back. */
  private Optional<String> id(UUID master, String key) {
    Optional<String> here = hereId(key);
    return here.isPresent()
        ? again(here.get()).or(() -> here)
        : ItemKey.of(key).flatMap(k -> ours.id(master, k));
  }

  /** What the platform calls an item now that was removed and put back. */
  private Optional<String> again(String id) {
    return ours.again(id).or(() -> ours.id(Ours.NOBODY, CleanStart.own(id)));
  }

  private Place out(Place place, UUID master) {
    boolean top = place.parent().isEmpty();
    Optional<String> parent = place.parent().flatMap(p -> id(master, p));
    return new Place(parent, top ? letters.getOrDefault(master, "") + place.rank() : place.rank());
  }
}
