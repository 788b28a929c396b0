package org.zephyrmist.core.cartridge;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.zephyrmist.core.Laws;
import org.zephyrmist.core.question.Answer;
import org.zephyrmist.core.question.Assessment;
import org.zephyrmist.core.question.QtiWriter;
import org.zephyrmist.core.question.Question;
import org.zephyrmist.core.question.QuestionSamples;
import org.zephyrmist.core.question.QuestionSet;
import org.zephyrmist.core.question.QuestionType;

/** Questions from and to QTI 1.2. */
class QuestionsTest {
  private static Assessment read(String xml) throws CartridgeException {
    return StoredQuestions.read("q.xml", xml.getBytes(StandardCharsets.UTF_8));
  }

  private static Assessment assessment(QuestionSet set, boolean bank) {
    return new Assessment(
        "id",
        bank ? "" : "Loads",
        bank ? "" : "<p>Read.</p>",
        Optional.of(3),
        Optional.of(45),
        bank,
        set,
        List.of());
  }

  @Test
  void whatIsWrittenIsReadAgainAndWritesTheSameBytes() {
    Laws.hold(
        r -> {
          Assessment a = assessment(QuestionSamples.set(r, true), false);
          byte[] bytes = QtiWriter.withDraws(a);
          try {
            Assessment again = StoredQuestions.read("q.xml", bytes);
            assertThat(again.set()).isEqualTo(a.set());
            assertThat(again.presentation()).isEqualTo(a.presentation());
            assertThat(again.attempts()).isEqualTo(a.attempts());
            assertThat(again.minutes()).isEqualTo(a.minutes());
            assertThat(QtiWriter.withDraws(again)).isEqualTo(bytes);
          } catch (CartridgeException e) {
            throw new AssertionError(e);
          }
        });
  }

  @Test
  void aBankIsReadAsOne() throws Exception {
    QuestionSet set = QuestionSamples.set(new java.util.Random(1), false);
    Assessment again = StoredQuestions.read("b.xml", QtiWriter.inProfile(assessment(set, true)));
    assertThat(again.bank()).isTrue();
    assertThat(again.set()).isEqualTo(set);
  }

  private static String item(String metadata, String presentation, String rest) {
    return "<questestinterop><assessment ident='a' title='Loads'><section ident='root_section'>"
        + "<item ident='i1' title='One'><itemmetadata><qtimetadata>"
        + metadata
        + "</qtimetadata></itemmetadata><presentation>"
        + presentation
        + "</presentation>"
        + rest
        + "</item></section></assessment></questestinterop>";
  }

  private static String field(String label, String entry) {
    return "<qtimetadatafield><fieldlabel>"
        + label
        + "</fieldlabel><fieldentry>"
        + entry
        + "</fieldentry></qtimetadatafield>";
  }

  @Test
  void aChoiceIsReadWithItsScoresAndFeedbacks() throws Exception {
    Question q =
        read(item(
                field("cc_profile", "cc.multiple_choice.v0p1") + field("cc_weighting", "5"),
                "<flow><material><mattext texttype='text/html'>&lt;p&gt;Watts?&lt;/p&gt;</mattext>"
                    + "</material><response_lid ident='r' rcardinality='Single'><render_choice>"
                    + "<response_label ident='A'><material><mattext>1,920 &amp; no more</mattext>"
                    + "</material></response_label><response_label ident='B'><material><mattext>"
                    + "2,400</mattext></material></response_label></render_choice></response_lid>"
                    + "</flow>",
                "<resprocessing><outcomes><decvar maxvalue='10' varname='SCORE'/></outcomes>"
                    + "<respcondition continue='Yes'><conditionvar><varequal respident='r'>B"
                    + "</varequal></conditionvar><displayfeedback linkrefid='B_fb'/></respcondition>"
                    + "<respcondition><conditionvar><varequal respident='r'>A</varequal>"
                    + "</conditionvar><setvar>10</setvar><displayfeedback linkrefid='correct_fb'/>"
                    + "</respcondition><respcondition><conditionvar><other/></conditionvar>"
                    + "<setvar>0</setvar><displayfeedback linkrefid='general_incorrect_fb'/>"
                    + "</respcondition></resprocessing><itemfeedback ident='B_fb'><material><mattext>"
                    + "That is the rating.</mattext></material></itemfeedback><itemfeedback"
                    + " ident='correct_fb'><material><mattext>Yes.</mattext></material></itemfeedback>"
                    + "<itemfeedback ident='general_incorrect_fb'><material><mattext>No.</mattext>"
                    + "</material></itemfeedback>"))
            .set()
            .questions()
            .get(0);
    assertThat(q.type()).isEqualTo(QuestionType.MULTIPLE_CHOICE);
    assertThat(q.html()).isEqualTo("<p>Watts?</p>");
    assertThat(q.points()).isEqualTo("5");
    assertThat(q.answers())
        .containsExactly(
            new Answer("A", "1,920 &amp; no more", Answer.ALL, "", false),
            new Answer("B", "2,400", BigDecimal.ZERO, "That is the rating.", false));
    assertThat(q.notes().right()).isEqualTo("Yes.");
    assertThat(q.notes().wrong()).isEqualTo("No.");
  }

