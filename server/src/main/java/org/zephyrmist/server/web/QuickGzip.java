package org.zephyrmist.server.web;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.util.zip.Deflater;
import java.util.zip.GZIPOutputStream;
import org.springframework.http.HttpHeaders;
import org.springframework.web.filter.OncePerRequestFilter;
import org.springframework.web.util.ContentCachingResponseWrapper;

/**
 * Packs large answers of the API quickly rather than closely (RFC 9110, section 8.4.1.3). The
 * container packs closely, which takes four times as long for answers of megabytes and makes them
 * hardly smaller. Such an answer is in memory whole, so this is for calls whose answers are
 * bounded.
 */
final class QuickGzip extends OncePerRequestFilter {
  private static final int WORTH_IT = 100_000;

  @Override
  protected void doFilterInternal(
      HttpServletRequest request, HttpServletResponse response, FilterChain chain)
      throws ServletException, IOException {
    String accepted = request.getHeader(HttpHeaders.ACCEPT_ENCODING);
    if (accepted == null || !accepted.contains("gzip")) {
      chain.doFilter(request, response);
      return;
    }
    ContentCachingResponseWrapper answer = new ContentCachingResponseWrapper(response);
    chain.doFilter(request, answer);
    if (request.isAsyncStarted() || answer.getContentSize() < WORTH_IT) {
      answer.copyBodyToResponse();
      return;
    }
    ByteArrayOutputStream packed = new ByteArrayOutputStream(answer.getContentSize() / 4);
    try (OutputStream out = new Quick(packed)) {
      answer.getContentInputStream().transferTo(out);
    }
    response.setHeader(HttpHeaders.CONTENT_ENCODING, "gzip");
    response.addHeader(HttpHeaders.VARY, HttpHeaders.ACCEPT_ENCODING);
    response.setContentLength(packed.size());
    packed.writeTo(response.getOutputStream());
  }

  private static final class Quick extends GZIPOutputStream {
    Quick(OutputStream out) throws IOException {
      super(out, 1 << 16);
      def.setLevel(Deflater.BEST_SPEED);
    }
  }
}
