/**
 * Questions: what a quiz or a bank asks, and how it is marked. {@link QuestionSet} and {@link
 * Question} are the values; {@link QtiReader} and {@link QtiWriter} stand between them and QTI
 * 1.2.1 in the profile of Common Cartridge. Knows nothing of packages, files or items: whoever
 * calls says what becomes of the addresses in a text.
 */
package org.zephyrmist.core.question;
