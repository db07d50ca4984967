package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import yarrek.app.approvals.Approvals;
import yarrek.app.approvals.Granters;
import yarrek.app.chains.Chains;
import yarrek.app.chains.ReceivedMail;
import yarrek.app.chains.Sending;
import yarrek.app.jobs.Jobs;
import yarrek.core.approval.ApprovalState;

/** However a request leaves, it passes the same gates; replies find it again. */
class SendingTest extends OnJobs {
    @Autowired
    Sending sending;

    private Visitor manager;
    private UUID request;
    private Jobs.JobView job;

    @BeforeEach
    void begun() throws Exception {
        manager = new Visitor(this::address);
        manager.signIn("manager", "manager-demo");
        job = job(1, 40);
        request = begun(
                job,
                chains.view(job, Chains.WhatIf.NOTHING).lines().stream()
                        .filter(l -> !sending.openQuestions(approvals.approval(
                                        begun(job, l.request().id())))
                                .isEmpty())
                        .findFirst()
                        .orElseThrow()
                        .request()
                        .id());
    }

    private ApprovalState state() {
        return approvals.approval(request).state();
    }

    private List<Approvals.Letter> letters() {
        return approvals.letters(request);
    }

    @Test
    void sentByHandItPassesTheGatesOrSaysWhyNot() throws Exception {
        String path = "/approvals/" + request;
        assertThat(manager.post(path + "/state", Map.of("to", "SENT")).statusCode())
                .isEqualTo(302);
        assertThat(manager.get(path).body()).contains("of the application").contains("say why");
        assertThat(state()).isEqualTo(ApprovalState.PREPARING);
        manager.post(path + "/state", Map.of("to", "SENT", "why", "handed over on paper"));
        assertThat(state()).isEqualTo(ApprovalState.SENT);
        assertThat(letters())
                .anyMatch(l -> l.text().contains("handed over on paper (although ")
                        && l.text().contains("open, number "));
    }

    @Test
    void theApplicationLeavesByMailAndTheReplyFindsIt() throws Exception {
        String path = "/approvals/" + request;
        Map<String, String> letter =
                Map.of("to", "desk@tarrow.invalid", "subject", "Levels at the edge", "text", "Please find attached.");
        manager.post(path + "/mail", letter);
        assertThat(manager.get(path).body())
                .as("what was typed is still there")
                .contains("desk@tarrow.invalid")
                .contains("Levels at the edge");
        assertThat(state()).isEqualTo(ApprovalState.PREPARING);
        Map<String, String> all = new java.util.HashMap<>(letter);
        all.put("why", "they take it without");
        manager.post(path + "/mail", all);
        assertThat(state()).isEqualTo(ApprovalState.SENT);
        byte[] raw = jdbc.sql(
                        "select raw from standin_mail where subject = 'Levels at the edge' order by id desc limit 1")
                .query((r, n) -> r.getBytes(1))
                .single();
        ReceivedMail sent = ReceivedMail.read(raw);
        assertThat(sent.text()).isEqualTo("Please find attached.");
        assertThat(sent.attachments()).extracting(ReceivedMail.Attachment::name).containsExactly("application-1.pdf");
        String id = new String(raw, StandardCharsets.UTF_8).replaceAll("(?s).*Message-ID: (<[^>]+>).*", "$1");
        assertThat(id).contains(request.toString());
        String reply = "From: desk@tarrow.invalid\r\nSubject: Re: Levels\r\nIn-Reply-To: " + id
                + "\r\nDate: Tue, 1 Dec 2026 09:00:00 +0000\r\n\r\nGranted below 40 m.\r\n";
        assertThat(manager.upload("/approvals/messages", "file", "reply.eml", reply.getBytes(StandardCharsets.UTF_8))
                        .statusCode())
                .isEqualTo(302);
        assertThat(letters())
                .anyMatch(l -> l.kind() == Approvals.LetterKind.LETTER_IN
                        && l.text().contains("Granted below 40 m.")
                        && "message.eml".equals(l.fileName()));
        assertThat(approvals
                        .lastTo(approvals.approval(request).granter(), "To: ")
                        .orElseThrow())
                .startsWith("To: desk@tarrow.invalid");
    }

    @Autowired
    Granters granters;

