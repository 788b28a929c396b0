package org.zephyrmist.standins;

import java.time.Clock;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.context.annotation.Bean;
import org.zephyrmist.standins.tool.ToolsApplication;

/**
 * Outside parties for practice: a learning platform and a mailbox. With {@code STANDINS_WHAT=tools}
 * the practice tools instead, which are a program of their own.
 */
@SpringBootApplication(
    scanBasePackages = {"org.zephyrmist.standins.platform", "org.zephyrmist.standins.mailbox"})
public class StandinsApplication {
  public static void main(String[] args) {
    boolean tools = "tools".equals(System.getenv("STANDINS_WHAT"));
    SpringApplication.run(tools ? ToolsApplication.class : StandinsApplication.class, args);
  }

  @Bean
  Clock clock() {
    return Clock.systemUTC();
  }
}
