package org.zephyrmist.server.line;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.calendar.DatedTree;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Fingerprint;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.delivery.Base;
import org.zephyrmist.core.delivery.Choices;
import org.zephyrmist.core.delivery.InSection;
import org.zephyrmist.core.delivery.Meant;
import org.zephyrmist.core.delivery.Parts;
import org.zephyrmist.core.delivery.SectionFacts;
import org.zephyrmist.core.tool.RelinkedTree;
import org.zephyrmist.core.tree.Tree;
import org.zephyrmist.server.calendar.Dating;
import org.zephyrmist.server.content.Bodies;
import org.zephyrmist.server.content.Values;
import org.zephyrmist.server.master.VersionNeeds;
import org.zephyrmist.server.master.Versions.Version;
import org.zephyrmist.server.tool.Relinking;

/**
 * What a delivery means for a section: its parts, values filled in, links rewritten and dates by
 * its calendar, as they arrive.
 */
@Component
class MeantTexts {
  private final Values values;
  private final Bodies bodies;
  private final VersionNeeds needs;
  private final AttachmentsLeftOut attachments;
  private final Relinking relinking;
  private final Dating dating;

  MeantTexts(
      Values values,
      Bodies bodies,
      VersionNeeds needs,
      AttachmentsLeftOut attachments,
      Relinking relinking,
      Dating dating) {
    this.dating = dating;
    this.relinking = relinking;
    this.attachments = attachments;
    this.values = values;
    this.bodies = bodies;
    this.needs = needs;
  }

  /**
   * @param bases what the section got last of the master
   * @param there whether it has an item of it
   */
  Meant of(Version version, Line line, Map<ItemKey, Base> bases, Predicate<ItemKey> there) {
    Tree said = inSection(version, line);
    Tree tree = line.parts().attachments() ? said : attachments.of(said, bases);
    SectionFacts facts = line.shell().facts();
    Tree applies = Meant.of(tree, Parts.EVERYTHING, facts).items();
    Parts parts =
        line.parts().isEverything()
            ? Parts.EVERYTHING
            : line.parts().in(tree, applies, needs.of(version).withNotes(tree), bases, there);
    Meant meant = Meant.of(tree, parts, facts);
    return meant.arriving(arrivals(meant.items(), line.choices()));
  }

  /** All that the version means for the section, whatever the delivery brings. */
  Tree whole(Version version, Line line) {
    return Meant.of(inSection(version, line), Parts.EVERYTHING, line.shell().facts()).items();
  }

  private Tree inSection(Version version, Line line) {
    Tree tree = version.tree();
    if (!version.marked().isEmpty()) {
      InSection becomes = InSection.of(tree, version.marked(), values.in(line.section()));
      keep(becomes.items());
      tree = becomes.tree();
    }
    RelinkedTree relinked = relinking.of(version.id(), version.master(), tree, line.section());
    keep(relinked.items());
    DatedTree dated = dating.of(version.id(), version.master(), relinked.tree(), line.section());
    if (!dated.forms().isEmpty()) {
      bodies.keep(dated.forms());
    }
    return dated.tree();
  }

  private void keep(List<Item> items) {
    Set<String> forms = new HashSet<>();
    items.forEach(i -> forms.addAll(AspectForms.of(i).values()));
    if (!forms.isEmpty()) {
      bodies.keep(forms);
    }
  }

  /** Of each visibility in the tree the one with which it arrives; both are kept. */
  private Map<Fingerprint, Fingerprint> arrivals(Tree tree, Choices choices) {
    Map<Fingerprint, Fingerprint> all = new HashMap<>();
    Set<String> forms = new HashSet<>();
    if (choices.dates() == Choices.Dates.AWAY) {
      forms.add(Choices.NO_DATES);
    }
    if (choices.arrival() != Choices.Arrival.AS_IN_MASTER) {
      Set<Fingerprint> here =
          tree.nodes().stream()
              .map(n -> n.aspects().get(Aspect.VISIBILITY))
              .collect(Collectors.toSet());
      bodies
          .get(here)
          .forEach(
              (print, form) -> {
                String arrives =
                    AspectForms.form(choices.arrival().of(AspectForms.visibility(form)));
                forms.add(arrives);
                all.put(print, Fingerprint.of(arrives));
              });
    }
    if (!forms.isEmpty()) {
      bodies.keep(forms);
    }
    return all;
  }
}
