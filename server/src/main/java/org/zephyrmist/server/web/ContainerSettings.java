package org.zephyrmist.server.web;

import java.io.File;
import java.io.IOException;
import org.apache.catalina.Container;
import org.apache.catalina.connector.Request;
import org.apache.catalina.connector.Response;
import org.apache.catalina.core.StandardHost;
import org.apache.catalina.valves.ErrorReportValve;
import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** What the container answers by itself is a problem too, and what it writes lies with ours. */
@Configuration
class ContainerSettings {
  @Bean
  WebServerFactoryCustomizer<TomcatServletWebServerFactory> errorsAsProblems() {
    return factory ->
        factory.addContextCustomizers(
            context -> {
              Container host = context.getParent();
              if (host instanceof StandardHost h) {
                h.setErrorReportValveClass(ProblemValve.class.getName());
              }
            });
  }

  /** Its own temporary folders lie in the workspace, so that those of a killed server go too. */
  @Bean
  WebServerFactoryCustomizer<TomcatServletWebServerFactory> foldersInTheWorkspace(
      Workspace workspace) throws IOException {
    File base = workspace.folder("container").toFile();
    File documents = workspace.folder("documents").toFile();
    return factory -> {
      factory.setBaseDirectory(base);
      factory.setDocumentRoot(documents);
    };
  }

  /** Made by the container, by its name. */
  public static final class ProblemValve extends ErrorReportValve {
    @Override
    protected void report(Request request, Response response, Throwable throwable) {
      int status = response.getStatus();
      if (status < 400 || response.getContentWritten() > 0 || !response.setErrorReported()) {
        return;
      }
      try {
        Problems.write(
            response.getResponse(),
            status,
            "This is no call that can be answered.",
            "Send it as HTTP has it.");
        response.finishResponse();
      } catch (IOException | IllegalStateException tooLate) {
        container.getLogger().debug("No error could be told", tooLate);
      }
    }
  }
}
