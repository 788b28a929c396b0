package org.zephyrmist.core.content;

import java.util.List;

/**
 * How work on an assignment is handed in.
 *
 * @param ways as the assignment extension of Common Cartridge names them: {@code text}, {@code
 *     html}, {@code url}, {@code file}
 * @param endings of files that are accepted, without a dot; empty: all
 * @param checked whether it is compared with other people's work
 */
public record HandIn(List<String> ways, List<String> endings, boolean checked) {
  public HandIn {
    ways = ways.stream().distinct().sorted().toList();
    endings = endings.stream().distinct().sorted().toList();
  }
}
