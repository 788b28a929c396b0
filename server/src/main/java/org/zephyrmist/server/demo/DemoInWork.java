package org.zephyrmist.server.demo;

import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.ItemKey;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.server.db.tables.records.MasterRecord;

/** A draft in the middle of being worked on: grades, conditions, notes, and things left open. */
@Component
@ConditionalOnProperty(name = "zephyrmist.demo", havingValue = "true")
class DemoInWork {
  private final DemoDrafts drafts;

  DemoInWork(DemoDrafts drafts) {
    this.drafts = drafts;
  }

  void light(UUID id, List<DemoCourse> courses) {
    DemoCourse c =
        courses.stream().filter(x -> x.code().equals("LGT 110")).findFirst().orElseThrow();
    MasterRecord draft = drafts.draft(id);
    ItemKey grades = drafts.add(draft, Kind.MODULE, "How it is graded", "", null);
    ItemKey exercises = category(id, draft, grades, "Exercises", "60");
    category(id, draft, grades, "Quizzes", "30");
    ItemKey rubric = drafts.add(draft, Kind.RUBRIC, "How an exercise is looked at", "", grades);
    ItemKey outcome =
        drafts.add(
            draft, Kind.OUTCOME, "Leaves paper that another electrician can work from", "", grades);
    ItemKey crews = drafts.add(draft, Kind.GROUP_SET, "Hanging crews", "", grades);
    drafts.change(id, crews, Map.of("groups", List.of("Bridge crew", "Floor crew")));
    drafts.change(
        id,
        rubric,
        Map.of(
            "criteria",
            List.of(
                Map.of(
                    "text",
                    "Another electrician could hang it from the paper",
                    "points",
                    "10",
                    "outcome",
                    outcome.value()),
                Map.of("text", "Loads are added up and below 80 %", "points", "10"),
                Map.of("text", "Dated and signed", "points", "5"))));
    ItemKey exercise = drafts.find(id, "Exercise 3: " + DemoDrafts.lower(title(c, 2)));
    ItemKey reading = drafts.find(id, "Reading: " + DemoDrafts.lower(title(c, 2)));
    ItemKey quiz = drafts.find(id, "Quiz 3: " + DemoDrafts.lower(title(c, 2)));
    drafts.change(
        id,
        exercise,
        Map.of("category", exercises.value(), "rubric", rubric.value(), "groupSet", crews.value()));
    drafts.change(
        id, quiz, Map.of("conditions", List.of(Map.of("what", "READ", "item", reading.value()))));
    drafts.tie(id, List.of(reading, exercise));
    drafts.rewrite(
        id,
        "Reading: " + DemoDrafts.lower(title(c, 2)),
        "<p>Print two",
        "<aside class=\"z-builder\"><p>Ask Quay campus whether the new dimmers change the"
            + " figures.</p></aside><p>Print two");
    drafts.add(
        draft,
        Kind.PAGE,
        "Dimmers of the Quay studio",
        "<p>TODO: table of the new dimmers, ask the vendor.</p>",
        grades);
  }

  private ItemKey category(UUID id, MasterRecord draft, ItemKey in, String title, String percent) {
    ItemKey key = drafts.add(draft, Kind.GRADE_CATEGORY, title, "", in);
    drafts.change(id, key, Map.of("weight", percent));
    return key;
  }

  private static String title(DemoCourse c, int week) {
    return c.weeks().get(week).title();
  }
}