  @Test
  void aSectionThatDrawsFromABankIsAGroup() throws Exception {
    Assessment a =
        read(
            "<questestinterop><assessment ident='a' title='x'><section ident='root'><section"
                + " ident='g' title='Draw'><selection_ordering><selection><sourcebank_ref>bank-3"
                + "</sourcebank_ref><selection_number>5</selection_number><selection_extension>"
                + "<points_per_item>2</points_per_item></selection_extension></selection>"
                + "</selection_ordering></section></section></assessment></questestinterop>");
    QuestionSet.Group g = (QuestionSet.Group) a.set().parts().get(0);
    assertThat(g.bank()).contains("bank-3");
    assertThat(a.set().asked()).isEqualTo(5);
    assertThat(a.set().points()).isEqualByComparingTo("10");
  }

  @Test
  void numbersThatAreNoneAreToldAndNotTakenInSilence() throws Exception {
    Assessment a =
        read(
            item(
                    field("cc_weighting", "10,5"),
                    "<material><mattext>?</mattext></material>"
                        + "<response_str ident='r'><render_fib/></response_str>",
                    "")
                .replace(
                    "title='Loads'>",
                    "title='Loads'><qtimetadata>"
                        + field("cc_maxattempts", "-2")
                        + "</qtimetadata>"));
    assertThat(a.remarks())
        .hasSize(2)
        .anyMatch(r -> r.contains("“10,5”"))
        .anyMatch(r -> r.contains("“-2”"));
    assertThat(a.attempts()).isEmpty();
  }

  @Test
  void aQuestionOfNoTypeOfTheStandardIsKeptAsItCame() throws Exception {
    String xml =
        item(
            field("question_type", "matching_question"),
            "<material><mattext>Match.</mattext></material><response_lid ident='a'><render_choice/>"
                + "</response_lid><response_lid ident='b'><render_choice/></response_lid>",
            "");
    Assessment a = read(xml);
    Question q = a.set().questions().get(0);
    assertThat(q.type()).isEqualTo(QuestionType.OTHER);
    assertThat(q.html()).isEqualTo("Match.");
    assertThat(q.kept().orElseThrow()).contains("matching_question").contains("ident=\"b\"");
    assertThat(a.remarks()).singleElement().asString().contains("kept as it came");
    Assessment again =
        StoredQuestions.read("q.xml", QtiWriter.inProfile(assessment(a.set(), false)));
    assertThat(again.set()).isEqualTo(a.set());
  }

  @Test
  void twoQuestionsWithOneIdentifierAreBothTaken() throws Exception {
    Assessment a =
        read(
            "<questestinterop><objectbank ident='b'><item ident='i'/><item ident='i'/></objectbank>"
                + "</questestinterop>");
    assertThat(a.set().questions()).extracting(Question::id).containsExactly("i", "i-2");
  }
}
