package org.zephyrmist.server.web;

import jakarta.servlet.DispatcherType;
import java.util.EnumSet;
import java.util.concurrent.TimeUnit;
import org.springframework.boot.jackson.autoconfigure.JsonMapperBuilderCustomizer;
import org.springframework.boot.web.servlet.FilterRegistrationBean;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.Ordered;
import org.springframework.http.CacheControl;
import org.springframework.web.servlet.config.annotation.ResourceHandlerRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import org.zephyrmist.server.Settings;
import tools.jackson.core.JsonParser;
import tools.jackson.databind.DeserializationContext;
import tools.jackson.databind.deser.std.StdScalarDeserializer;
import tools.jackson.databind.module.SimpleModule;

/** How calls are received, and how long what is served may be kept. */
@Configuration
class WebSettings implements WebMvcConfigurer {
  @Bean
  FilterRegistrationBean<BodyFilter> bodyFilter(Settings settings) {
    FilterRegistrationBean<BodyFilter> bean =
        new FilterRegistrationBean<>(new BodyFilter(settings));
    bean.setOrder(Ordered.HIGHEST_PRECEDENCE + 1);
    bean.setDispatcherTypes(EnumSet.of(DispatcherType.REQUEST, DispatcherType.ASYNC));
    bean.setAsyncSupported(true);
    return bean;
  }

  /** Lists of whole terms and plans of whole deliveries. */
  @Bean
  FilterRegistrationBean<QuickGzip> quickGzip() {
    FilterRegistrationBean<QuickGzip> bean = new FilterRegistrationBean<>(new QuickGzip());
    bean.addUrlPatterns("/api/coverage", "/api/deliveries/*");
    return bean;
  }

  /** Assets have their contents in their names; the page that names them is asked for each time. */
  @Override
  public void addResourceHandlers(ResourceHandlerRegistry registry) {
    registry
        .addResourceHandler("/assets/**")
        .addResourceLocations("classpath:/static/assets/")
        .setCacheControl(CacheControl.maxAge(365, TimeUnit.DAYS).cachePublic().immutable());
  }

  /** No text that is sent may hold NUL, which the database does not keep. */
  @Bean
  JsonMapperBuilderCustomizer textsWithoutNul() {
    SimpleModule module = new SimpleModule();
    module.addDeserializer(String.class, new Text());
    return builder -> builder.addModule(module);
  }

  private static final class Text extends StdScalarDeserializer<String> {
    Text() {
      super(String.class);
    }

    @Override
    public String deserialize(JsonParser p, DeserializationContext context) {
      String text = p.getValueAsString();
      if (text != null && text.indexOf('\0') >= 0) {
        context.reportInputMismatch(this, "A text holds a character that none may hold");
      }
      return text;
    }
  }
}
