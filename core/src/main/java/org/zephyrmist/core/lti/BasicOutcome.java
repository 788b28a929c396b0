package org.zephyrmist.core.lti;

import java.math.BigDecimal;
import java.util.Optional;
import org.jsoup.Jsoup;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;
import org.jsoup.parser.Parser;

/**
 * A grade that a tool sends back (LTI 1.1.1 implementation guide, section 6, "replaceResult").
 *
 * @param message its id, which the answer names
 * @param result id of the person's grade, as the launch sent it along
 * @param grade from 0 to 1
 */
public record BasicOutcome(String message, String result, BigDecimal grade) {
  private static final String NAMESPACE =
      "http://www.imsglobal.org/services/ltiv1p1/xsd/imsoms_v1p0";

  /**
   * @throws OidcError for the first thing that is wrong
   */
  public static BasicOutcome of(String xml) {
    Document d = Jsoup.parse(xml, "", Parser.xmlParser());
    Element request = d.selectFirst("imsx_POXBody > replaceResultRequest");
    if (request == null) {
      throw wrong("this is no replaceResultRequest");
    }
    String language = text(request, "resultScore > language");
    if (!language.isEmpty() && !language.equals("en")) {
      throw wrong("the language of a score has to be en");
    }
    String result = text(request, "sourcedGUID > sourcedId");
    if (result.isEmpty()) {
      throw wrong("sourcedId is missing");
    }
    return new BasicOutcome(
        text(d, "imsx_messageIdentifier"),
        result,
        grade(text(request, "resultScore > textString")));
  }

  private static String text(Element in, String path) {
    return Optional.ofNullable(in.selectFirst(path)).map(Element::text).orElse("").strip();
  }

  private static BigDecimal grade(String text) {
    try {
      BigDecimal g = new BigDecimal(text);
      if (g.signum() >= 0 && g.compareTo(BigDecimal.ONE) <= 0) {
        return g;
      }
    } catch (NumberFormatException none) {
      // told below, as what is out of bounds is
    }
    throw wrong("a score is a number from 0 to 1, not “" + text + "”");
  }

  private static OidcError wrong(String what) {
    return new OidcError("invalid_request", what);
  }

  /** The request that a tool sends. */
  public String request() {
    return pox(
        "Request",
        "<imsx_version>V1.0</imsx_version><imsx_messageIdentifier>"
            + escaped(message)
            + "</imsx_messageIdentifier>",
        "<replaceResultRequest><resultRecord><sourcedGUID><sourcedId>"
            + escaped(result)
            + "</sourcedId></sourcedGUID><result><resultScore><language>en</language><textString>"
            + grade.toPlainString()
            + "</textString></resultScore></result></resultRecord></replaceResultRequest>");
  }

  /**
   * The answer to a request.
   *
   * @param wrong why it failed; empty if it did not
   */
  public static String answer(String message, String wrong) {
    return pox(
        "Response",
        "<imsx_version>V1.0</imsx_version><imsx_messageIdentifier>"
            + escaped("re " + message)
            + "</imsx_messageIdentifier><imsx_statusInfo><imsx_codeMajor>"
            + (wrong.isEmpty() ? "success" : "failure")
            + "</imsx_codeMajor><imsx_severity>"
            + (wrong.isEmpty() ? "status" : "error")
            + "</imsx_severity><imsx_description>"
            + escaped(wrong)
            + "</imsx_description><imsx_operationRefIdentifier>replaceResult"
            + "</imsx_operationRefIdentifier></imsx_statusInfo>",
        wrong.isEmpty() ? "<replaceResultResponse/>" : "");
  }

  private static String pox(String what, String header, String body) {
    return "<?xml version=\"1.0\" encoding=\"UTF-8\"?><imsx_POXEnvelope"
        + what
        + " xmlns=\""
        + NAMESPACE
        + "\"><imsx_POXHeader><imsx_POX"
        + what
        + "HeaderInfo>"
        + header
        + "</imsx_POX"
        + what
        + "HeaderInfo></imsx_POXHeader><imsx_POXBody>"
        + body
        + "</imsx_POXBody></imsx_POXEnvelope"
        + what
        + ">";
  }

  private static String escaped(String text) {
    return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;");
  }
}
