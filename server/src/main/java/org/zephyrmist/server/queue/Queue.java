package org.zephyrmist.server.queue;

import com.github.kagkarlsson.scheduler.Scheduler;
import com.github.kagkarlsson.scheduler.SchedulerName;
import com.github.kagkarlsson.scheduler.task.CompletionHandler;
import com.github.kagkarlsson.scheduler.task.helper.CustomTask;
import com.github.kagkarlsson.scheduler.task.helper.RecurringTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import com.github.kagkarlsson.scheduler.task.schedule.FixedDelay;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.Collection;
import java.util.List;
import java.util.UUID;
import javax.sql.DataSource;
import org.jooq.DSLContext;
import org.springframework.context.SmartLifecycle;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.zephyrmist.server.Settings;

/**
 * Runs all jobs. Several servers share the queue; what one that died had picked is picked again by
 * another.
 */
@Component
public class Queue implements SmartLifecycle {
  private static final Duration AFTER_FAILURE = Duration.ofSeconds(10);
  private final Scheduler scheduler;
  private final DSLContext db;
  private final Clock clock;

  Queue(DataSource source, DSLContext db, List<Job> jobs, Settings settings, Clock clock) {
    this.db = db;
    this.clock = clock;
    RecurringTask<Void> sweep =
        Tasks.recurring("sweep-lines", FixedDelay.of(settings.looksAround()))
            .execute((i, c) -> sweep(jobs));
    scheduler =
        Scheduler.create(
                source,
                jobs.stream()
                    .<com.github.kagkarlsson.scheduler.task.Task<?>>map(this::task)
                    .toList())
            .startTasks(sweep)
            .threads(
                settings.linesAtOnce()) // more would only find that nobody may work on what is due
            .pollingInterval(Duration.ofSeconds(1))
            .heartbeatInterval(settings.heartbeat())
            .missedHeartbeatsLimit(4)
            .schedulerName(new SchedulerName.Fixed("zephyrmist-" + UUID.randomUUID()))
            .enableImmediateExecution()
            .build();
  }

  private void sweep(List<Job> jobs) {
    for (Job j : jobs) {
      j.sweep();
      put(j.name(), j.strays());
    }
  }

  private CustomTask<Void> task(Job job) {
    return Tasks.custom(job.name(), Void.class)
        .onFailure(
            (complete, ops) -> ops.reschedule(complete, complete.getTimeDone().plus(AFTER_FAILURE)))
        .execute((instance, context) -> handler(job.run(UUID.fromString(instance.getId()))));
  }

  private CompletionHandler<Void> handler(Outcome outcome) {
    if (outcome.again().isEmpty()) {
      return new CompletionHandler.OnCompleteRemove<>();
    }
    Instant at = clock.instant().plus(outcome.again().get());
    return (complete, ops) -> ops.reschedule(complete, at);
  }

  /**
   * Puts work on the queue in the caller's transaction, in one statement. What waits already is
   * brought forward; what is being worked on is left, and the sweep sees to it.
   */
  public void put(String job, Collection<UUID> ids) {
    if (ids.isEmpty()) {
      return;
    }
    db.query(
            "insert into scheduled_tasks (task_name, task_instance, execution_time, picked, version)"
                + " select ?, unnest(?::uuid[])::text, ?::timestamptz, false, 1"
                + " on conflict (task_name, task_instance) do update"
                + " set execution_time = excluded.execution_time where not scheduled_tasks.picked",
            job,
            ids.toArray(UUID[]::new),
            OffsetDateTime.ofInstant(clock.instant(), ZoneOffset.UTC))
        .execute();
    if (TransactionSynchronizationManager.isSynchronizationActive()) {
      TransactionSynchronizationManager.registerSynchronization(
          new TransactionSynchronization() {
            @Override
            public void afterCommit() {
              scheduler.triggerCheckForDueExecutions();
            }
          });
    } else {
      scheduler.triggerCheckForDueExecutions();
    }
  }

  /** How many of these are still on the queue, waiting or being worked on. */
  public int left(String job, Collection<UUID> ids) {
    return db.fetchSingle(
            "select count(*)::int from scheduled_tasks where task_name = ?"
                + " and task_instance = any(?)",
            job,
            ids.stream().map(UUID::toString).toArray(String[]::new))
        .get(0, Integer.class);
  }

  @Override
  public void start() {
    scheduler.start();
  }

  @Override
  public void stop() {
    scheduler.stop();
  }

  @Override
  public boolean isRunning() {
    return scheduler.getSchedulerState().isStarted()
        && !scheduler.getSchedulerState().isShuttingDown();
  }
}
