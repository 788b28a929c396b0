package org.zephyrmist.server.tool;

import java.io.IOException;
import java.net.http.HttpTimeoutException;
import java.time.Clock;
import java.util.HashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.content.Frames;
import org.zephyrmist.core.lti.AuthenticationRequest;
import org.zephyrmist.core.lti.Login;
import org.zephyrmist.core.lti.Messages;
import org.zephyrmist.core.lti.OidcError;
import org.zephyrmist.core.lti.Registration;
import org.zephyrmist.core.tool.BasicLaunch;
import org.zephyrmist.core.tool.LaunchAnswer;
import org.zephyrmist.core.tool.Query;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.outgoing.GuardedClient;
import org.zephyrmist.server.outgoing.TooLarge;

/** Launches a tool as a browser would, to see whether it lets somebody in. */
@Component
class ToolLaunches {
  private static final long NANOS = 1_000_000;
  private final GuardedClient client;
  private final Settings settings;
  private final ToolAddresses where;
  private final PlatformKey key;
  private final Clock clock;

  ToolLaunches(
      GuardedClient client, Settings settings, ToolAddresses where, PlatformKey key, Clock clock) {
    this.client = client;
    this.settings = settings;
    this.where = where;
    this.key = key;
    this.clock = clock;
  }

  /** What a tool made of a launch, and how long it took. */
  record Answered(LaunchAnswer answer, int millis) {}

  String back() {
    return where.back();
  }

  /**
   * @param hosts of its connection; those of its registration are its own too
   */
  Answered send(BasicLaunch launch, Optional<Signer> signer, Set<String> hosts) {
    Set<String> own = new HashSet<>(hosts);
    Optional<Registration> registration = signer.flatMap(Signer::registration);
    registration.ifPresent(
        r -> {
          own.add(Frames.host(r.login()));
          r.launches().forEach(l -> own.add(Frames.host(l)));
        });
    ToolVisit visit = new ToolVisit(client, where, own, settings.toolTimeout());
    long began = System.nanoTime();
    LaunchAnswer answer =
        guarded(
            () ->
                registration.isPresent()
                    ? registered(launch, registration.get(), visit)
                    : answer(visit.post(launch.link().address(), form(launch, signer))));
    return new Answered(answer, (int) ((System.nanoTime() - began) / NANOS));
  }

  private SortedMap<String, String> form(BasicLaunch launch, Optional<Signer> signer) {
    return signer
        .map(s -> launch.signed(s.key(), s.secret(), clock.instant(), UUID.randomUUID().toString()))
        .orElseGet(launch::parameters);
  }

  /** Login, the tool's request, and the message (LTI 1.3 core, section 4.1). */
  private LaunchAnswer registered(BasicLaunch launch, Registration r, ToolVisit visit)
      throws IOException, InterruptedException {
    String hint = UUID.randomUUID().toString();
    Login login = new Login(where.issuer(), launch.link().address(), r, hint, hint);
    ToolVisit.Page asked = visit.post(r.login(), login.parameters());
    if (!asked.location().startsWith(where.authorize())) {
      LaunchAnswer a = answer(asked);
      return a.opened() ? refused("It did not ask for a message after the login.") : a;
    }
    AuthenticationRequest request = AuthenticationRequest.of(Query.of(asked.location()), r);
    if (!request.hint().equals(hint)) {
      return refused("It did not send back the login_hint that it was given.");
    }
    Map<String, Object> claims =
        new Messages(where.issuer(), r, request.nonce(), clock.instant())
            .resourceLink(launch, Optional.empty());
    return answer(
        visit.post(
            request.redirect(),
            Map.of("id_token", key.get().signed(claims), "state", request.state())));
  }

  private LaunchAnswer answer(ToolVisit.Page p) {
    return LaunchAnswer.of(p.status(), p.location(), where.back(), p.text());
  }

  /** A launch that may fail in all the ways that calls fail. */
  private interface Launched {
    LaunchAnswer go() throws IOException, InterruptedException;
  }

  private LaunchAnswer guarded(Launched l) {
    try {
      return l.go();
    } catch (OidcError e) {
      return refused("It asks for the message in a way that does not hold: " + e.getMessage());
    } catch (ToolVisit.Astray e) {
      return refused(e.getMessage());
    } catch (GuardedClient.NotAllowed e) {
      return refused("It may not be called: " + e.getMessage());
    } catch (TooLarge e) {
      return silent("Its answer has no end.");
    } catch (HttpTimeoutException e) {
      return silent("It did not answer within " + settings.toolTimeout().toSeconds() + " s.");
    } catch (IOException | IllegalArgumentException e) {
      return silent("It cannot be reached.");
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      return silent("The server is stopping.");
    }
  }

  private static LaunchAnswer refused(String why) {
    return new LaunchAnswer(LaunchAnswer.Outcome.REFUSED, why);
  }

  private static LaunchAnswer silent(String why) {
    return new LaunchAnswer(LaunchAnswer.Outcome.NO_ANSWER, why);
  }
}
