package org.zephyrmist.server.delivery;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.EnumMap;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.Html;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Place;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.server.platform.PlatformGateway.ShellItem;

/**
 * Between our terms and a shell's: keys and item ids, references and addresses, order at the top.
 *
 * <p>Several masters meet at the top of one shell; the ranks of each get a letter before them, so
 * that the whole college's parts stand first.
 */
final class ShellTranslator {
  private static final Pattern FILE = Pattern.compile("/files/([0-9a-f]{64})/([^?#]*)(#.*)?");
  private static final String SHELLS = "/shells/";

  /** An item as the platform writes it, but for its place. */
  private record Raw(Kind kind, Map<Aspect, String> forms) {
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

  private final String shell;
  private final Ours ours;
  private final Map<UUID, String> letters;

  /**
   * @param ours what of the shell is ours
   * @param letters before the ranks at the top of a shell, by master
   */
  ShellTranslator(String shell, Ours ours, Map<UUID, String> letters) {
    this.shell = shell;
    this.ours = ours;
    this.letters = letters;
  }

  /** An item as read, with its canonical forms. */
  record Read(Held held, Map<Aspect, String> forms) {}

  Read in(ShellItem s) {
    Optional<Ours.Known> known = ours.known(s.id());
    Own own = OWN.getIfPresent(new Raw(s.kind(), s.forms()));
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

  private Place place(Place place, Optional<Ours.Known> known) {
    Optional<String> parent =
        place.parent().map(p -> key(p, known).map(ItemKey::value).orElse("here:" + p));
    boolean lettered =
        parent.isEmpty()
            && known.map(k -> letters.get(k.master())).filter(place.rank()::startsWith).isPresent();
    return new Place(parent, lettered ? place.rank().substring(1) : place.rank());
  }

  /**
   * The key under which an item refers to another; none for what is not ours, or is of another
   * master: a key means an item of the same master.
   */
  private Optional<ItemKey> key(String id, Optional<Ours.Known> from) {
    return ours.known(id)
        .filter(to -> from.map(Ours.Known::master).orElse(to.master()).equals(to.master()))
        .map(Ours.Known::key);
  }

  /** All but the place; kept where no address is the shell's own. */
  private Own translate(ShellItem s, Optional<Ours.Known> known) {
    Item raw = AspectForms.item(new ItemKey("x"), s.kind(), EditRule.ADAPTABLE, s.forms());
    Map<Aspect, String> forms = new EnumMap<>(AspectForms.of(raw));
    boolean[] local = {false};
    String html = AspectForms.html(raw.content());
    if (!html.isEmpty()) {
      UnaryOperator<String> reference =
          address -> {
            local[0] |= address.startsWith(SHELLS);
            return reference(address, known);
          };
      forms.put(Aspect.WORDING, wording(raw, Html.mapAddresses(html, reference)));
    }
    Own own = new Own(raw.title(), forms, AspectForms.fingerprints(forms));
    if (!local[0]) {
      OWN.put(new Raw(s.kind(), s.forms()), own);
    }
    return own;
  }

  private static String wording(Item item, String html) {
    return AspectForms.of(AspectForms.withHtml(item, html)).get(Aspect.WORDING);
  }

  private String reference(String address, Optional<Ours.Known> from) {
    Matcher file = FILE.matcher(address);
    if (file.matches()) {
      String fragment = file.group(3) == null ? "" : file.group(3);
      String name =
          java.net.URLDecoder.decode(
              file.group(2).replace("+", "%2B"), java.nio.charset.StandardCharsets.UTF_8);
      return References.file(file.group(1), name, fragment);
    }
    String items = SHELLS + shell + "/items/";
    if (address.startsWith(items)) {
      String fragment = References.fragment(address);
      return key(References.withoutFragment(address.substring(items.length())), from)
          .map(k -> References.item(k, fragment))
          .orElse(address);
    }
    return address;
  }

  private static int chars(Map<Aspect, String> forms) {
    return forms.values().stream().mapToInt(String::length).sum();
  }

  /** Forms of an item as the shell needs them, and whether every item it refers to is there. */
  record Written(Map<Aspect, String> forms, boolean complete) {}

  /** An item of a master, in the shell's terms. */
  Written out(Item item, UUID master) {
    boolean[] complete = {true};
    String html =
        References.resolve(
            Html.safe(AspectForms.html(item.content())),
            f ->
                "/files/"
                    + f.sha256()
                    + "/"
                    + java.net.URLEncoder.encode(f.name(), java.nio.charset.StandardCharsets.UTF_8)
                        .replace("+", "%20")
                    + f.fragment(),
            i -> {
              Optional<String> id = ours.id(master, i.key());
              complete[0] &= id.isPresent();
              return id.map(x -> SHELLS + shell + "/items/" + x + i.fragment()).orElse("#");
            });
    Item translated = item.kind() == Kind.MODULE ? item : AspectForms.withHtml(item, html);
    Optional<String> parent =
        item.place().parent().map(ItemKey::new).flatMap(k -> ours.id(master, k));
    String rank =
        item.place().parent().isEmpty()
            ? letters.get(master) + item.place().rank()
            : item.place().rank();
    return new Written(AspectForms.of(translated.withPlace(new Place(parent, rank))), complete[0]);
  }
}
