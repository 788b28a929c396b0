package org.zephyrmist.core.content;

import java.util.EnumMap;
import java.util.Map;

/**
 * Between an item and the canonical form of its aspects. A canonical form is JSON (RFC 8259) with
 * sorted names and without empty members; equal aspects have equal forms.
 */
public final class AspectForms {
  private AspectForms() {}

  /** All six forms of an item. */
  public static Map<Aspect, String> of(Item item) {
    return Aspects.of(item).forms();
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
    return Aspects.read(forms).item(key, kind, rule);
  }

  /** The wording that has this form. */
  public static Wording wording(String form) {
    return CanonicalJson.read(form, Wording.class);
  }

  /** The form of a wording, its text made canonical. */
  public static String form(Wording wording) {
    return CanonicalJson.write(wording.withHtml(Html.canonical(wording.html())));
  }

  /** The grading that has this form. */
  public static Grading grading(String form) {
    return CanonicalJson.read(form, Grading.class);
  }

  /** The form of a grading. */
  public static String form(Grading grading) {
    return CanonicalJson.write(grading);
  }

  /** The visibility that has this form. */
  public static Visibility visibility(String form) {
    return CanonicalJson.read(form, Visibility.class);
  }

  /** The title alone, of the form of a wording that may be damaged; empty if it has none. */
  public static String title(String form) {
    return CanonicalJson.text(form, "title");
  }

  /** The form of a visibility. */
  public static String form(Visibility visibility) {
    return CanonicalJson.write(visibility);
  }

  /** The timing that has this form. */
  public static Timing timing(String form) {
    return CanonicalJson.read(form, Timing.class);
  }

  /** The form of a timing. */
  public static String form(Timing timing) {
    return CanonicalJson.write(timing);
  }

  /** The launch that has this form. */
  public static Launch launch(String form) {
    return CanonicalJson.read(form, Launch.class);
  }

  /** The place that has this form. */
  public static Place place(String form) {
    return CanonicalJson.read(form, Place.class);
  }

  /** The form of a place. */
  public static String form(Place place) {
    return CanonicalJson.write(place);
  }
}
