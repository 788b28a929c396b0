package org.zephyrmist.server.content;

import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.zephyrmist.core.content.Fingerprint;

/** Fingerprints that are in the database for certain: bodies are never deleted. Bounded. */
final class Stored {
  private static final int MOST = 200_000;
  private final Map<Fingerprint, Boolean> known =
      new LinkedHashMap<>(1024, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<Fingerprint, Boolean> eldest) {
          return size() > MOST;
        }
      };

  synchronized Map<Fingerprint, String> without(Map<Fingerprint, String> forms) {
    Map<Fingerprint, String> others = new HashMap<>();
    forms.forEach(
        (print, form) -> {
          if (known.get(print) == null) {
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

  private synchronized void addNow(List<Fingerprint> prints) {
    prints.forEach(p -> known.put(p, true));
  }
}
