package org.zephyrmist.core.content;

import java.math.BigDecimal;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;

/**
 * Between an item and the canonical form of its aspects. A canonical form is JSON (RFC 8259) with
 * sorted names and without empty members; equal aspects have equal forms.
 */
public final class AspectForms {
  /** The wording of any kind of item; what a kind does not have is empty. */
  public record Wording(
      String title,
      String html,
      Optional<FileRef> file,
      int questions,
      List<Content.Criterion> criteria,
      List<String> groups) {}

  /** Where a link leads. */
  public record Launch(String address, boolean newWindow, SortedMap<String, String> parameters) {}

  private static final Launch NOWHERE = new Launch("", false, new TreeMap<>());

  private AspectForms() {}

  /** All six forms of an item. */
  public static Map<Aspect, String> of(Item item) {
    EnumMap<Aspect, String> forms = new EnumMap<>(Aspect.class);
    forms.put(Aspect.WORDING, CanonicalJson.write(wording(item)));
    forms.put(Aspect.GRADING, CanonicalJson.write(grading(item.content())));
    forms.put(Aspect.TIMING, CanonicalJson.write(item.timing()));
    forms.put(Aspect.PLACE, form(item.place()));
    forms.put(Aspect.VISIBILITY, CanonicalJson.write(item.visibility()));
    forms.put(Aspect.LAUNCH, CanonicalJson.write(launch(item.content())));
    return forms;
  }

  /** The fingerprints of all six forms. */
  public static Fingerprints fingerprints(Map<Aspect, String> forms) {
    EnumMap<Aspect, Fingerprint> map = new EnumMap<>(Aspect.class);
    forms.forEach((aspect, form) -> map.put(aspect, Fingerprint.of(form)));
    return Fingerprints.of(map);
  }

  /** The fingerprints of an item. */
  public static Fingerprints fingerprints(Item item) {
    return fingerprints(of(item));
  }

  /** The item that has these forms; the inverse of {@link #of}. */
  public static Item item(ItemKey key, Kind kind, EditRule rule, Map<Aspect, String> forms) {
    Wording w = CanonicalJson.read(forms.get(Aspect.WORDING), Wording.class);
    Grading g = CanonicalJson.read(forms.get(Aspect.GRADING), Grading.class);
    Launch l = CanonicalJson.read(forms.get(Aspect.LAUNCH), Launch.class);
    return new Item(
        key,
        Titles.firstOf(w.title()),
        content(kind, w, g, l),
        CanonicalJson.read(forms.get(Aspect.TIMING), Timing.class),
        place(forms.get(Aspect.PLACE)),
        CanonicalJson.read(forms.get(Aspect.VISIBILITY), Visibility.class),
        rule);
  }

  /** The title in a wording. */
  public static String title(String wording) {
    return Titles.firstOf(CanonicalJson.read(wording, Wording.class).title());
  }

  /** The place that has this form. */
  public static Place place(String form) {
    return CanonicalJson.read(form, Place.class);
  }

  /** The form of a place. */
  public static String form(Place place) {
    return CanonicalJson.write(place);
  }

  /** Content of a kind, from its aspects. */
  public static Content content(Kind kind, Wording w, Grading g, Launch l) {
    return switch (kind) {
      case MODULE -> new Content.Module();
      case PAGE -> new Content.Page(w.html());
      case FILE -> new Content.File(w.file().orElseThrow());
      case WEB_LINK -> new Content.WebLink(l.address(), l.newWindow());
      case TOOL_LINK -> new Content.ToolLink(w.html(), l.address(), l.parameters());
      case ASSIGNMENT -> new Content.Assignment(w.html(), g);
      case DISCUSSION -> new Content.Discussion(w.html());
      case QUIZ -> new Content.Quiz(w.html(), w.file().orElseThrow(), w.questions(), g);
      case QUESTION_BANK -> new Content.QuestionBank(w.file().orElseThrow(), w.questions());
      case RUBRIC -> new Content.Rubric(w.criteria());
      case OUTCOME -> new Content.Outcome(w.html());
      case GRADE_CATEGORY -> new Content.GradeCategory(g);
      case ANNOUNCEMENT -> new Content.Announcement(w.html());
      case GROUP_SET -> new Content.GroupSet(w.groups());
    };
  }

  /** The same item with another text. */
  public static Item withHtml(Item item, String html) {
    return item.withContent(
        content(
            item.kind(),
            withHtml(wording(item), html),
            grading(item.content()),
            launch(item.content())));
  }

  /** The same wording with another text. */
  public static Wording withHtml(Wording w, String html) {
    return new Wording(w.title(), html, w.file(), w.questions(), w.criteria(), w.groups());
  }

  /** The wording of an item. */
  public static Wording wording(Item item) {
    String t = item.title();
    Content c = item.content();
    if (c instanceof Content.File f) {
      return new Wording(t, "", Optional.of(f.file()), 0, List.of(), List.of());
    }
    if (c instanceof Content.Quiz q) {
      return new Wording(t, q.html(), Optional.of(q.questions()), q.count(), List.of(), List.of());
    }
    if (c instanceof Content.QuestionBank b) {
      return new Wording(t, "", Optional.of(b.questions()), b.count(), List.of(), List.of());
    }
    if (c instanceof Content.Rubric r) {
      return new Wording(t, "", Optional.empty(), 0, r.criteria(), List.of());
    }
    if (c instanceof Content.GroupSet g) {
      return new Wording(t, "", Optional.empty(), 0, List.of(), g.groups());
    }
    return new Wording(t, html(c), Optional.empty(), 0, List.of(), List.of());
  }

  /** The text of an item; empty for kinds without text. */
  public static String html(Content c) {
    if (c instanceof Content.Page p) {
      return p.html();
    }
    if (c instanceof Content.ToolLink t) {
      return t.html();
    }
    if (c instanceof Content.Assignment a) {
      return a.html();
    }
    if (c instanceof Content.Discussion d) {
      return d.html();
    }
    if (c instanceof Content.Quiz q) {
      return q.html();
    }
    if (c instanceof Content.Outcome o) {
      return o.html();
    }
    if (c instanceof Content.Announcement a) {
      return a.html();
    }
    return "";
  }

  /** How an item counts; {@link Grading#NONE} for kinds that do not. */
  public static Grading grading(Content c) {
    if (c instanceof Content.Assignment a) {
      return a.grading();
    }
    if (c instanceof Content.Quiz q) {
      return q.grading();
    }
    if (c instanceof Content.GradeCategory g) {
      return g.grading();
    }
    return Grading.NONE;
  }

  /** Where an item leads, if it is a link. */
  public static Launch launch(Content c) {
    if (c instanceof Content.WebLink w) {
      return new Launch(w.address(), w.newWindow(), new TreeMap<>());
    }
    if (c instanceof Content.ToolLink t) {
      return new Launch(t.address(), false, t.parameters());
    }
    return NOWHERE;
  }

  /** Points as people write them, for instance "10". */
  public static Optional<BigDecimal> points(Content c) {
    return grading(c).points();
  }
}
