package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.web.servlet.resource.ResourceUrlProvider;

/** Files that pages ask for are held for good by names of their content, and no link of a page is looked for as a file. */
class StaticsTest extends RunningApp {
    @Autowired
    ResourceUrlProvider files;

    @Test
    void noHandlerOfFilesTakesEveryAddress() {
        assertThat(files.getHandlerMap()).isNotEmpty().doesNotContainKey("/**");
        assertThat(files.getForLookupPath("/jobs")).isNull();
    }

    @Test
    void aFileIsNamedByItsContentAndHeldForGood() throws Exception {
        for (String file : List.of("/css/page.css", "/webjars/bootstrap/5.3.8/css/bootstrap.min.css")) {
            String named = files.getForLookupPath(file);
            assertThat(named).matches(".*-[0-9a-f]{32}\\.css");
            HttpResponse<String> got = HttpClient.newHttpClient()
                    .send(
                            HttpRequest.newBuilder(URI.create(address(named))).build(),
                            HttpResponse.BodyHandlers.ofString());
            assertThat(got.statusCode()).isEqualTo(200);
            assertThat(got.headers().firstValue("Cache-Control")).contains("max-age=31536000, public");
        }
    }
}
