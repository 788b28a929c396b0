package org.zephyrmist.core.cartridge;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Pattern;

/** Types of resource (Common Cartridge 1.0 to 1.3, "Resource types"). */
enum ResourceType {
  WEB_CONTENT("webcontent"),
  ASSOCIATED_CONTENT("associatedcontent/.*"),
  DISCUSSION("imsdt_xmlv1p\\d"),
  WEB_LINK("imswl_xmlv1p\\d"),
  TOOL_LINK("imsbasiclti_xmlv1p\\d(p\\d)?|imslti_xmlv1p\\d"),
  ASSESSMENT("imsqti_xmlv1p2(p\\d)?/imscc_xmlv1p\\d/assessment"),
  QUESTION_BANK("imsqti_xmlv1p2(p\\d)?/imscc_xmlv1p\\d/question-bank"),
  ASSIGNMENT("assignment_xmlv1p\\d");

  private final Pattern form;

  ResourceType(String form) {
    this.form = Pattern.compile(form);
  }

  /** Whether it is pages and files, not a description in XML. */
  boolean isFiles() {
    return this == WEB_CONTENT || this == ASSOCIATED_CONTENT;
  }

  static Optional<ResourceType> of(String type) {
    return Arrays.stream(values())
        .filter(t -> t.form.matcher(type.toLowerCase(Locale.ROOT)).matches())
        .findFirst();
  }
}
