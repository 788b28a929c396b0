package org.zephyrmist.server.delivery;

import com.github.kagkarlsson.scheduler.Scheduler;
import com.github.kagkarlsson.scheduler.SchedulerName;
import com.github.kagkarlsson.scheduler.task.CompletionHandler;
import com.github.kagkarlsson.scheduler.task.TaskInstance;
import com.github.kagkarlsson.scheduler.task.helper.CustomTask;
import com.github.kagkarlsson.scheduler.task.helper.RecurringTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import com.github.kagkarlsson.scheduler.task.schedule.FixedDelay;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.UUID;
import java.util.function.Consumer;
import javax.sql.DataSource;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.SmartLifecycle;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionSynchronization;
import org.springframework.transaction.support.TransactionSynchronizationManager;
import org.zephyrmist.server.Settings;
import org.zephyrmist.server.platform.PlatformException;

/**
 * The persistent queue in PostgreSQL. Several servers share it; what one that died had picked is
 * picked again by another.
 */
@Component
class Queue implements SmartLifecycle {
  private static final Logger LOG = LoggerFactory.getLogger(Queue.class);
  private static final Duration BUSY_PAUSE = Duration.ofSeconds(1);
  private final CustomTask<Void> planTask;
  private final CustomTask<Void> runTask;
  private final CustomTask<Void> readTask;
  private final Scheduler scheduler;
  private final Lines lines;
  private final LineEnds ends;
  private final Settings settings;
  private final Clock clock;

  Queue(
      DataSource source,
      Lines lines,
      LinePlanner planner,
      LineRunner runner,
      ShellReader reader,
      LineEnds ends,
      Settings settings,
      Clock clock) {
    this.lines = lines;
    this.ends = ends;
    this.settings = settings;
    this.clock = clock;
    planTask = task("plan-line", (i, id) -> line(id, planner::plan));
    runTask = task("run-line", (i, id) -> line(id, runner::run));
    readTask = task("read-section", (i, id) -> read(id, reader));
    RecurringTask<Void> sweep =
        Tasks.recurring("sweep-lines", FixedDelay.ofSeconds(5)).execute((i, c) -> sweep());
    scheduler =
        Scheduler.create(source, planTask, runTask, readTask)
            .startTasks(sweep)
            .threads(settings.linesAtOnce())
            .pollingInterval(Duration.ofSeconds(1))
            .heartbeatInterval(Duration.ofSeconds(5))
            .missedHeartbeatsLimit(4)
            .schedulerName(new SchedulerName.Fixed("zephyrmist-" + UUID.randomUUID()))
            .enableImmediateExecution()
            .build();
  }

  /**
   * Puts lines on the queue that should be there and are not: their server died between the order
   * and the queue, or an older task of theirs was just ending.
   */
  private void sweep() {
    for (Lines.Stray s : lines.strays()) {
      scheduler.scheduleIfNotExists(
          (s.confirmed() ? runTask : planTask).instance(s.line().toString()), clock.instant());
    }
  }

  private interface Work {
    CompletionHandler<Void> run(TaskInstance<Void> instance, UUID id);
  }

  private static CustomTask<Void> task(String name, Work work) {
    return Tasks.custom(name, Void.class)
        .onFailure(
            (complete, ops) ->
                ops.reschedule(complete, complete.getTimeDone().plus(Duration.ofSeconds(10))))
        .execute((instance, context) -> work.run(instance, UUID.fromString(instance.getId())));
  }

  private CompletionHandler<Void> line(UUID id, Consumer<UUID> work) {
    Lines.Open open = lines.open(id);
    LineState state = LineState.valueOf(open.line().getState());
    if (state == LineState.STOPPED || state == LineState.DONE) {
      return new CompletionHandler.OnCompleteRemove<>();
    }
    UUID section = open.section().getId();
    if (!lines.claim(section, id)) {
      return later(BUSY_PAUSE);
    }
    try {
      work.accept(id);
      return new CompletionHandler.OnCompleteRemove<>();
    } catch (PlatformException e) {
      return failed(open, e.getMessage(), e.remedy(), e.mayPass());
    } catch (RuntimeException e) {
      LOG.error("Line {} failed", id, e);
      return failed(
          open,
          "Something went wrong in Zephyrmist itself: " + e.getMessage(),
          "Go on; if it fails again, send the server's log to its administrator.",
          true);
    } finally {
      lines.release(section, id);
      ends.check(open.delivery().getId());
    }
  }

  private CompletionHandler<Void> failed(
      Lines.Open open, String reason, String remedy, boolean mayPass) {
    int attempts = open.line().getAttempts() + 1;
    UUID id = open.line().getId();
    if (!mayPass || attempts >= settings.tries()) {
      lines.needsPerson(id, reason, remedy);
      return new CompletionHandler.OnCompleteRemove<>();
    }
    Duration pause = settings.firstPause().multipliedBy(1L << (attempts - 1));
    lines.tryAgain(id, attempts, pause, reason);
    return later(pause);
  }

  private CompletionHandler<Void> read(UUID section, ShellReader reader) {
    try {
      reader.refresh(section);
    } catch (PlatformException e) {
      LOG.info("Section {} could not be read: {}", section, e.getMessage());
    }
    return new CompletionHandler.OnCompleteRemove<>();
  }

  private CompletionHandler<Void> later(Duration pause) {
    Instant at = clock.instant().plus(pause);
    return (complete, ops) -> ops.reschedule(complete, at);
  }

  void plan(Collection<UUID> ids) {
    put(planTask, ids);
  }

  void run(Collection<UUID> ids) {
    put(runTask, ids);
  }

  void read(Collection<UUID> sections) {
    put(readTask, sections);
  }

  /** After the caller's transaction, so that what is worked on is there. */
  private void put(CustomTask<Void> task, Collection<UUID> ids) {
    List<UUID> all = List.copyOf(ids);
    Runnable now =
        () -> {
          Instant at = clock.instant();
          all.forEach(id -> scheduler.scheduleIfNotExists(task.instance(id.toString()), at));
        };
    if (TransactionSynchronizationManager.isSynchronizationActive()) {
      TransactionSynchronizationManager.registerSynchronization(
          new TransactionSynchronization() {
            @Override
            public void afterCommit() {
              now.run();
            }
          });
    } else {
      now.run();
    }
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
