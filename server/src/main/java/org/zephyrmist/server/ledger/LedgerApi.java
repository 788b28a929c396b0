package org.zephyrmist.server.ledger;

import jakarta.servlet.http.HttpServletResponse;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jooq.Condition;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.http.MediaType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.zephyrmist.core.content.Aspect;
import org.zephyrmist.core.content.Kind;
import org.zephyrmist.core.delivery.Receipt;
import org.zephyrmist.server.people.Reach;
import org.zephyrmist.server.people.SignedIn;
import org.zephyrmist.server.web.Days;
import org.zephyrmist.server.web.Sheet;

/** Who got what, when, from whom: all receipts within reach. */
@RestController
@RequestMapping(path = "/api/ledger", produces = MediaType.APPLICATION_JSON_VALUE)
@PreAuthorize("hasAnyRole('COORDINATOR', 'DESIGNER', 'ADMINISTRATOR')")
class LedgerApi {
  private final Receipts receipts;
  private final Reach reach;

  LedgerApi(Receipts receipts, Reach reach) {
    this.receipts = receipts;
    this.reach = reach;
  }

  /**
   * What is looked for.
   *
   * @param section part of a section's code
   * @param item part of an item's title
   * @param person part of a name
   * @param from first day, in UTC
   * @param to last day
   */
  record LedgerQuery(
      @Size(max = 200) String section,
      UUID master,
      Integer version,
      @Size(max = 200) String item,
      UUID delivery,
      @Size(max = 200) String person,
      LocalDate from,
      LocalDate to) {
    Receipts.Sought sought() {
      return new Receipts.Sought(
          text(section),
          Optional.ofNullable(master),
          Optional.ofNullable(version),
          text(item),
          Optional.ofNullable(delivery),
          text(person),
          Optional.ofNullable(from).map(Days::begins),
          Optional.ofNullable(to).map(Days::ends));
    }

    private static String text(String given) {
      return given == null ? "" : given.strip();
    }
  }

  /**
   * One receipt.
   *
   * @param id by which the next page is asked for
   * @param writes aspects that were written
   */
  record LedgerLine(
      long id,
      @NotNull OffsetDateTime at,
      @NotNull UUID section,
      @NotNull String code,
      @NotNull UUID master,
      @NotNull String masterCode,
      int number,
      @NotNull Kind kind,
      @NotNull String title,
      @NotNull Receipt.How how,
      @NotNull Set<Aspect> writes,
      @NotNull String by,
      @NotNull UUID delivery) {}

  /** The newest first; after them those with a lesser id. */
  @GetMapping("/receipts")
  List<LedgerLine> receipts(
      @Valid @ParameterObject LedgerQuery query,
      @RequestParam(required = false) Long before,
      @RequestParam(defaultValue = "200") @Min(1) @Max(1000) int most,
      @AuthenticationPrincipal SignedIn who) {
    return receipts.some(query.sought(), within(who), Optional.ofNullable(before), most).stream()
        .map(LedgerApi::line)
        .toList();
  }

  private static final List<String> HEAD =
      List.of(
          "time (UTC)",
          "section",
          "master",
          "version",
          "kind",
          "item",
          "what",
          "written",
          "by",
          "delivery");

  /** The same, all of them, as a table. */
  @GetMapping(path = "/receipts/file", produces = MediaType.APPLICATION_OCTET_STREAM_VALUE)
  void file(
      @Valid @ParameterObject LedgerQuery query,
      @RequestParam Sheet format,
      @AuthenticationPrincipal SignedIn who,
      HttpServletResponse response)
      throws IOException {
    format.send(
        response,
        "ledger",
        HEAD,
        rows -> receipts.each(query.sought(), within(who), l -> rows.of(row(l))));
  }

  private static List<Object> row(Receipts.Line l) {
    List<Object> row = new ArrayList<>(Arrays.asList(l.at(), l.code(), l.masterCode(), l.number()));
    row.addAll(
        Arrays.asList(
            Sheet.words(l.kind()),
            l.title(),
            Sheet.words(l.how()),
            Sheet.words(l.writes()),
            l.by(),
            l.delivery()));
    return row;
  }

  private Condition within(SignedIn who) {
    return reach.sections(who).and(reach.masters(who));
  }

  private static LedgerLine line(Receipts.Line l) {
    return new LedgerLine(
        l.id(),
        l.at(),
        l.section(),
        l.code(),
        l.master(),
        l.masterCode(),
        l.number(),
        l.kind(),
        l.title(),
        l.how(),
        l.writes(),
        l.by(),
        l.delivery());
  }
}
