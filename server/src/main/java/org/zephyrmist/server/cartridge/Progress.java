package org.zephyrmist.server.cartridge;

import static org.zephyrmist.server.db.Tables.INTAKE;

import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.transaction.TransactionDefinition;
import org.springframework.transaction.support.TransactionTemplate;

/** Writes progress outside the transaction of the reading, a few times a second at the most. */
final class Progress implements TreeIntake.Progress {
  private static final long PAUSE = 300_000_000L;
  private final DSLContext db;
  private final TransactionTemplate own;
  private final UUID intake;
  private long last;

  Progress(DSLContext db, TransactionTemplate transaction, UUID intake) {
    this.db = db;
    this.intake = intake;
    own = new TransactionTemplate(transaction.getTransactionManager());
    own.setPropagationBehavior(TransactionDefinition.PROPAGATION_REQUIRES_NEW);
  }

  @Override
  public void at(int done, int total, String what) {
    long now = System.nanoTime();
    if (now - last < PAUSE) {
      return;
    }
    last = now;
    own.executeWithoutResult(
        t ->
            db.update(INTAKE)
                .set(INTAKE.DONE, done)
                .set(INTAKE.TOTAL, total)
                .set(INTAKE.WHAT, what)
                .where(INTAKE.ID.eq(intake))
                .execute());
  }
}
