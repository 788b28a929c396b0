package org.zephyrmist.server.web;

import jakarta.servlet.DispatcherType;
import jakarta.servlet.ReadListener;
import jakarta.servlet.ServletInputStream;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import java.io.BufferedReader;
import java.io.ByteArrayInputStream;
import java.io.InputStreamReader;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Enumeration;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.springframework.http.HttpStatus;

/** A call whose body has been received: it goes the whole way as if it had just come. */
final class ReceivedRequest extends HttpServletRequestWrapper {
  private final byte[] body;
  private Map<String, String[]> parameters;

  ReceivedRequest(HttpServletRequest request, byte[] body) {
    super(request);
    this.body = body;
  }

  @Override
  public DispatcherType getDispatcherType() {
    return DispatcherType.REQUEST;
  }

  @Override
  public ServletInputStream getInputStream() {
    ByteArrayInputStream in = new ByteArrayInputStream(body);
    return new ServletInputStream() {
      @Override
      public int read() {
        return in.read();
      }

      @Override
      public int read(byte[] b, int off, int len) {
        return in.read(b, off, len);
      }

      @Override
      public boolean isFinished() {
        return in.available() == 0;
      }

      @Override
      public boolean isReady() {
        return true;
      }

      @Override
      public void setReadListener(ReadListener listener) {
        throw new IllegalStateException("The body is here already");
      }
    };
  }

  @Override
  public BufferedReader getReader() {
    return new BufferedReader(new InputStreamReader(getInputStream(), StandardCharsets.UTF_8));
  }

  @Override
  public Map<String, String[]> getParameterMap() {
    if (parameters == null) {
      Map<String, List<String>> all = new LinkedHashMap<>();
      super.getParameterMap().forEach((name, v) -> all.put(name, new ArrayList<>(List.of(v))));
      String type = getContentType();
      if (type != null && type.startsWith("application/x-www-form-urlencoded")) {
        fields(all);
      }
      Map<String, String[]> map = new LinkedHashMap<>();
      all.forEach((name, v) -> map.put(name, v.toArray(String[]::new)));
      parameters = Collections.unmodifiableMap(map);
    }
    return parameters;
  }

  /** Fields of a form (URL Standard, 5.1). */
  private void fields(Map<String, List<String>> all) {
    try {
      for (String pair : new String(body, StandardCharsets.UTF_8).split("&")) {
        int eq = pair.indexOf('=');
        String name =
            URLDecoder.decode(eq < 0 ? pair : pair.substring(0, eq), StandardCharsets.UTF_8);
        String value =
            eq < 0 ? "" : URLDecoder.decode(pair.substring(eq + 1), StandardCharsets.UTF_8);
        all.computeIfAbsent(name, n -> new ArrayList<>()).add(value);
      }
    } catch (IllegalArgumentException e) {
      throw new Refusal(
          HttpStatus.BAD_REQUEST, "The form is not encoded as forms are.", "Send it again.");
    }
  }

  @Override
  public String getParameter(String name) {
    String[] values = getParameterMap().get(name);
    return values == null ? null : values[0];
  }

  @Override
  public String[] getParameterValues(String name) {
    return getParameterMap().get(name);
  }

  @Override
  public Enumeration<String> getParameterNames() {
    return Collections.enumeration(getParameterMap().keySet());
  }
}
