package org.zephyrmist.bench;

import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.zephyrmist.bench.history.Histories;

/** {@code bench [NAME]}, or {@code survive}, {@code stress}, {@code histories [SECONDS [SEED]]}. */
public final class Main {
  private Main() {}

  public static void main(String[] args) throws Exception {
    if (args.length > 0 && args[0].equals("survive")) {
      int seconds = args.length > 1 ? Integer.parseInt(args[1]) : 600;
      long seed = args.length > 2 ? Long.parseLong(args[2]) : new Random().nextInt(1_000_000);
      System.out.println("Survival of " + seconds + " s with seed " + seed);
      Map<String, Integer> did = new Survival(seed, 120, Duration.ofSeconds(seconds)).run();
      System.out.println("Ledger and platform agree after " + did);
    } else if (args.length > 0 && args[0].equals("histories")) {
      int seconds = args.length > 1 ? Integer.parseInt(args[1]) : 600;
      long seed = args.length > 2 ? Long.parseLong(args[2]) : new Random().nextInt(1_000_000);
      System.out.println("Histories of " + seconds + " s with seed " + seed);
      System.out.println("All held: " + new Histories(seed, Duration.ofSeconds(seconds)).run());
    } else if (args.length > 0 && args[0].equals("stress")) {
      int seconds = args.length > 1 ? Integer.parseInt(args[1]) : 600;
      long seed = args.length > 2 ? Long.parseLong(args[2]) : new Random().nextInt(1_000_000);
      System.out.println("Stress of " + seconds + " s with seed " + seed);
      System.out.println("Answers: " + new Stress(seed, Duration.ofSeconds(seconds)).run());
    } else if (args.length > 1 && !all().containsKey(args[1])) {
      System.err.println("There is no figure " + args[1] + "; choose of " + all().keySet());
      System.exit(64);
    } else {
      // a browser's driver, for instance, would keep the process alive
      System.exit(measured(args.length > 1 ? args[1] : "") ? 0 : 1);
    }
  }

  /** Measures one, or all for an empty name; one that fails says so and the others go on. */
  private static boolean measured(String name) {
    List<String> failed = new ArrayList<>();
    for (Map.Entry<String, Bench> b : all().entrySet()) {
      if (name.isEmpty() || name.equals(b.getKey())) {
        try {
          b.getValue().run().forEach(f -> System.out.println(f.line()));
        } catch (Exception | Error e) {
          failed.add(b.getKey());
          System.err.println("FAILED: " + b.getKey() + " could not be measured: " + e);
          e.printStackTrace();
        }
      }
    }
    if (!failed.isEmpty()) {
      System.err.println("Not measured: " + String.join(", ", failed));
    }
    return failed.isEmpty();
  }

  private interface Bench {
    List<Figure> run() throws Exception;
  }

  /** Smaller by the factor in the system property, to find one's way; the figures then say so. */
  private static int size(int full) {
    return Math.max(1, full / Integer.getInteger("bench.smaller", 1));
  }

  private static List<Figure> input() throws Exception {
    List<Figure> all = new ArrayList<>(new Input(size(3_000), size(300), size(1_000)).run());
    all.addAll(new CoverageInput(size(3_000), 8).run());
    return all;
  }

  private static Map<String, Bench> all() {
    Map<String, Bench> all = new LinkedHashMap<>();
    all.put("take-in", () -> List.of(new TakeIn(size(3_000)).time()));
    all.put("heap", () -> List.of(new TakeIn(size(3_000)).heap()));
    all.put("plan", () -> List.of(new Plan(size(300), 1_000).run()));
    all.put("deliver", () -> new Deliver(size(300), 200).run());
    all.put("coverage", () -> List.of(new Coverage(10_000, 8).run()));
    all.put("input", Main::input);
    all.put("packages", () -> new Packages(size(3_000)).run());
    all.put("library", () -> List.of(new LibrarySearch(size(20_000)).run()));
    all.put("forecast", () -> List.of(new ForecastCalls(size(300), 1_000).run()));
    all.put("tools", () -> new ToolLinksOfSections(size(300), 100).run());
    all.put("drift", () -> new Drift(size(300), 200).run());
    all.put("checks", () -> new Checks(size(320), 200).run());
    all.put("dates", () -> new Dates(size(320), 60).run());
    all.put("next-term", () -> new NextTerm(size(300), 200).run());
    all.put("past", () -> List.of(new PastOfTheLedger(size(3_000_000)).run()));
    all.put("matching", () -> new Matching(size(3_000)).run());
    all.put("ten-times", () -> List.of(new Deliver(size(300), 50).tenTimes()));
    return all;
  }
}
