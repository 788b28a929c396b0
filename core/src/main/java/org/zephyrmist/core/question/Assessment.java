package org.zephyrmist.core.question;

import java.util.List;
import java.util.Optional;

/**
 * A whole QTI document: the questions and what a quiz says of itself.
 *
 * @param ident of the assessment or bank; may be empty
 * @param title may be empty
 * @param presentation HTML before the questions; may be empty
 * @param attempts how often it may be tried, if limited
 * @param minutes it may take, if limited
 * @param bank whether it is a bank, from which quizzes draw
 * @param remarks what could not be taken as it stands, one sentence each
 */
public record Assessment(
    String ident,
    String title,
    String presentation,
    Optional<Integer> attempts,
    Optional<Integer> minutes,
    boolean bank,
    QuestionSet set,
    List<String> remarks) {}
