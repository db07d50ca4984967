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
    /** Instants and days as a program writes them, words of the vocabulary, and what a template was not meant to show. */
    private static final Pattern RAW = Pattern.compile("\\d{4}-\\d{2}-\\d{2}(?:T\\d{2}:\\d{2}\\S*)?"
            + "|\\b(?:greenFlashing|followMe|withObserver|overPeople|besidePilot|builtIn|pilotCertificate)\\b"
            + "|Optional[.\\[]");

    @Autowired
    JdbcClient jdbc;

    @Test
    void noPageShowsWhatOnlyAProgramReads() throws Exception {
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
        paths.add("/incidents/new");
        each(paths, "/fleet/builds/", "select id from build");
        each(paths, "/fleet/models/", "select id from aircraft_model");
        each(paths, "/history/paper/", "select id from paper");
        each(paths, "/history/approval/", "select id from approval");
        each(paths, "/jobs/", "select id from job");
        each(paths, "/flights/", "select id from flight");
        each(paths, "/incidents/", "select id from incident");
        each(paths, "/approvals/", "select id from approval");
        each(paths, "/history/job/", "select id from job");
        List<String> raw = new ArrayList<>();
        for (String path : paths) {
            var answer = manager.get(path);
            assertThat(answer.statusCode()).as(path).isEqualTo(200);
            String text = Jsoup.parse(answer.body()).text();
            Matcher m = RAW.matcher(text);
            while (m.find()) {
                raw.add(path + ": " + text.substring(Math.max(0, m.start() - 40), m.end()));
            }
        }
        assertThat(raw).isEmpty();
    }

    @Test
    void anAddressThatIsNoneIsToldToPeopleInAPage() throws Exception {
        Visitor manager = new Visitor(this::address);
        manager.signIn("manager", "manager-demo");
        var none = manager.get("/nosuch");
        assertThat(none.statusCode()).isEqualTo(404);
        assertThat(none.body()).contains("There is no such page");
        var part = manager.get("/papers/new");
        assertThat(part.statusCode()).isEqualTo(400);
        assertThat(part.body()).contains("This link is not whole").contains("holderKind");
        var old = manager.get("/jobs/xyz");
        assertThat(old.statusCode()).isEqualTo(404);
        assertThat(old.body()).contains("broken or old");
    }

    private void each(List<String> paths, String before, String ids) {
        jdbc.sql(ids + " order by id limit 12").query(String.class).list().forEach(id -> paths.add(before + id));
    }
}
