package org.zephyrmist.core.edit;

import java.time.LocalDateTime;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.zephyrmist.core.content.Aspect;

/**
 * One change that is made alike in many shells.
 *
 * @param about the items; empty where it is about all that it finds
 * @param find words that are replaced; empty for all else
 * @param put words in their place
 * @param from when items open
 * @param after the item that must be opened before
 * @param aspects that are put back; none for all else
 */
public record Edit(
    What what,
    List<Subject> about,
    String find,
    String put,
    Optional<LocalDateTime> from,
    Optional<Subject> after,
    Set<Aspect> aspects) {

  /** What is done. */
  public enum What {
    SHOW(true, "Show to students"),
    HIDE(true, "Hide from students"),
    /** Shown, and open from a time on. */
    OPEN_FROM(true, "Open from a day on"),
    /** Open once another item was opened. */
    OPEN_AFTER(true, "Open after another item"),
    REMOVE(true, "Remove"),
    /** A module goes, and what stands in it takes its place. */
    UNWRAP(true, "Take wrappers away, keep their items"),
    REMOVE_EMPTY(false, "Remove empty modules"),
    /** Notes to builders go from texts. */
    STRIP_NOTES(false, "Take out builder notes"),
    /** Dashes, dots and the like go from before titles. */
    UNINDENT(false, "Take indents out of titles"),
    /** Entries of menus and front pages that lead nowhere go. */
    DROP_ENTRIES(false, "Take out entries that lead nowhere"),
    /** Links of texts that lead nowhere lead again where they were meant to, or become words. */
    UNLINK(false, "Mend links that lead nowhere"),
    /** Conditions about items that are not here go. */
    DROP_CONDITIONS(false, "Take off conditions that nobody can meet"),
    /** Words in titles and texts become others. */
    REPLACE(false, "Replace words"),
    /** Of several front pages one stays, with what the others say besides. */
    ONE_FRONT_PAGE(false, "Make one front page of several"),
    /** What the section that this one follows had made of a text. */
    CARRY(true, "Carry over what sections had made of texts"),
    /** What the section that this one follows had put into blanks. */
    FILL_BLANKS(true, "Fill blanks as sections had them"),
    /** Aspects that the section changed become again what was delivered. */
    PUT_BACK(true, "Put back as delivered");

    private final boolean named;
    private final String words;

    What(boolean named, String words) {
      this.named = named;
      this.words = words;
    }

    /** What people call it, as an order. */
    public String words() {
      return words;
    }

    /** Whether it brings something from the section that this one follows. */
    public boolean carries() {
      return this == CARRY || this == FILL_BLANKS;
    }

    /** Whether its items have to be named. */
    public boolean named() {
      return named;
    }
  }

  /**
   * @throws IllegalArgumentException if it lacks what it needs; the message says so in a sentence
   */
  public Edit {
    about = List.copyOf(about);
    aspects = Set.copyOf(aspects);
    if (what.named() && about.isEmpty()) {
      throw new IllegalArgumentException("No item is named.");
    }
    if (what == What.REPLACE && find.isBlank()) {
      throw new IllegalArgumentException("No words are named that are to be replaced.");
    }
    if ((what == What.OPEN_FROM) != from.isPresent()) {
      throw new IllegalArgumentException(
          "A time is named where items open from one on, only there.");
    }
    if ((what == What.OPEN_AFTER) != after.isPresent()) {
      throw new IllegalArgumentException(
          "Another item is named where items open after it, only there.");
    }
    if ((what == What.PUT_BACK) == aspects.isEmpty()) {
      throw new IllegalArgumentException("Aspects are named where they are put back, only there.");
    }
  }

  /** What people call it, as an order. */
  public String words() {
    return switch (what) {
      case OPEN_FROM -> "Open from " + from.orElseThrow().toLocalDate();
      case REPLACE -> "“" + find + "” becomes “" + put + "”";
      case PUT_BACK -> "Put " + aspectWords() + " back as delivered";
      default -> what.words();
    };
  }

  private String aspectWords() {
    return aspects.stream()
        .sorted()
        .map(a -> a.name().toLowerCase(Locale.ROOT))
        .collect(Collectors.joining(", "));
  }

  /** An edit that needs no more than its items. */
  public static Edit of(What what, List<Subject> about) {
    return new Edit(what, about, "", "", Optional.empty(), Optional.empty(), Set.of());
  }

  /** Words in the place of others. */
  public static Edit replace(List<Subject> about, String find, String put) {
    return new Edit(What.REPLACE, about, find, put, Optional.empty(), Optional.empty(), Set.of());
  }

  /** Items shown, and open from a time on. */
  public static Edit openFrom(List<Subject> about, LocalDateTime from) {
    return new Edit(What.OPEN_FROM, about, "", "", Optional.of(from), Optional.empty(), Set.of());
  }

  /** Items open once another was opened. */
  public static Edit openAfter(List<Subject> about, Subject other) {
    return new Edit(What.OPEN_AFTER, about, "", "", Optional.empty(), Optional.of(other), Set.of());
  }

  /** Aspects as they were delivered. */
  public static Edit putBack(List<Subject> about, Set<Aspect> aspects) {
    return new Edit(What.PUT_BACK, about, "", "", Optional.empty(), Optional.empty(), aspects);
  }
}
