package org.zephyrmist.server.delivery;

import static org.zephyrmist.server.db.Tables.PLATFORM;
import static org.zephyrmist.server.db.Tables.SECTION;

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
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.Collection;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.UUID;
import java.util.function.Consumer;
import javax.sql.DataSource;
import org.jooq.DSLContext;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.SmartLifecycle;
import org.springframework.dao.DataAccessException;
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

  /** For sections that have no shell. */
  private static final UUID NOWHERE = new UUID(0, 0);

  private static final Duration BUSY_PAUSE = Duration.ofSeconds(1);
  private final CustomTask<Void> planTask;
  private final CustomTask<Void> runTask;
  private final CustomTask<Void> readTask;
  private final Scheduler scheduler;
  private final DSLContext db;
  private final Lines lines;
  private final LineEnds ends;
  private final Settings settings;
  private final Clock clock;
  private final Turns turns;
  private volatile Set<UUID> platforms = Set.of();
  private volatile Instant platformsAt = Instant.EPOCH;

  Queue(
      DataSource source,
      DSLContext db,
      Lines lines,
      LinePlanner planner,
      LineRunner runner,
      ShellReader reader,
      LineEnds ends,
      Settings settings,
      Clock clock) {
    this.db = db;
    this.lines = lines;
    this.ends = ends;
    this.settings = settings;
    this.clock = clock;
    this.turns = new Turns(settings.linesAtOnce());
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
            .heartbeatInterval(settings.heartbeat())
            .missedHeartbeatsLimit(4)
            .schedulerName(new SchedulerName.Fixed("zephyrmist-" + UUID.randomUUID()))
            .enableImmediateExecution()
            .build();
  }

  /**
   * Finds what a server left that died at a bad moment: lines that have no task, sections that are
   * still taken, deliveries whose last line has ended.
   */
  private void sweep() {
    lines.releaseLeft();
    List<Lines.Stray> strays = lines.strays();
    put(runTask, strays.stream().filter(Lines.Stray::confirmed).map(Lines.Stray::line).toList());
    put(planTask, strays.stream().filter(s -> !s.confirmed()).map(Lines.Stray::line).toList());
    ends.checkAll();
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

  private CompletionHandler<Void> line(UUID id, Consumer<Lines.Open> work) {
    Lines.Open known = lines.open(id);
    LineState state = LineState.valueOf(known.line().getState());
    if (state == LineState.STOPPED || state == LineState.DONE) {
      return new CompletionHandler.OnCompleteRemove<>();
    }
    UUID platform = Objects.requireNonNullElse(known.section().getPlatformId(), NOWHERE);
    if (!turns.begin(platform, platforms())) {
      return later(BUSY_PAUSE);
    }
    try {
      return line(id, known.section().getId(), work);
    } finally {
      turns.end(platform);
    }
  }

  /** All that are named; looked up again every few seconds. */
  private Collection<UUID> platforms() {
    Instant now = clock.instant();
    if (now.isAfter(platformsAt.plusSeconds(5))) {
      platforms = db.select(PLATFORM.ID).from(PLATFORM).fetchSet(PLATFORM.ID);
      platformsAt = now;
    }
    return platforms;
  }

  private CompletionHandler<Void> line(UUID id, UUID section, Consumer<Lines.Open> work) {
    UUID token = UUID.randomUUID();
    if (!lines.claim(section, id, token)) {
      return later(BUSY_PAUSE);
    }
    Lines.Open open = lines.open(id);
    try {
      if (!token.equals(open.section().getBusyToken())) {
        throw new Lines.TakenOver();
      }
      work.accept(open);
      return new CompletionHandler.OnCompleteRemove<>();
    } catch (Lines.TakenOver e) {
      LOG.info("Line {}: {}", id, e.getMessage());
      return new CompletionHandler.OnCompleteRemove<>();
    } catch (PlatformException e) {
      return failed(open, e);
    } catch (DataAccessException e) {
      throw e; // the database is away: the queue tries again when it is back
    } catch (RuntimeException e) {
      LOG.error("Line {} failed", id, e);
      return failed(
          open,
          PlatformException.passing(
              "Something went wrong in Zephyrmist itself: " + e.getMessage(),
              "Go on; if it fails again, send the server's log to its administrator.",
              e));
    } finally {
      lines.release(section, token);
      ends.check(open.delivery().getId());
    }
  }

  /** Only failures that are this section's own count; a platform that is out of order is not. */
  private CompletionHandler<Void> failed(Lines.Open open, PlatformException e) {
    UUID id = open.line().getId();
    boolean resting = e.kind() == PlatformException.Kind.RESTING;
    int attempts = open.line().getAttempts() + (resting ? 0 : 1);
    if (e.kind() == PlatformException.Kind.LASTING || attempts >= settings.tries()) {
      lines.needsPerson(id, e.getMessage(), e.remedy());
      return new CompletionHandler.OnCompleteRemove<>();
    }
    Duration backOff = settings.firstPause().multipliedBy(1L << Math.max(0, attempts - 1));
    Duration pause = resting ? e.pause() : backOff;
    lines.tryAgain(id, attempts, pause, e.getMessage(), e.remedy());
    return later(pause);
  }

  private CompletionHandler<Void> read(UUID section, ShellReader reader) {
    UUID platform =
        db.select(SECTION.PLATFORM_ID)
            .from(SECTION)
            .where(SECTION.ID.eq(section))
            .fetchOptional(SECTION.PLATFORM_ID)
            .orElse(NOWHERE);
    if (!turns.begin(platform, platforms())) {
      return later(BUSY_PAUSE);
    }
    try {
      reader.refresh(section);
    } catch (PlatformException e) {
      LOG.info("Section {} could not be read: {}", section, e.getMessage());
    } catch (DataAccessException e) {
      throw e; // the database is away: the queue tries again when it is back
    } catch (RuntimeException e) {
      LOG.error("Section {} could not be read", section, e);
    } finally {
      turns.end(platform);
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

  /**
   * Puts tasks on the queue in the caller's transaction, in one statement. A task that waits
   * already is brought forward; one that is being worked on is left, and the sweep sees to it.
   */
  private void put(CustomTask<Void> task, Collection<UUID> ids) {
    if (ids.isEmpty()) {
      return;
    }
    db.query(
            "insert into scheduled_tasks (task_name, task_instance, execution_time, picked, version)"
                + " select ?, unnest(?::uuid[])::text, ?::timestamptz, false, 1"
                + " on conflict (task_name, task_instance) do update"
                + " set execution_time = excluded.execution_time where not scheduled_tasks.picked",
            task.getName(),
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
