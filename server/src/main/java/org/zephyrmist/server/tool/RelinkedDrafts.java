package org.zephyrmist.server.tool;

import java.util.Map;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import org.zephyrmist.core.tool.RelinkRules;
import org.zephyrmist.core.tool.SectionPlace;
import org.zephyrmist.core.tool.ToolLinks;
import org.zephyrmist.server.master.Drafts;
import org.zephyrmist.server.master.Masters;
import org.zephyrmist.server.people.SignedIn;

/** Writes the links of a draft as one rule says, for good. */
@Component
class RelinkedDrafts {
  /** A draft is of no section: a rule that fills in its values, or is limited, leaves it alone. */
  private static final SectionPlace NOWHERE = new SectionPlace("", "", "", "", Map.of());

  private final Relinking relinking;
  private final Masters masters;
  private final Drafts drafts;

  RelinkedDrafts(Relinking relinking, Masters masters, Drafts drafts) {
    this.relinking = relinking;
    this.masters = masters;
    this.drafts = drafts;
  }

  /**
   * @return how many items were written otherwise; none where another rule would lead on
   */
  @Transactional
  public int write(UUID rule, UUID master, SignedIn who) {
    RelinkRules rules = relinking.rules();
    return drafts.rewrite(
        masters.toChange(master, who),
        "rewrote links",
        a ->
            ToolLinks.relinked(
                a,
                link -> {
                  RelinkRules.Relinked r =
                      rules.of(link, master.toString(), NOWHERE, relinking.today());
                  boolean its = r.rule().filter(x -> x.id().equals(rule.toString())).isPresent();
                  return its ? r.link() : link;
                }),
        who);
  }
}
