package org.zephyrmist.core.check;

import java.time.LocalDateTime;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.zephyrmist.core.calendar.CountedDays;
import org.zephyrmist.core.calendar.Remark;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.EditRule;
import org.zephyrmist.core.content.Grading;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Timing;
import org.zephyrmist.core.content.Visibility;
import org.zephyrmist.core.content.Wording;
import org.zephyrmist.core.delivery.Held;
import org.zephyrmist.core.edit.Given;
import org.zephyrmist.core.edit.Subject;
import org.zephyrmist.core.shell.OpenDays;
import org.zephyrmist.core.tool.LinkState;

/**
 * A section's shell with all that checks compare it with.
 *
 * @param items in the order of the platform
 * @param unread why something that the platform gives cannot be read, a sentence for each
 * @param lacks of the versions that it holds
 * @param masters that are expected here, or came
 * @param idOf the platform's id of the item that an address of this shell means
 * @param days by which the section goes; none if it is in no term
 * @param tools hosts whose links do not work
 * @param open when students may enter; none where the platform does not tell
 * @param strangers words that name another term or somebody who does not teach here
 * @param now in local time
 */
public record CheckedShell(
    List<Item> items,
    List<String> unread,
    List<Lack> lacks,
    List<Arrival> masters,
    Function<String, Optional<String>> idOf,
    Optional<CountedDays> days,
    List<ToolTrouble> tools,
    Optional<OpenDays> open,
    Strangers strangers,
    LocalDateTime now) {

  /**
   * An item that is here.
   *
   * @param given what it is of masters
   * @param meant as it was delivered; none if no master brought it
   */
  public record Item(
      Held held,
      Wording wording,
      TextFacts text,
      Grading grading,
      Timing timing,
      Visibility visibility,
      List<Given> given,
      Optional<Meant> meant) {
    Subject subject() {
      return Subject.of(held, given);
    }

    /** Whether students see it. */
    boolean seen() {
      return visibility.shown() && !visibility.instructorsOnly();
    }
  }

  /**
   * An item as it was last delivered here.
   *
   * @param inVersion whether the version that the section holds has it
   * @param own aspects that the section has otherwise and that nobody has accepted
   * @param blanks that the instructor is to fill in, as they read until then
   * @param banks keys of the banks that it draws from
   * @param remarks what is to be told of its dates by this section's calendar
   */
  public record Meant(
      EditRule rule,
      boolean inVersion,
      Grading grading,
      Timing timing,
      Visibility visibility,
      TextFacts text,
      Set<Aspect> own,
      List<String> blanks,
      Set<ItemKey> banks,
      List<Remark> remarks) {}

  /**
   * An item that is not here.
   *
   * @param removed whether it was here once
   */
  public record Lack(Given given, String title, boolean removed) {}

  /**
   * A master that is expected or came.
   *
   * @param held number of the version; none if it never came
   * @param expected number of the version; none if no rule expects it
   */
  public record Arrival(
      String master, String code, Optional<Integer> held, Optional<Integer> expected) {}

  /** A host whose links do not work here. */
  public record ToolTrouble(String host, String name, LinkState.Standing standing) {}

  /**
   * Words that have no place in this shell.
   *
   * @param terms titles of other terms
   * @param mails of people who teach, but not here, by their part before the at sign and after it
   */
  public record Strangers(List<String> terms, Map<String, String> mails) {
    public static final Strangers NONE = new Strangers(List.of(), Map.of());
  }
}
