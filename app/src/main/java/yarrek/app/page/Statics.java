package yarrek.app.page;

import org.springframework.context.annotation.Configuration;
import org.springframework.http.CacheControl;
import org.springframework.web.servlet.config.annotation.ResourceHandlerRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** Files that are asked for by a name that never changes, and so are looked at anew each time; all others hold for good. */
@Configuration
class Statics implements WebMvcConfigurer {
    @Override
    public void addResourceHandlers(ResourceHandlerRegistry registry) {
        registry.addResourceHandler("/field/*.js")
                .addResourceLocations("classpath:/static/field/")
                .setCacheControl(CacheControl.noCache());
        registry.addResourceHandler("/*.svg")
                .addResourceLocations("classpath:/static/")
                .setCacheControl(CacheControl.noCache());
    }
}
