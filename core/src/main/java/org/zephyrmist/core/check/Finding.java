package org.zephyrmist.core.check;

import java.util.Optional;
import org.zephyrmist.core.content.ItemKey;

/**
 * Where a rule does not hold.
 *
 * @param item that it is about; none for the whole master
 * @param title of that item; may be empty
 * @param detail what is wrong there, as one sentence
 */
public record Finding(Rule rule, Optional<ItemKey> item, String title, String detail) {

  /** What is looked at before a draft is frozen. */
  public enum Rule {
    GUARD("More than this master is meant to hold", "Take it out, or change what it may hold."),
    DEAD_LINK("References that lead nowhere", "Choose another target, or take the reference out."),
    NO_ADDRESS("Links without an address", "Write where it leads."),
    OPEN_NOTE("Sentences that look like a note", "Mark them as a builder note, or reword them."),
    NO_BANK("Quizzes without their questions", "Bring the bank in, or write questions."),
    FRAME("Frames of hosts that nobody approved", "Have the host approved, or use a link."),
    VALUE("Values that nothing fills in", "Choose another value, or have it entered."),
    WEIGHTS("Weights that do not add up", "Make the weights of all grade categories 100 together."),
    GONE("Categories or rubrics that are not here", "Choose one that is in the outline."),
    CONDITION("Conditions that can never be met", "Name another item, or take the condition off."),
    EMPTY("Items without any content", "Write it, or take it out.");

    private final String words;
    private final String remedy;

    Rule(String words, String remedy) {
      this.words = words;
      this.remedy = remedy;
    }

    /** What people call it. */
    public String words() {
      return words;
    }

    public String remedy() {
      return remedy;
    }

    /** Whether freezing is refused. */
    public boolean stops() {
      return this == GUARD;
    }
  }
}
