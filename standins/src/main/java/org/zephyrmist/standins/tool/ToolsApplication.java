package org.zephyrmist.standins.tool;

import java.time.Clock;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.context.annotation.Bean;

/** The practice tools, each under the name of its host. */
@SpringBootApplication(scanBasePackages = "org.zephyrmist.standins.tool")
public class ToolsApplication {
  @Bean
  Clock clock() {
    return Clock.systemUTC();
  }
}
