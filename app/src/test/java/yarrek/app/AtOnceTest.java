package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.UUID;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import yarrek.app.chains.Chains;
import yarrek.app.crew.Crew;
import yarrek.app.jobs.Jobs;

/** Several who do the same at the same moment: one is first, the rest is told in words, and what they typed is still there. */
class AtOnceTest extends OnJobs {
    private static final int MANY = 6;
    private static int made;

    @Autowired
    Crew crew;

    private interface Asking {
        HttpResponse<String> ask(int n) throws Exception;
    }

    /** All at the same moment, each with what came back. */
    private static List<HttpResponse<String>> together(int many, Asking asking) throws Exception {
        ExecutorService threads = Executors.newFixedThreadPool(many);
        try {
            CountDownLatch start = new CountDownLatch(1);
            List<Future<HttpResponse<String>>> all = new ArrayList<>();
            for (int i = 0; i < many; i++) {
                int n = i;
                all.add(threads.submit(() -> {
                    start.await();
                    return asking.ask(n);
                }));
            }
            start.countDown();
            List<HttpResponse<String>> answers = new ArrayList<>();
            for (Future<HttpResponse<String>> f : all) {
                answers.add(f.get());
            }
            return answers;
        } finally {
            threads.shutdownNow();
        }
    }

    private static Map<Integer, Long> byStatus(List<HttpResponse<String>> answers) {
        return new TreeMap<>(
                answers.stream().collect(Collectors.groupingBy(HttpResponse::statusCode, Collectors.counting())));
    }

    private List<Visitor> managers(int many) throws Exception {
        List<Visitor> all = new ArrayList<>();
        for (int i = 0; i < many; i++) {
            Visitor v = new Visitor(this::address);
            v.signIn("manager", "manager-demo");
            all.add(v);
        }
        return all;
    }

    @Test
    void ofThoseWhoSaveAJobAtOnceOneIsFirstAndTheRestSeeBothVersions() throws Exception {
        Jobs.JobView job = job(1, 40);
        String path = "/jobs/" + job.id() + "/edit";
        List<Visitor> all = managers(MANY);
        Typed fields = all.get(0).form(path);
        List<HttpResponse<String>> answers = together(
                MANY, n -> all.get(n).post(path, fields.with("name", job.draft().name() + " by " + n)));
        assertThat(byStatus(answers)).isEqualTo(Map.of(200, MANY - 1L, 302, 1L));
        String stored = jobs.jobUnchecked(job.id()).draft().name();
        for (int n = 0; n < MANY; n++) {
            HttpResponse<String> a = answers.get(n);
            if (a.statusCode() == 200) {
                assertThat(a.body())
                        .contains("Somebody else saved this record while you had it open")
                        .as("what was typed")
                        .contains(job.draft().name() + " by " + n)
                        .as("what is stored")
                        .contains(stored);
            }
        }
    }

    /** A change of the build judges the job again while somebody saves it: neither is in the way of the other. */
    @Test
    void savingAJobAndWhatItRestsOnAtOnce() throws Exception {
        Jobs.JobView job = job(1, 40);
        String jobPath = "/jobs/" + job.id() + "/edit";
        String modelPath = "/fleet/aircraft/" + job.build().aircraft().id() + "/edit";
        List<Visitor> all = managers(2);
        for (int round = 0; round < 4; round++) {
            Typed plan = all.get(0).form(jobPath).with("name", job.draft().name() + " round " + round);
            Typed aircraft = all.get(1).form(modelPath);
            List<HttpResponse<String>> answers =
                    together(2, n -> all.get(n).post(n == 0 ? jobPath : modelPath, n == 0 ? plan : aircraft));
            assertThat(byStatus(answers)).isEqualTo(Map.of(302, 2L));
        }
    }

    @Test
    void ofThoseWhoEnterTheSamePersonAtOnceOneIsFirstAndTheRestIsTold() throws Exception {
        List<Visitor> all = managers(MANY);
        String name = "Twin " + ++made;
        List<HttpResponse<String>> answers =
                together(MANY, n -> all.get(n).post("/crew/new", Map.of("name", name, "phone", "+00 " + n)));
        assertThat(byStatus(answers)).isEqualTo(Map.of(200, MANY - 1L, 302, 1L));
        assertThat(answers.stream().filter(a -> a.statusCode() == 200))
                .allMatch(a -> a.body().contains("called " + name + " already")
                        && a.body().contains("+00 "));
        assertThat(crew.names().values().stream().filter(name::equals)).hasSize(1);
    }

