package org.zephyrmist.core.history;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Fingerprints;
import org.zephyrmist.core.content.Html;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.content.Wording;

/**
 * An item as a person sees it.
 *
 * @param in name of the module in which it stands; empty at the top
 */
record Said(Kind kind, String title, String html, int points, int due, String in, boolean shown) {
  private static final Pattern WORD = Pattern.compile("\\b[di]\\d+");

  static Said page(String title, String html, String in) {
    return new Said(Kind.PAGE, title, html, 0, 1, in, true);
  }

  Said withTitle(String to) {
    return new Said(kind, to, html, points, due, in, shown);
  }

  Said withHtml(String to) {
    return new Said(kind, title, Html.canonical(to), points, due, in, shown);
  }

  Said withPoints(int to) {
    return new Said(kind, title, html, to, due, in, shown);
  }

  Said withDue(int to) {
    return new Said(kind, title, html, points, to, in, shown);
  }

  Said standingIn(String module) {
    return new Said(kind, title, html, points, due, module, shown);
  }

  Said withShown(boolean to) {
    return new Said(kind, title, html, points, due, in, to);
  }

  /** The words that somebody put into it, by their look. */
  List<String> words() {
    List<String> all = new ArrayList<>();
    Matcher m = WORD.matcher(title + " " + html);
    while (m.find()) {
      all.add(m.group());
    }
    return all;
  }

  /** A word put behind another, anywhere in the text: in a paragraph, a list, a table. */
  Said withWord(Random random, String word) {
    List<Integer> ends = new ArrayList<>();
    Matcher m = WORD.matcher(html);
    while (m.find()) {
      ends.add(m.end());
    }
    if (ends.isEmpty()) {
      return withHtml(html + "<p>" + word + "</p>");
    }
    int at = ends.get(random.nextInt(ends.size()));
    return withHtml(html.substring(0, at) + " " + word + html.substring(at));
  }

  Fingerprints aspects(Texts texts) {
    Map<Aspect, Fingerprint> map = new EnumMap<>(Aspect.class);
    map.put(Aspect.WORDING, texts.keep(AspectForms.form(Wording.of(title, html))));
    map.put(Aspect.GRADING, texts.keep("" + points));
    map.put(Aspect.TIMING, texts.keep("" + due));
    map.put(Aspect.PLACE, texts.keep(in));
    map.put(Aspect.VISIBILITY, texts.keep("" + shown));
    map.put(Aspect.LAUNCH, texts.keep("none"));
    return Fingerprints.of(new EnumMap<>(map));
  }

  static Said of(Kind kind, Fingerprints f, Texts texts) {
    Wording w = AspectForms.wording(texts.of(f.get(Aspect.WORDING)));
    return new Said(
        kind,
        w.title(),
        w.html(),
        Integer.parseInt(texts.of(f.get(Aspect.GRADING))),
        Integer.parseInt(texts.of(f.get(Aspect.TIMING))),
        texts.of(f.get(Aspect.PLACE)),
        Boolean.parseBoolean(texts.of(f.get(Aspect.VISIBILITY))));
  }
}
