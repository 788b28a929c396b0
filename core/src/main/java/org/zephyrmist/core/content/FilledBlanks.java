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
   * Where blanks stand: in an element that says some words, a blank, other words, and so on.
   *
   * @param path from the body down, by number among its neighbours
   * @param words before, between and after the blanks; one more than there are labels
   */
  private record Place(String tag, List<Integer> path, List<String> words, List<String> labels) {
    void find(Element body, List<String> known, Map<String, String> into) {
      Optional<List<String>> here =
          at(body, path).filter(e -> e.normalName().equals(tag)).flatMap(e -> said(e.html()));
      if (here.isEmpty() && words.stream().mapToInt(w -> w.strip().length()).sum() >= AROUND) {
        List<List<String>> elsewhere =
            body.select(tag).stream().flatMap(e -> said(e.html()).stream()).toList();
        here = elsewhere.size() == 1 ? Optional.of(elsewhere.get(0)) : Optional.empty();
      }
      here.ifPresent(
          all -> {
            for (int i = 0; i < all.size(); i++) {
              String said = all.get(i).strip();
              if (whole(said) && known.stream().noneMatch(l -> said.contains(escaped(l)))) {
                into.putIfAbsent(labels.get(i), said);
              }
            }
          });
    }

    /** What stands between the words; each is looked for from where the one before ended. */
    private Optional<List<String>> said(String html) {
      List<String> all = new ArrayList<>();
      String last = words.get(labels.size());
      int from = words.get(0).length();
      if (!html.startsWith(words.get(0))) {
        return Optional.empty();
      }
      for (int i = 1; i <= labels.size(); i++) {
        boolean end = i == labels.size();
        int at = end ? html.length() - last.length() : html.indexOf(words.get(i), from);
        if (at < from || end && !html.endsWith(last)) {
          return Optional.empty();
        }
        all.add(html.substring(from, at));
        from = at + words.get(i).length();
      }
      return Optional.of(all);
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
      List<String> words = new ArrayList<>();
      List<String> in = new ArrayList<>();
      String rest = e.html();
      for (Optional<String> next = first(labels, rest);
          next.isPresent();
          next = first(labels, rest)) {
        int at = rest.indexOf(escaped(next.get()));
        words.add(rest.substring(0, at));
        in.add(next.get());
        rest = rest.substring(at + escaped(next.get()).length());
      }
      words.add(rest);
      all.add(new Place(e.normalName(), path(e, body), words, in));
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
