package org.zephyrmist.server.outgoing;

import java.net.http.HttpResponse.BodySubscriber;
import java.nio.ByteBuffer;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionStage;
import java.util.concurrent.Flow;

/** A body up to a size; of what is larger no more is asked for. */
final class Limited<T> implements BodySubscriber<T> {
  private final BodySubscriber<T> whole;
  private final CompletableFuture<T> body = new CompletableFuture<>();
  private final long most;
  private Flow.Subscription subscription;
  private long size;

  Limited(BodySubscriber<T> whole, long most) {
    this.whole = whole;
    this.most = most;
    whole
        .getBody()
        .whenComplete(
            (b, e) -> {
              if (e == null) {
                body.complete(b);
              } else {
                body.completeExceptionally(e);
              }
            });
  }

  @Override
  public CompletionStage<T> getBody() {
    return body;
  }

  @Override
  public void onSubscribe(Flow.Subscription s) {
    subscription = s;
    whole.onSubscribe(s);
  }

  @Override
  public void onNext(List<ByteBuffer> some) {
    size += some.stream().mapToLong(ByteBuffer::remaining).sum();
    if (size > most) {
      subscription.cancel();
      body.completeExceptionally(new TooLarge(most));
    } else {
      whole.onNext(some);
    }
  }

  @Override
  public void onError(Throwable t) {
    body.completeExceptionally(t);
  }

  @Override
  public void onComplete() {
    whole.onComplete();
  }
}
