package org.zephyrmist.core.cartridge;

import java.io.IOException;
import java.io.InputStream;
import java.io.StringReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import javax.xml.XMLConstants;
import javax.xml.transform.Source;
import javax.xml.transform.stream.StreamSource;
import javax.xml.validation.Schema;
import javax.xml.validation.SchemaFactory;
import org.xml.sax.SAXException;

/**
 * Holds a package against the schemas of the standard, written out in the resources of the tests.
 */
final class Schemas {
  private static final List<String> NAMES =
      List.of(
          "imscp",
          "lom-manifest",
          "lom-resource",
          "csmd",
          "topic",
          "weblink",
          "lti-parts",
          "lti-messages",
          "basic-lti",
          "tool-link",
          "assignment",
          "questions");
  private static final Map<PackageFormat, Schema> ALL =
      Map.of(
          PackageFormat.CC_1_1, schema("1", "0"),
          PackageFormat.CC_1_2, schema("2", "0"),
          PackageFormat.CC_1_3, schema("3", "3"),
          PackageFormat.THIN_1_3, schema("3", "3"));

  private Schemas() {}

  private static Schema schema(String version, String tool) {
    Source[] sources =
        NAMES.stream()
            .map(
                n ->
                    text(n)
                        .replace("1pV", "1p" + version)
                        .replace("1.V.", "1." + version + ".")
                        .replace("1pT", "1p" + tool))
            .map(t -> new StreamSource(new StringReader(t)))
            .toArray(Source[]::new);
    try {
      return SchemaFactory.newInstance(XMLConstants.W3C_XML_SCHEMA_NS_URI).newSchema(sources);
    } catch (SAXException e) {
      throw new IllegalStateException(e);
    }
  }

  private static String text(String name) {
    try (InputStream in = Schemas.class.getResourceAsStream("/schema/" + name + ".xsd")) {
      return new String(in.readAllBytes(), StandardCharsets.UTF_8);
    } catch (IOException e) {
      throw new IllegalStateException(e);
    }
  }

  /** What of a package is not as the schemas say, by file. */
  static List<String> violations(Path file, PackageFormat format) throws IOException {
    List<String> all = new ArrayList<>();
    try (ZipFile zip = new ZipFile(file.toFile())) {
      for (ZipEntry e : Collections.list(zip.entries())) {
        if (!e.getName().endsWith(".xml") || e.getName().startsWith("web_resources")) {
          continue;
        }
        try (InputStream in = zip.getInputStream(e)) {
          ALL.get(format).newValidator().validate(new StreamSource(in));
        } catch (SAXException x) {
          all.add(e.getName() + ": " + x.getMessage());
        }
      }
    }
    return all;
  }
}
