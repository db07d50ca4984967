package yarrek.app.page;

import java.time.Duration;
import java.util.Map;
import org.springframework.context.annotation.Configuration;
import org.springframework.http.CacheControl;
import org.springframework.web.servlet.config.annotation.ResourceHandlerRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import org.springframework.web.servlet.resource.VersionResourceResolver;

/**
 * Files that pages ask for, each folder by its name: a handler of all addresses would have every link of every page looked for
 * as a file in every jar. Names carry the hash of the content, so they hold for good; those that never change are looked at
 * anew each time.
 */
@Configuration
class Statics implements WebMvcConfigurer {
    private static final Duration FOR_GOOD = Duration.ofDays(365);

    private static final Map<String, String> FOLDERS = Map.of(
            "/css/**", "classpath:/static/css/",
            "/fonts/**", "classpath:/static/fonts/",
            "/js/**", "classpath:/static/js/",
            "/vendor/**", "classpath:/static/vendor/",
            "/webjars/**", "classpath:/META-INF/resources/webjars/");

    @Override
    public void addResourceHandlers(ResourceHandlerRegistry registry) {
        FOLDERS.forEach((addresses, folder) -> registry.addResourceHandler(addresses)
                .addResourceLocations(folder)
                .setCacheControl(CacheControl.maxAge(FOR_GOOD).cachePublic())
                .resourceChain(true)
                .addResolver(new VersionResourceResolver().addContentVersionStrategy("/**")));
        registry.addResourceHandler("/field/*.js")
                .addResourceLocations("classpath:/static/field/")
                .setCacheControl(CacheControl.noCache());
        registry.addResourceHandler("/*.svg")
                .addResourceLocations("classpath:/static/")
                .setCacheControl(CacheControl.noCache());
    }
}
