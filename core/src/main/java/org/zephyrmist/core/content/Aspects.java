package org.zephyrmist.core.content;

import java.util.EnumMap;
import java.util.Map;

/** All aspects of an item as values. */
public record Aspects(
    Wording wording,
    Grading grading,
    Timing timing,
    Place place,
    Visibility visibility,
    Launch launch) {

  public static Aspects of(Item i) {
    Content c = i.content();
    return new Aspects(
        Wording.of(i), c.grading(), i.timing(), i.place(), i.visibility(), c.launch());
  }

  /** From the canonical forms of all of them. */
  public static Aspects read(Map<Aspect, String> forms) {
    return new Aspects(
        read(forms, Aspect.WORDING, Wording.class),
        read(forms, Aspect.GRADING, Grading.class),
        read(forms, Aspect.TIMING, Timing.class),
        read(forms, Aspect.PLACE, Place.class),
        read(forms, Aspect.VISIBILITY, Visibility.class),
        read(forms, Aspect.LAUNCH, Launch.class));
  }

  private static <T> T read(Map<Aspect, String> forms, Aspect aspect, Class<T> type) {
    return CanonicalJson.read(forms.get(aspect), type);
  }

  /** Their canonical forms. */
  public Map<Aspect, String> forms() {
    EnumMap<Aspect, String> forms = new EnumMap<>(Aspect.class);
    for (Aspect a : Aspect.values()) {
      forms.put(a, CanonicalJson.write(a.of(this)));
    }
    return forms;
  }

  /** The item of a kind that has these aspects. */
  public Item item(ItemKey key, Kind kind, EditRule rule) {
    String title = Titles.firstOf(wording.title());
    return new Item(
        key, title, kind.content(this), timing, place, visibility, rule, wording.standards());
  }

  public Aspects with(Wording to) {
    return new Aspects(to, grading, timing, place, visibility, launch);
  }

  public Aspects with(Grading to) {
    return new Aspects(wording, to, timing, place, visibility, launch);
  }

  public Aspects with(Timing to) {
    return new Aspects(wording, grading, to, place, visibility, launch);
  }

  public Aspects with(Place to) {
    return new Aspects(wording, grading, timing, to, visibility, launch);
  }

  public Aspects with(Visibility to) {
    return new Aspects(wording, grading, timing, place, to, launch);
  }

  public Aspects with(Launch to) {
    return new Aspects(wording, grading, timing, place, visibility, to);
  }
}
