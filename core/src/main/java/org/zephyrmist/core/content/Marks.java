package org.zephyrmist.core.content;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import org.jsoup.nodes.Element;
import org.jsoup.nodes.TextNode;

/**
 * Marks in the texts of a master: values that are filled in for each section, blanks that are the
 * instructor's to fill, notes to the builder and notes to instructors.
 *
 * <ul>
 *   <li>value: {@code <data class="z-value" value="section-code">section code</data>}
 *   <li>blank: {@code <span class="z-blank">office hours</span>}
 *   <li>notes: {@code <aside class="z-builder">} and {@code <aside class="z-instructor">}
 * </ul>
 */
public final class Marks {
  private static final String VALUE = "data.z-value[value]";
  private static final String BLANK = ".z-blank";
  private static final String BUILDER = ".z-builder";
  private static final String INSTRUCTOR = ".z-instructor";

  private Marks() {}

  /** Whether a text may have any; quicker than to look. */
  public static boolean mayStand(String html) {
    return html.contains("z-value")
        || html.contains("z-blank")
        || html.contains("z-builder")
        || html.contains("z-instructor");
  }

  /** Names of the values in a text, in its order; none twice. */
  public static List<String> values(String html) {
    return all(html, VALUE, e -> e.attr("value"));
  }

  /** What the blanks in a text ask for. */
  public static List<String> blanks(String html) {
    return all(html, BLANK, Element::text);
  }

  /** Notes to instructors, as HTML. */
  public static List<String> instructorNotes(String html) {
    return all(html, INSTRUCTOR, Element::html);
  }

  private static List<String> all(String html, String which, Function<Element, String> what) {
    List<String> all = new ArrayList<>();
    if (mayStand(html)) {
      Html.change(html, body -> body.select(which).forEach(e -> all.add(what.apply(e))));
    }
    return all.stream().distinct().toList();
  }

  /**
   * The text as it leaves the master: without notes, its values filled in, its blanks in brackets.
   *
   * @param values the text of a value by its name; where there is none, the value's own words stay
   */
  public static String filled(String html, Function<String, Optional<String>> values) {
    if (!mayStand(html)) {
      return html;
    }
    return Html.change(
        html,
        body -> {
          body.select(BUILDER + ", " + INSTRUCTOR).remove();
          for (Element e : body.select(BLANK)) {
            e.replaceWith(new TextNode(blank(e.text())));
          }
          for (Element e : body.select(VALUE)) {
            fill(e, values.apply(e.attr("value")).orElse(e.text()));
          }
        });
  }

  /** How a blank reads until somebody fills it. */
  public static String blank(String label) {
    return "[" + label + "]";
  }

  /** An address becomes a link, unless the value stands in one. */
  private static void fill(Element e, String text) {
    boolean inLink = e.closest("a") != null;
    String href = text.matches("[^\\s@:/]+@[^\\s@:/]+") ? "mailto:" + text : text;
    if (!inLink && Addresses.isPlain(href)) {
      e.replaceWith(new Element("a").attr("href", href).text(text));
    } else {
      e.replaceWith(new TextNode(text));
    }
  }

  /** The text as its builder sees it: marks stay, as plain elements with a class that shows. */
  public static String shown(String html) {
    if (!mayStand(html)) {
      return html;
    }
    return Html.change(html, body -> body.select(VALUE).forEach(e -> e.tagName("span")));
  }
}
