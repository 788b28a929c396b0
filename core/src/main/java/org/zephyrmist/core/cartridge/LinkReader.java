package org.zephyrmist.core.cartridge;

import java.util.Optional;
import java.util.TreeMap;
import org.w3c.dom.Element;
import org.zephyrmist.core.cartridge.ResourceReader.Read;
import org.zephyrmist.core.content.Addresses;
import org.zephyrmist.core.content.Content;
import org.zephyrmist.core.content.Frames;
import org.zephyrmist.core.content.Launch;
import org.zephyrmist.core.content.Titles;
import org.zephyrmist.core.xml.Elements;

/** Reads links to the web and to tools. */
final class LinkReader {
  private final Findings findings;

  LinkReader(Findings findings) {
    this.findings = findings;
  }

  Read webLink(Element xml, String title) {
    Optional<Element> url = Elements.child(xml, "url");
    String address = url.map(u -> u.getAttribute("href").strip()).orElse("");
    if (!address.isEmpty() && !Addresses.isPlain(address)) {
      findings.dead(
          title,
          "the link leads to what is no address of the web and was left out: "
              + PackageAddresses.shortened(address));
      address = "";
    } else if (address.isEmpty()) {
      findings.dead(title, "the link leads nowhere");
    }
    boolean window = url.filter(u -> u.getAttribute("target").equals("_blank")).isPresent();
    return new Read(Elements.text(xml, "title"), new Content.WebLink(address, window));
  }

  /** LTI 1.1 link as in Common Cartridge: launch addresses, custom parameters, icon, vendor. */
  Read toolLink(Element xml, String title, String description) {
    String secure = web(xml, title, "secure_launch_url");
    String plain = web(xml, title, "launch_url");
    String address = secure.isEmpty() ? plain : secure;
    if (address.isEmpty()) {
      findings.dead(title, "the tool link has no launch address");
    }
    TreeMap<String, String> parameters = new TreeMap<>();
    Elements.child(xml, "custom")
        .ifPresent(
            c ->
                Elements.children(c)
                    .forEach(p -> parameters.put(p.getAttribute("name"), p.getTextContent())));
    parameters.remove("");
    if (Elements.child(xml, "extensions").isPresent()) {
      findings.adjusted(title, "settings for one platform only were left out of the tool link");
    }
    String icon = web(xml, title, "secure_icon");
    Launch.Tool tool =
        new Launch.Tool(
            plain.equals(address) ? "" : plain,
            icon.isEmpty() ? web(xml, title, "icon") : icon,
            vendor(xml, "code", address),
            vendor(xml, "name", address));
    boolean says = !tool.equals(new Launch.Tool("", "", "", ""));
    Launch launch =
        new Launch(address, false, parameters, says ? Optional.of(tool) : Optional.empty());
    return new Read(Elements.text(xml, "title"), new Content.ToolLink(description, launch));
  }

  /** A vendor that only repeats the host was put there because one has to be. */
  private static String vendor(Element xml, String part, String address) {
    String said = Titles.clean(Elements.text(xml, "vendor", part));
    return said.equals(Frames.host(address)) ? "" : said;
  }

  /** An address of the web; what is none is told and left out. */
  private String web(Element xml, String title, String name) {
    String address = Elements.text(xml, name);
    if (address.isEmpty() || Addresses.isWeb(address)) {
      return address;
    }
    findings.dead(
        title,
        "its "
            + name
            + " is no address of the web and was left out: "
            + PackageAddresses.shortened(address));
    return "";
  }
}
