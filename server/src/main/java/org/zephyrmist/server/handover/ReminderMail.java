package org.zephyrmist.server.handover;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.handover.HandOverKind;
import org.zephyrmist.core.handover.Steps;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.handover.HandOvers.HandOver;
import org.zephyrmist.server.people.SignedIn;

/** Mail that asks for hand-overs. */
@Component
class ReminderMail {
  private final Settings settings;

  ReminderMail(Settings settings) {
    this.settings = settings;
  }

  /** What is to be done, in words. */
  static String words(HandOverKind kind, String tool) {
    return switch (kind) {
      case CREATE_SHELL -> "create a shell";
      case CLEAR_SHELL -> "clear a shell";
      case SWITCH_SUPPORT_ON -> "switch tool support on";
      case ENTER_CREDENTIALS -> "enter the credentials of " + tool;
      case APPROVE -> "approve " + tool;
      case OPEN_ONCE -> "open " + tool + " once";
      case PUT_RIGHT -> "put right: " + tool;
      case OPEN_SHELL -> "open a shell to students";
    };
  }

  String subject(HandOverKind kind, List<HandOver> all) {
    int n = all.size();
    return "Please "
        + words(kind, all.get(0).step().tool())
        + ": "
        + (n == 1 ? all.get(0).section().code() : n + " sections");
  }

  /**
   * @param who asks for it; nobody: it is their day
   */
  String body(HandOverKind kind, List<HandOver> all, Optional<SignedIn> who) {
    StringBuilder b = new StringBuilder();
    b.append(who.map(w -> w.name() + " asks you to ").orElse("It still waits for you to "));
    b.append(words(kind, all.get(0).step().tool()));
    b.append(kind == HandOverKind.OPEN_ONCE ? ", so that students can:\n" : ":\n");
    Set<String> how = new LinkedHashSet<>();
    for (HandOver h : all) {
      b.append("\n").append(h.section().code());
      if (!h.step().tool().isEmpty()) {
        b.append(", ").append(h.step().tool());
      }
      h.due().day().ifPresent(d -> b.append(", until ").append(d));
      b.append("\n");
      h.step().link().ifPresent(l -> b.append(l).append("\n"));
      if (h.step().answers()) {
        b.append("When it asks which course: a new copy, for this section alone.\n");
      }
      if (!h.added().note().isEmpty()) {
        b.append(h.added().note()).append("\n");
      }
      h.steps().map(ReminderMail::how).ifPresent(how::add);
    }
    how.forEach(h -> b.append("\n").append(h));
    return b.append("\n")
        .append(settings.address())
        .append(kind.who() == HandOverKind.Who.INSTRUCTORS ? "/sections" : "/hand-overs")
        .append("\n")
        .toString();
  }

  private static String how(Steps s) {
    return (s.text().isEmpty() ? "" : "How it is done:\n" + s.text() + "\n")
        + (s.contact().isEmpty() ? "" : "Questions: " + s.contact() + "\n");
  }
}
