package yarrek.app.page;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Map;
import java.util.Set;
import org.springframework.web.util.HtmlUtils;

/**
 * Says why a request came to nothing, with a page that needs neither database nor session. What was typed is on that page, to
 * be sent again with one button.
 *
 * @param code for programs, such as {@code database.away}
 */
record PlainPage(int status, String code, String title, String words) {
    /** Never written into a page. */
    private static final Set<String> SECRET = Set.of("password", "old", "code", "link");

    private static final String HEAD = """
            <!DOCTYPE html>
            <html lang="en">
              <head>
                <meta charset="utf-8" />
                <meta name="viewport" content="width=device-width, initial-scale=1" />
                <title>%1$s – Yarrek</title>
                <link rel="stylesheet" href="/css/page.css" />
              </head>
              <body>
                <main class="login">
                  <h1>%1$s</h1>
                  <p role="alert">%2$s</p>
            """;

    void answer(HttpServletRequest request, HttpServletResponse response) throws IOException {
        response.resetBuffer();
        response.setStatus(status);
        response.setHeader("Retry-After", "15");
        response.setHeader("Cache-Control", "no-store");
        if (request.getRequestURI().startsWith("/api/")) {
            response.setContentType("application/problem+json");
            response.getWriter()
                    .write("{\"type\":\"about:blank\",\"title\":\"" + title + "\",\"status\":" + status
                            + ",\"detail\":\"Whether what was sent is stored is not known. Ask again in a while.\""
                            + ",\"code\":\"" + code + "\"}");
            return;
        }
        response.setContentType("text/html;charset=UTF-8");
        response.getWriter().write(page(request));
    }

    private String page(HttpServletRequest request) {
        StringBuilder s = new StringBuilder(HEAD.formatted(escaped(title), escaped(words)));
        boolean upload =
                request.getContentType() != null && request.getContentType().startsWith("multipart/");
        if (upload) {
            s.append("<p>Go back, choose the file again, and send it once more.</p>");
        } else if (request.getMethod().equals("POST")) {
            s.append("<p>What you typed is still here. Send it again in a while; if it was stored after all, it is not")
                    .append(" stored twice.</p><form method=\"post\" action=\"")
                    .append(escaped(request.getRequestURI()
                            + (request.getQueryString() == null ? "" : "?" + request.getQueryString())))
                    .append("\">");
            for (Map.Entry<String, String[]> p : request.getParameterMap().entrySet()) {
                if (!SECRET.contains(p.getKey())) {
                    for (String value : p.getValue()) {
                        s.append("<textarea hidden name=\"")
                                .append(escaped(p.getKey()))
                                .append("\">\n")
                                .append(escaped(value))
                                .append("</textarea>");
                    }
                }
            }
            s.append("<button>Send it again</button></form>");
        } else {
            s.append("<p><a href=\"\">Try again</a></p>");
        }
        return s.append("</main></body></html>").toString();
    }

    private static String escaped(String s) {
        return HtmlUtils.htmlEscape(s, "UTF-8");
    }
}
