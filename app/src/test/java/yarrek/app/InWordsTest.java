package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jsoup.Jsoup;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.simple.JdbcClient;

/** Pages speak to people: no instant as a program writes it stands on one. */
class InWordsTest extends RunningApp {
    private static final Pattern INSTANT = Pattern.compile("\\d{4}-\\d{2}-\\d{2}T\\d{2}:\\d{2}\\S*");

    @Autowired
    JdbcClient jdbc;

    @Test
    void noPageShowsAnInstantAsAProgramWritesIt() throws Exception {
        Visitor manager = new Visitor(this::address);
        manager.signIn("manager", "manager-demo");
        List<String> paths = new ArrayList<>(List.of(
                "/",
                "/jobs",
                "/airspace",
                "/airspace/sources",
                "/airspace/directory",
                "/fleet",
                "/packs",
                "/crew",
                "/papers",
                "/flights",
                "/incidents",
                "/rulebook",
                "/office",
                "/me",
                "/work",
                "/approvals",
                "/approvals/kinds",
                "/approvals/granters",
                "/notices/mailbox",
                "/bin",
                "/exchange"));
        each(paths, "/jobs/", "select id from job");
        each(paths, "/flights/", "select id from flight");
        each(paths, "/incidents/", "select id from incident");
        each(paths, "/approvals/", "select id from approval");
        each(paths, "/history/job/", "select id from job");
        List<String> raw = new ArrayList<>();
        for (String path : paths) {
            var answer = manager.get(path);
            assertThat(answer.statusCode()).as(path).isEqualTo(200);
            Matcher m = INSTANT.matcher(Jsoup.parse(answer.body()).text());
            while (m.find()) {
                raw.add(path + ": " + m.group());
            }
        }
        assertThat(raw).isEmpty();
    }

    private void each(List<String> paths, String before, String ids) {
        jdbc.sql(ids + " order by id limit 12").query(String.class).list().forEach(id -> paths.add(before + id));
    }
}
