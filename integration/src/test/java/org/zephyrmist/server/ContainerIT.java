package org.zephyrmist.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import org.apache.catalina.Context;
import org.apache.catalina.startup.Tomcat;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.tomcat.TomcatWebServer;
import org.springframework.boot.web.server.servlet.context.ServletWebServerApplicationContext;

/** What the container does by itself. */
class ContainerIT extends ServerIT {
  @Autowired ServletWebServerApplicationContext context;

  @Test
  void itsTemporaryFoldersLieInTheWorkspaceThatTheNextServerClears() {
    Tomcat tomcat = ((TomcatWebServer) context.getWebServer()).getTomcat();
    Context site = (Context) tomcat.getHost().findChild("");
    for (Path p :
        new Path[] {tomcat.getServer().getCatalinaBase().toPath(), Path.of(site.getDocBase())}) {
      assertThat(p.getParent().getFileName().toString()).startsWith("zephyrmist-work-");
    }
  }
}
