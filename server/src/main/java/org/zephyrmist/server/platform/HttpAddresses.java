package org.zephyrmist.server.platform;

import java.net.URLDecoder;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.zephyrmist.core.content.References;
import org.zephyrmist.core.content.References.ToFile;

/** Addresses within shells as docs/api.md describes them. */
public final class HttpAddresses implements ShellAddresses {
  public static final HttpAddresses SAME_EVERYWHERE = new HttpAddresses();
  private static final Pattern FILE =
      Pattern.compile("/files/([0-9a-f]{64})/([^?#]*)(#.*)?", Pattern.DOTALL);
  private static final String SHELLS = "/shells/";

  private HttpAddresses() {}

  @Override
  public String file(ToFile f) {
    String name = URLEncoder.encode(f.name(), StandardCharsets.UTF_8).replace("+", "%20");
    return "/files/" + f.sha256() + "/" + name + f.fragment();
  }

  @Override
  public String item(String shell, String id, String fragment) {
    return items(shell) + id + fragment;
  }

  private static String items(String shell) {
    return SHELLS + shell + "/items/";
  }

  /** Where people find a shell. */
  static String shell(String platform, String shell) {
    return platform + SHELLS + shell;
  }

  @Override
  public Optional<ToFile> asFile(String address) {
    Matcher m = FILE.matcher(address);
    if (!m.matches()) {
      return Optional.empty();
    }
    String name = URLDecoder.decode(m.group(2).replace("+", "%2B"), StandardCharsets.UTF_8);
    String fragment = m.group(3) == null ? "" : m.group(3);
    return Optional.of(new ToFile(m.group(1), name, fragment));
  }

  @Override
  public Optional<ToShellItem> asItem(String shell, String address) {
    String items = items(shell);
    return address.startsWith(items)
        ? Optional.of(
            new ToShellItem(
                References.withoutFragment(address.substring(items.length())),
                References.fragment(address)))
        : Optional.empty();
  }

  @Override
  public boolean isWithinAShell(String address) {
    return address.startsWith(SHELLS);
  }
}
