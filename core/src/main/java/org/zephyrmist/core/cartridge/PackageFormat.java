package org.zephyrmist.core.cartridge;

import java.util.EnumSet;
import java.util.Optional;
import java.util.Set;
import org.zephyrmist.core.content.Kind;

/** What a package can be written as, and what each holds. */
public enum PackageFormat {
  CC_1_1("Common Cartridge 1.1", "1.1.0", "1", "http://www.imsglobal.org/xsd/imslticc_v1p0", "0"),
  CC_1_2("Common Cartridge 1.2", "1.2.0", "2", "http://www.imsglobal.org/xsd/imslticc_v1p0", "0"),
  CC_1_3("Common Cartridge 1.3", "1.3.0", "3", "http://www.imsglobal.org/xsd/imslticc_v1p3", "3"),
  /** Links alone, without any file. */
  THIN_1_3(
      "Thin Common Cartridge 1.3", "1.3.0", "3", "http://www.imsglobal.org/xsd/imslticc_v1p3", "3");

  private static final Set<Kind> LINKS = EnumSet.of(Kind.WEB_LINK, Kind.TOOL_LINK);
  private static final Set<Kind> HELD =
      EnumSet.of(
          Kind.PAGE,
          Kind.FILE,
          Kind.WEB_LINK,
          Kind.TOOL_LINK,
          Kind.ASSIGNMENT,
          Kind.DISCUSSION,
          Kind.QUIZ,
          Kind.QUESTION_BANK);

  private final String words;
  private final String schemaVersion;
  private final String minor;
  private final String toolSpace;
  private final String toolVersion;

  PackageFormat(
      String words, String schemaVersion, String minor, String toolSpace, String toolVersion) {
    this.words = words;
    this.schemaVersion = schemaVersion;
    this.minor = minor;
    this.toolSpace = toolSpace;
    this.toolVersion = toolVersion;
  }

  /** What people call it. */
  public String words() {
    return words;
  }

  public boolean thin() {
    return this == THIN_1_3;
  }

  /** Whether an assignment is one in it, not a page (assignment extension, since 1.3). */
  public boolean assignments() {
    return this == CC_1_3;
  }

  /** Whether it has a form for items of a kind. */
  public boolean holds(Kind kind) {
    return type(kind).isPresent();
  }

  String schema() {
    return thin() ? "IMS Thin Common Cartridge" : "IMS Common Cartridge";
  }

  String schemaVersion() {
    return schemaVersion;
  }

  /** A name of the standard with this version in it, given with an asterisk for its digit. */
  String name(String pattern) {
    return pattern.replace("*", minor);
  }

  String toolSpace() {
    return toolSpace;
  }

  /** The type of the resource that a kind is written as; none where it cannot be written. */
  Optional<String> type(Kind kind) {
    if (thin() ? !LINKS.contains(kind) : !HELD.contains(kind)) {
      return Optional.empty();
    }
    return Optional.of(
        switch (kind) {
          case PAGE, FILE -> "webcontent";
          case DISCUSSION -> name("imsdt_xmlv1p*");
          case WEB_LINK -> name("imswl_xmlv1p*");
          case TOOL_LINK -> "imsbasiclti_xmlv1p" + toolVersion;
          case ASSIGNMENT -> assignments() ? "assignment_xmlv1p0" : "webcontent";
          case QUIZ -> name("imsqti_xmlv1p2/imscc_xmlv1p*/assessment");
          case QUESTION_BANK -> name("imsqti_xmlv1p2/imscc_xmlv1p*/question-bank");
          default -> throw new IllegalStateException("Is not held: " + kind);
        });
  }
}
