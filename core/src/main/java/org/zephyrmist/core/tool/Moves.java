package org.zephyrmist.core.tool;

import java.net.URI;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.zephyrmist.core.content.Addresses;

/**
 * What launch addresses that moved have in common, so that a rule can be proposed: the same host
 * and beginning before, the same after, and behind them the same rest.
 */
public final class Moves {
  private Moves() {}

  /** An address in the edition before and in the one after it. */
  public record Move(String before, String after) {}

  /**
   * A rule that would write each of these moves as it is.
   *
   * @param moves how many it covers
   */
  public record Proposal(AddressPattern from, Template to, int moves) {}

  /**
   * Rules for moves, the one that covers most first. Where one beginning became two, or would be
   * found again in what it became, there is no rule for it; what did not move, and what is no
   * address of the web, is passed over.
   */
  public static List<Proposal> of(List<Move> moves) {
    Map<String, Map<String, List<Move>>> byBeginning = new LinkedHashMap<>();
    for (Move m : moves) {
      beginnings(m)
          .ifPresent(
              b ->
                  byBeginning
                      .computeIfAbsent(b[0], x -> new LinkedHashMap<>())
                      .computeIfAbsent(b[1], x -> new ArrayList<>())
                      .add(m));
    }
    List<Proposal> all = new ArrayList<>();
    byBeginning.forEach(
        (before, afters) -> {
          AddressPattern from = new AddressPattern(before + "{*rest}");
          String after = afters.keySet().iterator().next();
          List<Move> covered = afters.get(after);
          if (afters.size() == 1 && covered.stream().noneMatch(m -> leadsOn(from, m))) {
            all.add(new Proposal(from, new Template(after + "{*rest}"), covered.size()));
          }
        });
    all.sort((a, b) -> b.moves() - a.moves());
    return all;
  }

  /** Whether the rule would be about the result too, see {@link RelinkRules}. */
  private static boolean leadsOn(AddressPattern from, Move m) {
    return from.parts(m.after()).isPresent();
  }

  /** What stands before the rest that both have in common; none if nothing moved. */
  private static Optional<String[]> beginnings(Move m) {
    boolean web = Addresses.isWeb(m.before()) && Addresses.isWeb(m.after());
    if (!web || m.before().equals(m.after()) || (m.before() + m.after()).matches(".*[{}].*")) {
      return Optional.empty();
    }
    int same = 0;
    int most = Math.min(rest(m.before()).length(), rest(m.after()).length());
    while (same < most
        && m.before().charAt(m.before().length() - 1 - same)
            == m.after().charAt(m.after().length() - 1 - same)) {
      same++;
    }
    while (same > 0 && "/?#".indexOf(m.before().charAt(m.before().length() - same)) < 0) {
      same--;
    }
    return Optional.of(
        new String[] {
          m.before().substring(0, m.before().length() - same),
          m.after().substring(0, m.after().length() - same)
        });
  }

  /** What follows the host. */
  private static String rest(String address) {
    URI uri = URI.create(address);
    int at = address.indexOf(uri.getRawAuthority()) + uri.getRawAuthority().length();
    return address.substring(at);
  }
}