    /** Office hours and closing days move what has to be sent by when, and the address is the one on file. */
    @Test
    void whatIsOnFileOfTheGranterCounts() throws Exception {
        var a = approvals.approval(request);
        Map<String, String> typed = new java.util.HashMap<>(Map.of(
                "name",
                a.granter(),
                "email",
                "office@granter.example",
                "hours",
                "wed 09:00-11:00",
                "closed",
                "every day"));
        var wrong = manager.post("/approvals/granters/new", typed);
        assertThat(wrong.body()).contains("line 1").contains("is no holiday");
        typed.put("closed", "12-24 stocktaking");
        assertThat(manager.post("/approvals/granters/new", typed).statusCode()).isEqualTo(302);
        UUID id = granters.of(a.granter()).orElseThrow().id();
        try {
            assertThat(manager.get("/approvals/" + request).body())
                    .contains("wed 09:00-11:00")
                    .contains("value=\"office@granter.example\"");
            Chains.Line line = chains.view(job, Chains.WhatIf.NOTHING).lines().stream()
                    .filter(l -> l.onFile() != null && l.onFile().id().equals(request))
                    .findFirst()
                    .orElseThrow();
            assertThat(line.planned().latestSend().getDayOfWeek()).isEqualTo(DayOfWeek.WEDNESDAY);
            typed.put("name", a.granter().toUpperCase(java.util.Locale.ROOT));
            assertThat(manager.post("/approvals/granters/new", typed).body()).contains("is on file already");
        } finally {
            manager.post("/approvals/granters/" + id + "/remove", Map.of());
        }
        assertThat(granters.all()).noneMatch(g -> g.id().equals(id));
    }

    /** One button sends what nothing speaks against, and names the rest with what does. */
    @Test
    void allRequestsOfAJobGoToTheirDesksAtOnce() throws Exception {
        List<Chains.Line> desks = chains.view(job, Chains.WhatIf.NOTHING).lines().stream()
                .filter(l -> !l.request().needed().kind().desk().isEmpty())
                .toList();
        assertThat(desks).hasSizeGreaterThan(0);
        desks.forEach(l -> begun(job, l.request().id()));
        String chain = "/jobs/" + job.id() + "/chain";
        assertThat(manager.get(chain).body()).contains("to the desk").contains("why, if questions stay open");
        assertThat(manager.post("/jobs/" + job.id() + "/approvals/send", Map.of())
                        .statusCode())
                .isEqualTo(302);
        String told = org.jsoup.Jsoup.parse(manager.get(chain).body()).text();
        assertThat(told).contains("say why");
        for (Approvals.ApprovalView a : approvals.of(job.id())) {
            boolean toDesk = desks.stream()
                    .anyMatch(l -> l.request().needed().kind().code().equals(a.kind()));
            boolean clear =
                    sending.against(a).isEmpty() && sending.openQuestions(a).isEmpty();
            if (toDesk && a.state() == ApprovalState.PREPARING) {
                assertThat(clear).as(a.title()).isFalse();
                assertThat(told).contains("Not sent").contains(a.title());
            }
        }
    }

    @Test
    void questionsLeftOpenTakeAReasonForAllOfThem() throws Exception {
        Approvals.ApprovalView a = approvals.of(job.id()).stream()
                .filter(x -> x.kind().equals("zoneEU"))
                .findFirst()
                .orElseGet(() -> approvals.approval(begun(
                        job,
                        chains.view(job, Chains.WhatIf.NOTHING).lines().stream()
                                .filter(l -> l.request().needed().kind().code().equals("zoneEU"))
                                .findFirst()
                                .orElseThrow()
                                .request()
                                .id())));
        assertThat(sending.openQuestions(a)).isNotEmpty();
        manager.post("/jobs/" + job.id() + "/approvals/send", Map.of("why", "they know the site"));
        assertThat(approvals.approval(a.id()).state()).isNotEqualTo(ApprovalState.PREPARING);
        assertThat(approvals.letters(a.id())).anyMatch(l -> l.text().contains("they know the site"));
    }

    @Test
    void thePaperWorkOfAllJobsIsSharedOut() throws Exception {
        Chains.Load load = chains.load();
        assertThat(load.requests()).isGreaterThan(1);
        assertThat(load.slots().values()).allSatisfy(s -> assertThat(s.ready()).isAfterOrEqualTo(s.begins()));
        String page = manager.get("/approvals").body();
        assertThat(page).contains("Paper work to do").contains("Not ready on their last day");
        assertThat(manager.get("/approvals/holidays?in=GB&year=2027").body())
                .contains("in lieu of Boxing Day")
                .contains("Scotland");
    }

