package org.zephyrmist.standins.platform;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** What goes over the wire. */
final class Wire {
  private Wire() {}

  record Shell(String id, String title, String course, String term, int students) {}

  record Item(
      String id,
      String kind,
      String parent,
      String rank,
      Wording wording,
      Map<String, Object> grading,
      Map<String, Object> timing,
      Visibility visibility,
      Map<String, Object> launch,
      int submissions,
      int posts,
      String changedBy,
      OffsetDateTime changedAt,
      long revision) {
    /** Questions are drawn from a bank; the bank itself is not for students. */
    boolean forStudents() {
      return visibility.shown() && !visibility.instructorsOnly() && !kind.equals("QUESTION_BANK");
    }

    /** Whether it is a setup that is about this. */
    boolean sets(String subject) {
      return subject.equals(wording.more().get("subject"));
    }

    /** Entries of a setup, each with label and value. */
    @SuppressWarnings("unchecked")
    public List<Map<String, Object>> entries() {
      Object all = wording.more().get("entries");
      return all == null ? List.of() : (List<Map<String, Object>>) all;
    }

    /** Of graded work. */
    Optional<BigDecimal> points() {
      return Optional.ofNullable(grading.get("points")).map(p -> new BigDecimal(p.toString()));
    }
  }

  /**
   * @param more file, number of questions, criteria and groups, where a kind has them
   */
  record Wording(String title, String html, Map<String, Object> more) {}

  record Place(String parent, String rank) {}

  /**
   * @param asks what it asks for before it may be used, in words
   * @param conditions all of which must be met before it opens: {@code what} is READ, HANDED_IN,
   *     SCORE or DAY, with {@code item}, {@code percent} and {@code from} where it has them
   */
  record Visibility(
      boolean shown, boolean instructorsOnly, String asks, List<Map<String, Object>> conditions) {}

  enum Op {
    ADD,
    UPDATE,
    REMOVE
  }

  /**
   * One step; what is null stays as it is.
   *
   * @param revision of the item that the writer has seen; if it is another now, nothing is done
   */
  record Step(
      String key,
      Op op,
      String id,
      Long revision,
      String kind,
      Wording wording,
      Map<String, Object> grading,
      Map<String, Object> timing,
      Place place,
      Visibility visibility,
      Map<String, Object> launch) {}

  record Steps(List<Step> steps) {}

  /**
   * @param failed what is called failed of it, although it is there; empty if nothing
   */
  record Answer(String key, String id, boolean repeated, long revision, String failed) {
    Answer(String key, String id, boolean repeated, long revision) {
      this(key, id, repeated, revision, "");
    }

    Answer failed(String how) {
      return new Answer(key, id, repeated, revision, how);
    }
  }

  record Answers(List<Answer> answers) {}

  /** Answered to steps that are taken and not done yet. */
  record Accepted(int waiting) {}

  record Queue(boolean paused) {}

  /** When students may enter; none: no bound. */
  record Open(LocalDate opens, LocalDate closes) {}

  record Hashes(List<String> sha256) {}

  /**
   * @param shell none for every call
   * @param times none until it is taken away
   */
  record Fault(
      String shell,
      Faults.Kind kind,
      Integer times,
      Double chance,
      Integer status,
      Double seconds) {}

  record Problem(String title, String detail) {}
}
