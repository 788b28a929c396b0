package org.zephyrmist.core.question;

import java.util.Arrays;
import java.util.Optional;

/** The types of question of Common Cartridge (section "Assessment", item profiles). */
public enum QuestionType {
  MULTIPLE_CHOICE("cc.multiple_choice.v0p1"),
  MULTIPLE_RESPONSE("cc.multiple_response.v0p1"),
  TRUE_FALSE("cc.true_false.v0p1"),
  /** The whole answer is compared. */
  FILL_IN("cc.fib.v0p1"),
  /** A part of the answer is looked for. */
  PATTERN_MATCH("cc.pattern_match.v0p1"),
  ESSAY("cc.essay.v0p1"),
  /** Of no profile of the standard; kept as it came. */
  OTHER("");

  private final String profile;

  QuestionType(String profile) {
    this.profile = profile;
  }

  /** The name of its profile in the standard; empty for {@link #OTHER}. */
  public String profile() {
    return profile;
  }

  /** Whether answers are chosen from a list. */
  public boolean chosen() {
    return this == MULTIPLE_CHOICE || this == MULTIPLE_RESPONSE || this == TRUE_FALSE;
  }

  /** Whether answers are written and compared with what is expected. */
  public boolean written() {
    return this == FILL_IN || this == PATTERN_MATCH;
  }

  /** The type that a profile names, whatever its version. */
  static Optional<QuestionType> of(String profile) {
    String p = profile.strip().replaceAll("\\.v\\d+p\\d+$", "");
    return Arrays.stream(values())
        .filter(t -> !t.profile.isEmpty() && t.profile.equals(p + ".v0p1"))
        .findFirst();
  }
}
