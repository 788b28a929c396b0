package org.zephyrmist.standins;

import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.stream.Collectors;

/** Forms as a browser posts them; redirects are not followed. */
final class Forms {
  private static final HttpClient CLIENT = HttpClient.newHttpClient();

  private Forms() {}

  static HttpResponse<String> post(String address, Map<String, String> form) throws Exception {
    String body =
        form.entrySet().stream()
            .map(e -> e.getKey() + "=" + URLEncoder.encode(e.getValue(), StandardCharsets.UTF_8))
            .collect(Collectors.joining("&"));
    return CLIENT.send(
        HttpRequest.newBuilder(URI.create(address))
            .header("Content-Type", "application/x-www-form-urlencoded")
            .POST(HttpRequest.BodyPublishers.ofString(body))
            .build(),
        HttpResponse.BodyHandlers.ofString());
  }
}
