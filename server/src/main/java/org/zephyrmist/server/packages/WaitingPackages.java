package org.zephyrmist.server.packages;

import static org.zephyrmist.server.db.Tables.DELIVERY;
import static org.zephyrmist.server.db.Tables.DELIVERY_LINE;
import static org.zephyrmist.server.db.Tables.DELIVERY_STEP;
import static org.zephyrmist.server.db.Tables.KEPT_SHELL;
import static org.zephyrmist.server.db.Tables.MASTER;
import static org.zephyrmist.server.db.Tables.PLATFORM;
import static org.zephyrmist.server.db.Tables.SECTION;
import static org.zephyrmist.server.db.Tables.VERSION;

import java.time.OffsetDateTime;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.springframework.stereotype.Component;
import org.zephyrmist.core.cartridge.PackageFormat;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Refusal;

/** Packages that wait to be brought in, at most one for a section. */
@Component
class WaitingPackages {
  private final DSLContext db;
  private final Reach reach;

  WaitingPackages(DSLContext db, Reach reach) {
    this.db = db;
    this.reach = reach;
  }

  /**
   * A package that waits.
   *
   * @param code of the section
   * @param masterCode of the master that it brings
   * @param since when it was made
   */
  record One(
      UUID line,
      UUID delivery,
      UUID section,
      String code,
      String title,
      UUID platform,
      String platformName,
      PackageFormat format,
      String masterCode,
      int number,
      OffsetDateTime since) {
    /** The name of the file, and of its folder among several. */
    String name() {
      return (code + " " + masterCode + " v" + number).replaceAll("[^A-Za-z0-9.-]+", "-");
    }
  }

  /** On rows of {@code section}, {@code delivery} and {@code delivery_line}; by section. */
  List<One> some(Condition which) {
    return db.select(
            DELIVERY_LINE.ID,
            DELIVERY.ID,
            SECTION.ID,
            SECTION.CODE,
            SECTION.TITLE,
            PLATFORM.ID,
            PLATFORM.NAME,
            PLATFORM.PACKAGE_FORMAT,
            MASTER.CODE,
            VERSION.NUMBER,
            KEPT_SHELL.PACKAGE_AT)
        .from(KEPT_SHELL)
        .join(SECTION)
        .on(SECTION.ID.eq(KEPT_SHELL.SECTION_ID))
        .join(DELIVERY_LINE)
        .on(DELIVERY_LINE.SECTION_ID.eq(SECTION.ID).and(DELIVERY_LINE.ALL_WRITTEN))
        .join(DELIVERY)
        .on(DELIVERY.ID.eq(DELIVERY_LINE.DELIVERY_ID))
        .join(VERSION)
        .on(VERSION.ID.eq(DELIVERY.VERSION_ID))
        .join(MASTER)
        .on(MASTER.ID.eq(VERSION.MASTER_ID))
        .join(PLATFORM)
        .on(PLATFORM.ID.eq(SECTION.PLATFORM_ID))
        .where(KEPT_SHELL.PACKAGE_AT.isNotNull())
        .andExists(
            DSL.selectOne()
                .from(DELIVERY_STEP)
                .where(DELIVERY_STEP.LINE_ID.eq(DELIVERY_LINE.ID))
                .and(DELIVERY_STEP.SENT)
                .and(DELIVERY_STEP.RECORDED.isFalse()))
        .and(which)
        .orderBy(SECTION.CODE, SECTION.ID)
        .fetch(
            r ->
                new One(
                    r.value1(),
                    r.value2(),
                    r.value3(),
                    r.value4(),
                    r.value5(),
                    r.value6(),
                    r.value7(),
                    Optional.ofNullable(r.value8())
                        .map(PackageFormat::valueOf)
                        .orElse(PackageFormat.CC_1_3),
                    r.value9(),
                    r.value10(),
                    r.value11()));
  }

  /** The one of a section within reach. */
  One one(UUID section, SignedIn who) {
    return some(SECTION.ID.eq(section).and(reach.sections(who))).stream()
        .findFirst()
        .orElseThrow(() -> Refusal.notFound("package that waits"));
  }
}
