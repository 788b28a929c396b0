package org.zephyrmist.server.outgoing;

import java.net.http.HttpResponse.BodySubscriber;
import java.net.http.HttpResponse.BodySubscribers;
import java.nio.ByteBuffer;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionStage;
import java.util.concurrent.Flow;

/** A body in memory, up to a size; of what is larger no more is asked for. */
final class Limited implements BodySubscriber<byte[]> {
  private final BodySubscriber<byte[]> whole = BodySubscribers.ofByteArray();
  private final CompletableFuture<byte[]> body = new CompletableFuture<>();
  private final long most;
  private Flow.Subscription subscription;
  private long size;

  Limited(long most) {
    this.most = most;
    whole.getBody().thenAccept(body::complete);
  }

  @Override
  public CompletionStage<byte[]> getBody() {
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
