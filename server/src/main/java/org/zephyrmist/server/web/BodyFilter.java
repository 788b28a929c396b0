package org.zephyrmist.server.web;

import jakarta.servlet.AsyncContext;
import jakarta.servlet.AsyncEvent;
import jakarta.servlet.AsyncListener;
import jakarta.servlet.DispatcherType;
import jakarta.servlet.Filter;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ReadListener;
import jakarta.servlet.ServletException;
import jakarta.servlet.ServletInputStream;
import jakarta.servlet.ServletRequest;
import jakarta.servlet.ServletResponse;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.Set;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicLong;
import java.util.regex.Pattern;
import org.zephyrmist.server.Settings;

/**
 * Receives the bodies of calls before anything works on them, as they come and without a thread
 * that waits for them, each within a size and a time, all together within a share of the heap.
 * Files are not received here; who may send them is asked first.
 */
final class BodyFilter implements Filter {
  private static final String KEPT = BodyFilter.class.getName();
  private static final Pattern FILES =
      Pattern.compile(
          "/api/cartridges/intakes|/api/roster|/api/masters/(archives|[^/]+/draft/files)"
              + "|/api/packages/[^/]+/export");

  /** Calls of nobody in particular. */
  private static final Set<String> OPEN = Set.of("/api/sign-in", "/api/first-person");

  private static final int OPEN_MOST = 64 << 10;
  private final Settings settings;
  private final AtomicLong held = new AtomicLong();
  private final long mostHeld = Runtime.getRuntime().maxMemory() / 8;

  BodyFilter(Settings settings) {
    this.settings = settings;
  }

  @Override
  public void doFilter(ServletRequest request, ServletResponse response, FilterChain chain)
      throws IOException, ServletException {
    HttpServletRequest q = (HttpServletRequest) request;
    HttpServletResponse r = (HttpServletResponse) response;
    if (q.getAttribute(KEPT) instanceof byte[] body) {
      q.removeAttribute(KEPT);
      try {
        chain.doFilter(new ReceivedRequest(q, body), r);
      } finally {
        held.addAndGet(-body.length);
      }
    } else if (q.getDispatcherType() != DispatcherType.REQUEST || !hasBody(q) || isFile(q)) {
      chain.doFilter(q, r);
    } else {
      receive(q, r);
    }
  }

  private static boolean hasBody(HttpServletRequest q) {
    return q.getContentLengthLong() > 0 || q.getHeader("Transfer-Encoding") != null;
  }

  private static boolean isFile(HttpServletRequest q) {
    return q.getMethod().equals("POST") && FILES.matcher(q.getServletPath()).matches();
  }

  private void receive(HttpServletRequest q, HttpServletResponse r) throws IOException {
    int most = OPEN.contains(q.getServletPath()) ? OPEN_MOST : (int) settings.bodyMostBytes();
    if (q.getContentLengthLong() > most) {
      r.setHeader("Connection", "close");
      Problems.write(r, 413, tooLarge(most), "Send less at once.");
      return;
    }
    AsyncContext call = q.startAsync(q, r);
    call.setTimeout(settings.bodyTimeout().toMillis());
    Receiver receiver = new Receiver(call, q.getInputStream(), most);
    call.addListener(receiver);
    q.getInputStream().setReadListener(receiver);
  }

  private static String tooLarge(int most) {
    return "The body is larger than " + (most >> 10) + " kB.";
  }

  /** Takes what comes, when it comes. */
  private final class Receiver implements ReadListener, AsyncListener {
    private final AsyncContext call;
    private final ServletInputStream in;
    private final int most;
    private final byte[] buffer = new byte[8 << 10];
    private final ByteArrayOutputStream body = new ByteArrayOutputStream();
    private final AtomicBoolean ended = new AtomicBoolean();

    Receiver(AsyncContext call, ServletInputStream in, int most) {
      this.call = call;
      this.in = in;
      this.most = most;
    }

    @Override
    public void onDataAvailable() throws IOException {
      while (!ended.get() && in.isReady()) {
        int n = in.read(buffer);
        if (n < 0) {
          return;
        }
        body.write(buffer, 0, n);
        if (held.addAndGet(n) > mostHeld) {
          refuse(503, "Too much is being sent at once.", "Try again in a minute.");
        } else if (body.size() > most) {
          refuse(413, tooLarge(most), "Send less at once.");
        }
      }
    }

    @Override
    public void onAllDataRead() {
      if (ended.compareAndSet(false, true)) {
        call.getRequest().setAttribute(KEPT, body.toByteArray());
        call.dispatch();
      }
    }

    @Override
    public void onTimeout(AsyncEvent e) throws IOException {
      refuse(408, "The body of the call did not come in time.", "Send it again.");
    }

    @Override
    public void onError(Throwable t) {
      release(); // who sent it is gone
      call.complete();
    }

    @Override
    public void onError(AsyncEvent e) {
      release();
    }

    private void refuse(int status, String detail, String remedy) throws IOException {
      if (release()) {
        HttpServletResponse r = (HttpServletResponse) call.getResponse();
        r.setHeader("Connection", "close");
        Problems.write(r, status, detail, remedy);
        call.complete();
      }
    }

    private boolean release() {
      boolean first = ended.compareAndSet(false, true);
      if (first) {
        held.addAndGet(-body.size());
      }
      return first;
    }

    @Override
    public void onComplete(AsyncEvent e) {}

    @Override
    public void onStartAsync(AsyncEvent e) {}
  }
}
