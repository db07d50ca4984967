package yarrek.app.page;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.mock.env.MockEnvironment;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.ui.ExtendedModelMap;
import org.springframework.web.multipart.MultipartException;

class PageAdviceTest {
    @ParameterizedTest
    @CsvSource({
        "No space left on device, 503, The disk is full",
        "Stream ended unexpectedly, 400, No file came",
    })
    void anUploadThatDidNotComeSaysWhy(String cause, int status, String title) {
        MockHttpServletResponse response = new MockHttpServletResponse();
        ExtendedModelMap model = new ExtendedModelMap();
        new PageAdvice(new MockEnvironment())
                .noFile(
                        new MultipartException("failed", new IOException(cause)),
                        model,
                        new MockHttpServletRequest("POST", "/flights/logs"),
                        response);
        assertThat(response.getStatus()).isEqualTo(status);
        assertThat(model.values()).contains(title);
    }
}
