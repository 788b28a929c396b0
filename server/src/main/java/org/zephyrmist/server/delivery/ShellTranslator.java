package org.zephyrmist.server.delivery;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.EnumMap;
import java.util.Map;
import java.util.Optional;
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
  private final Map<String, Known> known;

  /** An item of ours in the shell: its key and the letter of its master. */
  record Known(ItemKey key, String letter) {}

  /**
   * @param known items of ours by the platform's id
   */
  ShellTranslator(String shell, Map<String, Known> known) {
    this.shell = shell;
    this.known = known;
  }

  /** An item as read, with its canonical forms. */
  record Read(Held held, Map<Aspect, String> forms) {}

  Read in(ShellItem s) {
    Own own = OWN.getIfPresent(new Raw(s.kind(), s.forms()));
    if (own == null) {
      own = translate(s);
    }
    Known ours = known.get(s.id());
    String place = AspectForms.form(place(AspectForms.place(s.forms().get(Aspect.PLACE)), ours));
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
            ours == null);
    return new Read(held, forms);
  }

  private Place place(Place place, Known ours) {
    Optional<String> parent =
        place.parent().map(p -> known.containsKey(p) ? known.get(p).key().value() : "here:" + p);
    boolean lettered = parent.isEmpty() && ours != null && place.rank().startsWith(ours.letter());
    return new Place(parent, lettered ? place.rank().substring(1) : place.rank());
  }

  /** All but the place; kept where no address is the shell's own. */
  private Own translate(ShellItem s) {
    Item raw = AspectForms.item(new ItemKey("x"), s.kind(), EditRule.ADAPTABLE, s.forms());
    Map<Aspect, String> forms = new EnumMap<>(AspectForms.of(raw));
    boolean[] local = {false};
    String html = AspectForms.html(raw.content());
    if (!html.isEmpty()) {
      UnaryOperator<String> reference =
          address -> {
            local[0] |= address.startsWith(SHELLS);
            return reference(address);
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
    return AspectForms.of(withHtml(item, html)).get(Aspect.WORDING);
  }

  private static Item withHtml(Item item, String html) {
    return item.withContent(
        AspectForms.content(
            item.kind(),
            AspectForms.withHtml(AspectForms.wording(item), html),
            AspectForms.grading(item.content()),
            AspectForms.launch(item.content())));
  }

  private String reference(String address) {
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
      Known k = known.get(References.withoutFragment(address.substring(items.length())));
      return k == null ? address : References.item(k.key(), fragment);
    }
    return address;
  }

  private static int chars(Map<Aspect, String> forms) {
    return forms.values().stream().mapToInt(String::length).sum();
  }

  /** Forms of an item as the shell needs them, and whether every item it refers to is there. */
  record Written(Map<Aspect, String> forms, boolean complete) {}

  /**
   * @param ids the platform's ids of our items
   * @param letter of the item's master
   */
  Written out(Item item, Map<ItemKey, String> ids, String letter) {
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
              String id = ids.get(i.key());
              complete[0] &= id != null;
              return id == null ? "#" : SHELLS + shell + "/items/" + id + i.fragment();
            });
    Item translated = item.kind() == Kind.MODULE ? item : withHtml(item, html);
    Optional<String> parent = item.place().parent().map(ItemKey::new).map(ids::get);
    String rank =
        item.place().parent().isEmpty() ? letter + item.place().rank() : item.place().rank();
    return new Written(AspectForms.of(translated.withPlace(new Place(parent, rank))), complete[0]);
  }
}
