package yarrek.app.page;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import jakarta.servlet.ServletException;
import java.io.EOFException;
import java.sql.SQLException;
import java.sql.SQLNonTransientConnectionException;
import java.sql.SQLTransientConnectionException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.stereotype.Controller;
import org.springframework.test.web.servlet.request.MockMvcRequestBuilders;
import org.springframework.test.web.servlet.setup.MockMvcBuilders;
import org.springframework.transaction.CannotCreateTransactionException;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.servlet.mvc.support.DefaultHandlerExceptionResolver;

class DatabaseAwayTest {
    private static Exception away() {
        return new CannotCreateTransactionException(
                "no connection", new SQLTransientConnectionException("Connection is not available"));
    }

    private static MockHttpServletResponse ask(MockHttpServletRequest request, Exception thrown) throws Exception {
        MockHttpServletResponse response = new MockHttpServletResponse();
        new DatabaseAway(() -> false).doFilter(request, response, (q, r) -> {
            if (thrown instanceof RuntimeException e) {
                throw e;
            }
            throw new ServletException(thrown);
        });
        return response;
    }

    @Test
    void aPageSaysItInWordsAndWhenToComeBack() throws Exception {
        MockHttpServletResponse r = ask(new MockHttpServletRequest("GET", "/jobs"), away());
        assertThat(r.getStatus()).isEqualTo(503);
        assertThat(r.getHeader("Retry-After")).isEqualTo("15");
        assertThat(r.getContentAsString())
                .contains("The database does not answer")
                .contains("Try again");
    }

    /** Everything typed is on the page, as it was typed, but for what is secret. */
    @Test
    void whatWasTypedIsSentAgainWithOneButton() throws Exception {
        MockHttpServletRequest request = new MockHttpServletRequest("POST", "/jobs/5/edit");
        request.setQueryString("back=/jobs");
        request.setParameter("name", "Mast & \"stays\" <3");
        request.setParameter("note", "\nfirst\nsecond");
        request.setParameter("days", "MON", "TUE");
        request.setParameter("password", "heron quarry lantern");
        request.setParameter("_csrf", "token");
        String page = ask(request, away()).getContentAsString();
        assertThat(page)
                .contains("action=\"/jobs/5/edit?back=/jobs\"")
                .contains("name=\"name\">\nMast &amp; &quot;stays&quot; &lt;3</textarea>")
                .contains("name=\"note\">\n\nfirst\nsecond</textarea>")
                .contains("name=\"days\">\nMON</textarea>")
                .contains("name=\"days\">\nTUE</textarea>")
                .contains("name=\"_csrf\"")
                .doesNotContain("heron");
    }

    @Test
    void aProgramHearsItAsAProblem() throws Exception {
        MockHttpServletResponse r = ask(
                new MockHttpServletRequest("GET", "/api/v1/jobs"),
                new RuntimeException(new SQLNonTransientConnectionException("Socket error")));
        assertThat(r.getStatus()).isEqualTo(503);
        assertThat(r.getContentType()).startsWith("application/problem+json");
        assertThat(r.getContentAsString()).contains("database.away");
    }

    @Controller
    static class Storing {
        @PostMapping("/store")
        String store() {
            throw new CannotCreateTransactionException(
                    "begin failed",
                    new SQLNonTransientConnectionException(
                            "Socket error", "08000", 0, new EOFException("the socket was closed by the server")));
        }

        @PostMapping("/commit")
        String commit() {
            throw new CannotCreateTransactionException("commit failed", new SQLException("Connection is closed"));
        }
    }

    /** A connection to the database that ends is not a browser that went away: that would be answered with 200. */
    @ParameterizedTest
    @ValueSource(strings = {"/store", "/commit"})
    void aConnectionThatEndsIsNotTakenForABrowserThatWentAway(String path) throws Exception {
        DatabaseAway away = new DatabaseAway(() -> false);
        MockMvcBuilders.standaloneSetup(new Storing())
                .setHandlerExceptionResolvers(away.resolver(), new DefaultHandlerExceptionResolver())
                .addFilters(away)
                .build()
                .perform(MockMvcRequestBuilders.post(path).param("name", "Typed"))
                .andExpect(r -> {
                    assertThat(r.getResponse().getStatus()).isEqualTo(503);
                    assertThat(r.getResponse().getContentAsString()).contains("Typed");
                });
    }

    /** Nobody waits for a connection that is known not to come; what needs no database is served. */
    @Test
    void whileItIsKnownToBeAwayNothingIsTried() throws Exception {
        DatabaseAway away = new DatabaseAway(() -> true);
        MockHttpServletResponse page = new MockHttpServletResponse();
        away.doFilter(new MockHttpServletRequest("GET", "/jobs"), page, (q, r) -> {
            throw new AssertionError("asked");
        });
        assertThat(page.getStatus()).isEqualTo(503);
        MockHttpServletResponse style = new MockHttpServletResponse();
        away.doFilter(
                new MockHttpServletRequest("GET", "/css/page.css"), style, (q, r) -> r.setContentType("text/css"));
        assertThat(style.getStatus()).isEqualTo(200);
        assertThat(style.getContentType()).isEqualTo("text/css");
    }

    @ParameterizedTest
    @ValueSource(ints = {1969, 1021, 1026, 1030, 1114})
    void aServerInNeedIsToldTheSame(int code) throws Exception {
        var r = ask(
                new MockHttpServletRequest("GET", "/jobs"), new RuntimeException(new SQLException("x", "HY000", code)));
        assertThat(r.getStatus()).isEqualTo(503);
    }

    @Test
    void otherTroubleIsNotTakenForIt() {
        assertThatThrownBy(() -> ask(new MockHttpServletRequest("GET", "/"), new IllegalStateException("else")))
                .hasMessage("else");
        assertThatThrownBy(() -> ask(new MockHttpServletRequest("GET", "/"), new SQLException("a duplicate")))
                .hasRootCauseMessage("a duplicate");
    }
}