    @Test
    void ofThoseWhoChangeOnePersonAtOnceOneIsFirst() throws Exception {
        UUID id = crew.save(null, -1, "Shared " + ++made, null, "");
        List<Visitor> all = managers(MANY);
        Typed fields = all.get(0).form("/crew/" + id + "/edit");
        List<HttpResponse<String>> answers =
                together(MANY, n -> all.get(n).post("/crew/" + id + "/edit", fields.with("phone", "+00 " + n)));
        assertThat(byStatus(answers)).isEqualTo(Map.of(200, MANY - 1L, 302, 1L));
    }

    /** The same button twice, however quickly: one step, and both come to see it. */
    @Test
    void theSameFormSentTwiceDoesOneThing() throws Exception {
        Visitor v = managers(1).get(0);
        String page = v.get("/crew/new").body();
        Matcher once = Pattern.compile("name=\"_once\" value=\"([^\"]+)\"").matcher(page.replaceAll("\\s+", " "));
        assertThat(once.find()).isTrue();
        Map<String, String> sent = Map.of("name", "Once " + ++made, "phone", "", "_once", once.group(1));
        List<HttpResponse<String>> answers = together(4, n -> v.post("/crew/new", sent));
        assertThat(byStatus(answers)).isEqualTo(Map.of(302, 4L));
        assertThat(answers.stream().map(Visitor::leadsTo).distinct()).hasSize(1);
        assertThat(crew.names().values().stream().filter(("Once " + made)::equals))
                .hasSize(1);
        Map<String, String> other = new LinkedHashMap<>(sent);
        other.put("name", "Once more " + made);
        assertThat(v.post("/crew/new", other).statusCode())
                .as("gone back and typed another")
                .isEqualTo(302);
        assertThat(crew.names().values()).contains("Once more " + made);
    }

    @Test
    void theSameFormIsTriedAgainAfterItWasRefused() throws Exception {
        Visitor v = managers(1).get(0);
        String once = UUID.randomUUID().toString();
        String name = "Refused " + ++made;
        UUID first = crew.save(null, -1, name, null, "");
        Map<String, String> sent = Map.of("name", name, "phone", "", "_once", once);
        assertThat(v.post("/crew/new", sent).body()).contains("already");
        crew.save(first, crew.person(first).version(), name + " the first", null, "");
        assertThat(v.post("/crew/new", sent).statusCode()).isEqualTo(302);
    }

    @Test
    void theSameStepBegunTwiceIsOneRequest() throws Exception {
        Jobs.JobView job = job(1, 40);
        String step =
                chains.view(job, Chains.WhatIf.NOTHING).lines().get(0).request().id();
        List<Visitor> all = managers(MANY);
        List<HttpResponse<String>> answers =
                together(MANY, n -> all.get(n).post("/jobs/" + job.id() + "/approvals", Map.of("step", step)));
        assertThat(byStatus(answers).keySet()).doesNotContain(500);
        assertThat(jdbc.sql("select count(*) from approval where job_id = ?")
                        .param(job.id())
                        .query(Integer.class)
                        .single())
                .isEqualTo(1);
    }

    @Test
    void ofThoseWhoEnterTheSameThingAtOnceOneIsFirst() throws Exception {
        List<Visitor> all = managers(MANY);
        String name = "Lamp " + ++made;
        List<HttpResponse<String>> answers = together(
                MANY,
                n -> all.get(n).post("/fleet/accessories/new", Map.of("name", name, "kind", "light", "mass", "12 g")));
        assertThat(byStatus(answers).keySet()).isSubsetOf(200, 302);
        assertThat(jdbc.sql("select count(*) from accessory where name = ?")
                        .param(name)
                        .query(Integer.class)
                        .single())
                .isEqualTo(1);
    }

    /** A button without a form to fill in: who comes too late is told so, and nothing is done twice. */
    @Test
    void aStateSetByManyAtOnceIsSetOnce() throws Exception {
        Jobs.JobView job = job(1, 40);
        List<Visitor> all = managers(MANY);
        List<HttpResponse<String>> answers = together(
                MANY,
                n -> all.get(n)
                        .post("/jobs/" + job.id() + "/state", Map.of("value", n % 2 == 0 ? "FLOWN" : "PLANNED")));
        assertThat(byStatus(answers).keySet()).isSubsetOf(302, 409);
        assertThat(answers.stream().filter(a -> a.statusCode() == 409))
                .allMatch(a -> a.body().contains("Somebody else was first"));
    }
}
