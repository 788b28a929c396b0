package org.zephyrmist.server.content;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.zephyrmist.core.content.Fingerprint;

/** Fingerprints that are in the database for certain: bodies are never deleted. Bounded. */
final class Stored {
  private final Cache<Fingerprint, Boolean> known =
      Caffeine.newBuilder().maximumSize(200_000).build();

  Map<Fingerprint, String> without(Map<Fingerprint, String> forms) {
    Map<Fingerprint, String> others = new HashMap<>();
    forms.forEach(
        (print, form) -> {
          if (known.getIfPresent(print) == null) {
            others.put(print, form);
          }
        });
    return others;
  }

  /** Known from the moment on when the running transaction is committed. */
  void add(Collection<Fingerprint> prints) {
    List<Fingerprint> all = List.copyOf(prints);
    if (!TransactionSynchronizationManager.isSynchronizationActive()) {
      addNow(all);
      return;
    }
    TransactionSynchronizationManager.registerSynchronization(
        new TransactionSynchronization() {
          @Override
          public void afterCommit() {
            addNow(all);
          }
        });
  }

  private void addNow(List<Fingerprint> prints) {
    prints.forEach(p -> known.put(p, true));
  }
}
