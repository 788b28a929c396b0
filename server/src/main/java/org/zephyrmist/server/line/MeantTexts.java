package org.zephyrmist.server.line;

import java.util.HashSet;
import java.util.Set;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.AspectForms;
import org.zephyrmist.core.content.Item;
import org.zephyrmist.core.delivery.InSection;
import org.zephyrmist.core.delivery.Meant;
import org.zephyrmist.core.delivery.Parts;
import org.zephyrmist.server.content.Bodies;
import org.zephyrmist.server.content.Values;
import org.zephyrmist.server.master.Versions.Version;
import org.zephyrmist.server.shell.Shell;

/** What a version means for a section, its values filled in. */
@Component
class MeantTexts {
  private final Values values;
  private final Bodies bodies;

  MeantTexts(Values values, Bodies bodies) {
    this.values = values;
    this.bodies = bodies;
  }

  Meant of(Version version, Shell section) {
    if (version.marked().isEmpty()) {
      return Meant.of(version.tree(), Parts.EVERYTHING, section.facts());
    }
    InSection becomes =
        InSection.of(version.tree(), version.marked(), values.in(section.section()));
    Set<String> forms = new HashSet<>();
    for (Item i : becomes.items()) {
      forms.addAll(AspectForms.of(i).values());
    }
    bodies.keep(forms);
    return Meant.of(becomes.tree(), Parts.EVERYTHING, section.facts());
  }
}
