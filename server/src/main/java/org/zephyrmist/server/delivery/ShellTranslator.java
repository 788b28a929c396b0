package org.zephyrmist.server.delivery;

import java.util.EnumMap;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.EditRule;
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
    ItemKey key = Optional.ofNullable(known.get(s.id())).map(Known::key).orElse(new ItemKey("x"));
    Item raw = AspectForms.item(key, s.kind(), EditRule.ADAPTABLE, s.forms());
    Place place = raw.place();
    Optional<String> parent =
        place.parent().map(p -> known.containsKey(p) ? known.get(p).key().value() : "here:" + p);
    String rank = place.rank();
    if (parent.isEmpty() && known.containsKey(s.id())) {
      String letter = known.get(s.id()).letter();
      rank = rank.startsWith(letter) ? rank.substring(1) : rank;
    }
    EnumMap<Aspect, String> forms =
        new EnumMap<>(AspectForms.of(raw.withPlace(new Place(parent, rank))));
    String html = AspectForms.html(raw.content());
    if (!html.isEmpty()) {
      forms.put(Aspect.WORDING, wording(raw, Html.mapAddresses(html, this::reference)));
    }
    Held held =
        new Held(
            s.id(),
            s.kind(),
            raw.title(),
            s.parent(),
            AspectForms.fingerprints(forms),
            s.studentWork(),
            !known.containsKey(s.id()));
    return new Read(held, forms);
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
    String items = "/shells/" + shell + "/items/";
    if (address.startsWith(items)) {
      String fragment = References.fragment(address);
      Known k = known.get(References.withoutFragment(address.substring(items.length())));
      return k == null ? address : References.item(k.key(), fragment);
    }
    return address;
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
              return id == null ? "#" : "/shells/" + shell + "/items/" + id + i.fragment();
            });
    Item translated = item.kind() == Kind.MODULE ? item : withHtml(item, html);
    Optional<String> parent = item.place().parent().map(ItemKey::new).map(ids::get);
    String rank =
        item.place().parent().isEmpty() ? letter + item.place().rank() : item.place().rank();
    return new Written(AspectForms.of(translated.withPlace(new Place(parent, rank))), complete[0]);
  }
}