    private long mails() {
        return jdbc.sql("select count(*) from standin_mail").query(Long.class).single();
    }

    /** What goes out says what is asked for now, not what an earlier version said. */
    @Test
    void whatIsSentIsTheRequestAsItStands() throws Exception {
        String path = "/approvals/" + request;
        manager.post(path + "/application/versions", Map.of("sheet", "a4"));
        Typed form = manager.form(path + "/request");
        assertThat(manager.post(path + "/request", form.with("ceiling", "31 m")).statusCode())
                .isEqualTo(302);
        manager.post(
                path + "/mail",
                Map.of("to", "desk@tarrow.invalid", "subject", "As it stands", "text", "t", "why", "they take it"));
        byte[] raw = jdbc.sql("select raw from standin_mail where subject = 'As it stands'")
                .query((r, n) -> r.getBytes(1))
                .single();
        byte[] pdf = ReceivedMail.read(raw).attachments().get(0).content();
        try (var document = org.apache.pdfbox.Loader.loadPDF(pdf)) {
            assertThat(new org.apache.pdfbox.text.PDFTextStripper().getText(document))
                    .contains("31 m");
        }
    }

    /** Nothing leaves that could not be noted: one of the same letter went already. */
    @Test
    void oneOfTheLetterThatWentAlreadyKeepsTheWholeFromLeaving() throws Exception {
        UUID gone = approvals.besides(request, LocalDate.EPOCH).stream()
                .filter(x -> x.state() == ApprovalState.PREPARING)
                .map(Approvals.ApprovalView::id)
                .findFirst()
                .orElseThrow();
        approvals.move(gone, ApprovalState.SENT, Instant.now(), "", BY);
        long before = mails();
        manager.post(
                "/approvals/" + request + "/mail",
                Map.of("to", "a@b.invalid", "subject", "s", "text", "t", "why", "w", "also", gone.toString()));
        assertThat(manager.get("/approvals/" + request).body()).contains("is sent already; nothing was sent");
        assertThat(mails()).isEqualTo(before);
        assertThat(state()).isEqualTo(ApprovalState.PREPARING);
    }

    /** A message is kept as what it is said to be, with the words written beside it. */
    @Test
    void wordsBesideAMessageAreKept() throws Exception {
        String mail = "From: us@example.invalid\r\nSubject: went\r\n\r\nour words\r\n";
        manager.upload(
                "/approvals/" + request + "/letters",
                "file",
                "out.eml",
                mail.getBytes(StandardCharsets.UTF_8),
                Map.of("kind", "LETTER_OUT", "text", "as agreed by telephone"));
        assertThat(letters())
                .anyMatch(l -> l.kind() == Approvals.LetterKind.LETTER_OUT
                        && l.text().contains("our words")
                        && l.text().contains("as agreed by telephone"));
    }

    @Test
    void aMessageThatAnswersNothingIsNotKeptAnywhere() throws Exception {
        long before = jdbc.sql("select count(*) from approval_letter")
                .query(Long.class)
                .single();
        String stray = "From: a@example.invalid\r\nSubject: hello\r\n\r\nhello\r\n";
        manager.upload("/approvals/messages", "file", "stray.eml", stray.getBytes(StandardCharsets.UTF_8));
        assertThat(manager.get("/approvals").body()).contains("answers no message that went out from here");
        manager.upload("/approvals/messages", "file", "x.pdf", "%PDF-1.4".getBytes(StandardCharsets.UTF_8));
        assertThat(manager.get("/approvals").body()).contains("is no message as mail programs save it");
        assertThat(jdbc.sql("select count(*) from approval_letter")
                        .query(Long.class)
                        .single())
                .isEqualTo(before);
    }

    @Test
    void anAddressThatIsNoneIsSaid() throws Exception {
        manager.post(
                "/approvals/" + request + "/mail",
                Map.of("to", "the tower", "subject", "s", "text", "t", "why", "no questions asked"));
        assertThat(manager.get("/approvals/" + request).body()).contains("is no mail address");
        assertThat(state()).isEqualTo(ApprovalState.PREPARING);
    }
}
