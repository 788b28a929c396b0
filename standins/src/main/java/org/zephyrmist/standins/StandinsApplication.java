package org.zephyrmist.standins;

import java.time.Clock;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.context.annotation.Bean;

/** Outside parties for practice: a learning platform with its own port and schema. */
@SpringBootApplication
public class StandinsApplication {
  public static void main(String[] args) {
    SpringApplication.run(StandinsApplication.class, args);
  }

  @Bean
  Clock clock() {
    return Clock.systemUTC();
  }
}
