package org.zephyrmist.core.content;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jsoup.nodes.Element;
import org.jsoup.nodes.Node;
import org.jsoup.nodes.TextNode;
import org.jsoup.parser.Parser;

/**
 * What was put in the place of blanks. A delivered text says {@code [office hours]} where its
 * master has a blank, see {@link Marks#blank}; in the shell something else stands there once the
 * instructor has filled it.
 */
public final class FilledBlanks {
  /** Words around a blank, by which its place is found in a text where it has moved; characters. */
  private static final int AROUND = 4;

  private FilledBlanks() {}

  /**
   * What each blank was filled with, by its label, as HTML. A blank whose sentence was rewritten is
   * not found, nor is one that was left empty.
   *
   * @param labels of the blanks in the master's text
   * @param delivered the text with its blanks open
   * @param here the same in the shell
   */
  public static Map<String, String> of(List<String> labels, String delivered, String here) {
    Map<String, String> all = new HashMap<>();
    if (labels.isEmpty() || delivered.equals(here)) {
      return all;
    }
    Html.change(
        delivered,
        was -> Html.change(here, is -> places(labels, was).forEach(p -> p.find(is, labels, all))));
    return all;
  }

  /** The text with its open blanks filled; a blank that nothing is known of stays open. */
  public static String fill(String html, Map<String, String> filled) {
    if (filled.isEmpty()) {
      return html;
    }
    return Html.change(
        html,
        body ->
            openIn(body, filled.keySet())
                .forEach(
                    (text, labels) -> {
                      String any =
                          labels.stream()
                              .map(l -> Pattern.quote(escaped(l)))
                              .collect(Collectors.joining("|"));
                      Map<String, String> by = new HashMap<>();
                      labels.forEach(l -> by.put(escaped(l), filled.get(l)));
                      put(
                          text,
                          Pattern.compile(any)
                              .matcher(text.outerHtml())
                              .replaceAll(m -> Matcher.quoteReplacement(by.get(m.group()))));
                    }));
  }

  private static void put(TextNode text, String html) {
    Element parent = text.parent();
    List<Node> nodes = Parser.parseFragment(html, parent, "");
    for (Node n : List.copyOf(nodes)) {
      text.before(n);
    }
    text.remove();
  }

  /** Text nodes with open blanks, and which. */
  private static Map<TextNode, List<String>> openIn(Element body, Iterable<String> labels) {
    Map<TextNode, List<String>> open = new HashMap<>();
    for (Element e : body.select("*")) {
      for (TextNode t : e.textNodes()) {
        for (String l : labels) {
          if (t.getWholeText().contains(Marks.blank(l))) {
            open.computeIfAbsent(t, k -> new ArrayList<>()).add(l);
          }
        }
      }
    }
    return open;
  }

  private static String escaped(String label) {
    return new TextNode(Marks.blank(label)).outerHtml();
  }

  /**
   * Where blanks stand.
   *
   * @param path from the body down, by number among its neighbours
   * @param around least words that tell its place, in characters
   */
  private record Place(
      String tag, List<Integer> path, Pattern says, List<String> labels, int around) {
    void find(Element body, List<String> known, Map<String, String> into) {
      Optional<Element> same = at(body, path).filter(e -> e.normalName().equals(tag));
      List<Element> candidates = new ArrayList<>();
      if (same.filter(e -> says.matcher(e.html()).matches()).isPresent()) {
        candidates.add(same.get());
      } else if (around >= AROUND) {
        body.select(tag).stream()
            .filter(e -> says.matcher(e.html()).matches())
            .forEach(candidates::add);
      }
      if (candidates.size() == 1) {
        Matcher m = says.matcher(candidates.get(0).html());
        if (m.matches()) {
          for (int i = 0; i < labels.size(); i++) {
            String said = m.group(i + 1).strip();
            if (whole(said) && known.stream().noneMatch(l -> said.contains(escaped(l)))) {
              into.putIfAbsent(labels.get(i), said);
            }
          }
        }
      }
    }
  }

  /** Something that can be put elsewhere as it is: not empty, no half of an element. */
  private static boolean whole(String html) {
    Set<String> is = new HashSet<>();
    Consumer<Element> same = b -> is.add(b.html());
    Html.change("<p>" + html + "</p>", same);
    return !html.isBlank() && is.contains("<p>" + html + "</p>");
  }

  private static List<Place> places(List<String> labels, Element body) {
    List<Place> all = new ArrayList<>();
    Set<Element> with = new LinkedHashSet<>();
    openIn(body, labels).keySet().forEach(t -> with.add(t.parent()));
    for (Element e : with) {
      StringBuilder says = new StringBuilder();
      List<String> in = new ArrayList<>();
      String rest = e.html();
      int around = 0;
      for (Optional<String> next = first(labels, rest);
          next.isPresent();
          next = first(labels, rest)) {
        int at = rest.indexOf(escaped(next.get()));
        says.append(Pattern.quote(rest.substring(0, at))).append("(.*?)");
        around += rest.substring(0, at).strip().length();
        in.add(next.get());
        rest = rest.substring(at + escaped(next.get()).length());
      }
      says.append(Pattern.quote(rest));
      around += rest.strip().length();
      all.add(
          new Place(
              e.normalName(),
              path(e, body),
              Pattern.compile(says.toString(), Pattern.DOTALL),
              in,
              around));
    }
    return all;
  }

  private static Optional<String> first(List<String> labels, String html) {
    return labels.stream()
        .filter(l -> html.contains(escaped(l)))
        .min(Comparator.comparing(l -> html.indexOf(escaped(l))));
  }

  private static List<Integer> path(Element e, Element body) {
    List<Integer> path = new ArrayList<>();
    for (Element at = e; at != body && at != null; at = at.parent()) {
      path.add(0, at.elementSiblingIndex());
    }
    return path;
  }

  private static Optional<Element> at(Element body, List<Integer> path) {
    Element at = body;
    for (int i : path) {
      if (at.childrenSize() <= i) {
        return Optional.empty();
      }
      at = at.child(i);
    }
    return Optional.of(at);
  }
}
