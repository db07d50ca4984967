package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.deque.html.axecore.playwright.AxeBuilder;
import com.microsoft.playwright.options.ColorScheme;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Every main page by the rules of accessibility, in light and in dark. */
class AccessiblePagesTest extends BrowserTest {
    /** What is wrong, each with the first place it stands at; all rules, or contrast alone. */
    private static final String WRONG = """
            async only => {
              const found = await axe.run({ resultTypes: ['violations'], ...(only ? { runOnly: only } : {}) });
              return found.violations.map(v => v.id + ' ' + v.nodes.map(n => n.html + ' ' + n.failureSummary)[0]).join('; ');
            }""";

    /** Rows, findings and marks like the ones before them say nothing new of contrast, labels or names. */
    private static final String PARTS_OF_EACH_SORT = """
            () => {
              const classes = e => [e, ...e.querySelectorAll('[class]')].map(p => p.getAttribute('class')).join(' ');
              const thin = (parts, sortOf) => {
                const seen = {};
                parts.forEach(p => {
                  const sort = p.tagName + sortOf(p);
                  seen[sort] = (seen[sort] || 0) + 1;
                  if (seen[sort] > 2) { p.remove(); }
                });
              };
              const rungs = [...document.querySelectorAll('details.rung')];
              thin(rungs, r => classes(r.querySelector('summary')));
              document.querySelectorAll('tbody, ul, ol, svg, svg g').forEach(whole => {
                if (whole.isConnected) { thin([...whole.children], classes); }
              });
            }""";

    @Test
    void everyPageIsAccessible() {
        use(ColorScheme.LIGHT, 1280, 800);
        context.addInitScript(AxeBuilder.getAxeScript());
        signIn("manager");
        String job = "/jobs/" + id("select id from job where name = 'Mast inspection'");
        String site = id("select id from site where name = 'Beacon mast'");
        String flight = "/flights/" + id("select id from flight where breached > 0 limit 1");
        String levels = "/jobs/" + id("select id from job where name = 'Field edge, drainage levels'");
        String approval = "/approvals/" + id("select id from approval where reference = 'TAR-2290'");
        String unlock = "/approvals/"
                + id("select a.id from approval a join job j on j.id = a.job_id where a.kind = 'unlock'"
                        + " and j.name = 'Field edge, drainage levels'");
        String build = "/fleet/builds/" + id("select b.id from build b limit 1");
        for (String path : List.of(
                "/",
                "/jobs",
                job,
                job + "/edit",
                "/airspace",
                "/airspace/sites/new",
                "/airspace/sites/" + site,
                "/airspace/sites/" + site + "/edit",
                "/airspace/sources",
                "/airspace/directory",
                "/airspace/own",
                job.replace("/jobs/", "/field/card/"),
                "/fleet",
                build,
                "/crew",
                "/packs",
                "/flights",
                "/flights/logbook?from=2020-01-01",
                flight,
                "/incidents",
                "/rulebook",
                "/rulebook/words",
                "/rulebook/touched?rule=EU-HEIGHT-120",
                "/rulebook/own",
                "/rulebook/own/new",
                "/rulebook/packs",
                "/rulebook/compare",
                "/rulebook/category",
                "/rulebook/states",
                "/papers",
                "/papers/kinds",
                "/labels",
                "/notices",
                "/notices/mailbox",
                "/exchange",
                "/work",
                job + "/documents",
                job + "/who",
                job + "/flights",
                job + "/shots",
                job + "/shots/edit",
                "/office/house",
                "/board",
                "/board/lay-out?job=" + job.replace("/jobs/", ""),
                levels + "/chain",
                levels + "/cover",
                "/approvals",
                approval,
                approval + "/application",
                approval + "/grant",
                unlock,
                "/approvals/kinds",
                "/approvals/kinds/unlock",
                "/approvals/settings",
                "/office/stand-ins",
                "/office/users/new",
                "/me",
                "/office")) {
            page.navigate(address(path));
            page.waitForFunction("() => !document.querySelector('.htmx-request')");
            page.evaluate(PARTS_OF_EACH_SORT);
            assertThat(page.evaluate(WRONG, null)).as(path).isEqualTo("");
            // what is no matter of colour is the same in both schemes
            page.evaluate("document.documentElement.setAttribute('data-bs-theme', 'dark')");
            assertThat(page.evaluate(WRONG, List.of("color-contrast")))
                    .as(path + " in the dark")
                    .isEqualTo("");
        }
    }
}
