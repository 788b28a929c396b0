package org.zephyrmist.server.platform;

import io.github.resilience4j.circuitbreaker.CircuitBreaker;
import io.github.resilience4j.circuitbreaker.CircuitBreakerConfig;
import io.github.resilience4j.circuitbreaker.CircuitBreakerConfig.SlidingWindowType;
import io.github.resilience4j.core.IntervalFunction;
import java.time.Duration;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;
import org.zephyrmist.server.platform.PlatformException.Kind;

/**
 * Leaves a platform alone that fails at most calls, and tries a few calls after a while. One per
 * platform and server.
 */
final class Breaker {
  private static final Duration LOOK_AGAIN = Duration.ofSeconds(3);
  private final CircuitBreaker breaker;

  Breaker(String name, Duration firstPause) {
    breaker =
        CircuitBreaker.of(
            name,
            CircuitBreakerConfig.custom()
                .slidingWindowType(SlidingWindowType.COUNT_BASED)
                .slidingWindowSize(20)
                .minimumNumberOfCalls(10)
                .failureRateThreshold(50)
                .permittedNumberOfCallsInHalfOpenState(2)
                .waitIntervalFunctionInOpenState(
                    IntervalFunction.ofExponentialBackoff(
                        firstPause.multipliedBy(2), 2, Duration.ofMinutes(1)))
                .build());
  }

  <T> T call(Supplier<T> call) {
    if (!breaker.tryAcquirePermission()) {
      throw PlatformException.resting(
          "The platform does not answer and is left alone for a while.", LOOK_AGAIN, null);
    }
    long start = System.nanoTime();
    try {
      T answer = call.get();
      breaker.onSuccess(System.nanoTime() - start, TimeUnit.NANOSECONDS);
      return answer;
    } catch (PlatformException e) {
      long took = System.nanoTime() - start;
      if (e.kind() == Kind.RESTING) { // asked too often: it said how long to wait
        breaker.onSuccess(took, TimeUnit.NANOSECONDS);
        breaker.transitionToOpenStateFor(e.pause());
      } else if (e.kind() == Kind.PASSING) {
        breaker.onError(took, TimeUnit.NANOSECONDS, e);
        if (breaker.getState() == CircuitBreaker.State.OPEN) {
          throw PlatformException.resting(e.getMessage(), LOOK_AGAIN, e);
        }
      } else {
        breaker.onSuccess(took, TimeUnit.NANOSECONDS);
      }
      throw e;
    } catch (RuntimeException e) {
      breaker.releasePermission();
      throw e;
    }
  }
}
