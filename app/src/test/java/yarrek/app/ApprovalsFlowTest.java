package yarrek.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import yarrek.app.approvals.Approvals;
import yarrek.app.approvals.Kinds;
import yarrek.app.chains.Applications;
import yarrek.app.chains.Chains;
import yarrek.app.chains.Covers;
import yarrek.app.chains.DeskClient;
import yarrek.app.jobs.Jobs;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.approval.ApprovalState;
import yarrek.core.approval.Cover;
import yarrek.core.approval.Terms;
import yarrek.core.approval.UnlockLife;
import yarrek.core.geo.Area;
import yarrek.core.geo.ShapeText;
import yarrek.core.rulebook.Verdict;
import yarrek.core.time.Days;

/** Requests from the chain to the desk and back, and what is made of what is granted; each test with a job of its own. */
class ApprovalsFlowTest extends OnJobs {
    @Autowired
    Covers covers;

    @Autowired
    Kinds kinds;

    @Autowired
    DeskClient desks;

    @Autowired
    Applications applications;

    @Autowired
    Rulebook rulebook;

    @Autowired
    yarrek.app.papers.Papers papers;

    private void fault(String desk, String fault) {
        jdbc.sql("replace into standin_fault (desk, fault) values (?, ?)")
                .params(desk, fault)
                .update();
    }

    private long inBook(String desk) {
        return jdbc.sql("select count(*) from standin_request where desk = ?")
                .param(desk)
                .query(Long.class)
                .single();
    }

    @AfterEach
    void wellAgain() {
        jdbc.sql("delete from standin_fault").update();
    }

    private ApprovalState state(UUID id) {
        return approvals.approval(id).state();
    }

    /** A height of 0 m is below every ceiling of the grid, so the desk decides at once. */
    @Test
    void whatStaysBelowTheGridIsGrantedAtOnceAndLiftsItsZone() {
        Jobs.JobView job = job(1, 0);
        UUID a = begun(job, "zoneEU@TAR-AD#1");
        assertThat(verdict(job.id(), "EU-ZONE-AUTH")).isEqualTo(Verdict.BREACHED);
        assertThat(desks.send(a, BY)).contains("granted");
        assertThat(state(a)).isEqualTo(ApprovalState.GRANTED);
        assertThat(approvals.approval(a).terms().aircraft())
                .isEqualTo(approvals.approval(a).request().aircraft());
        assertThat(verdict(job.id(), "EU-ZONE-AUTH")).isEqualTo(Verdict.MET);
        assertThat(ofTerms(job.id()))
                .hasSizeGreaterThanOrEqualTo(6)
                .contains("APPROVED-AREA", "APPROVED-HOURS", "APPROVED-AIRCRAFT", "APPROVED-PILOT");
        assertThat(rulebook.ownRules()).noneMatch(r -> job.id().equals(r.boundId()));
        assertThat(desks.ask(a)).contains("granted");
        assertThatThrownBy(() -> desks.send(a, BY)).hasMessageContaining("granted already; nothing was sent");
    }

    /** Rules that the terms of what is granted make for a job. */
    private List<String> ofTerms(UUID job) {
        return jobs.jobUnchecked(job).assessment().findings().stream()
                .map(f -> f.ruleId())
                .filter(id -> id.startsWith("APP-") || id.startsWith("APPROVED-"))
                .toList();
    }

    private Verdict verdict(UUID job, String rule) {
        return jobs.jobUnchecked(job).assessment().findings().stream()
                .filter(f -> f.ruleId().equals(rule))
                .findFirst()
                .orElseThrow()
                .verdict();
    }

    /** Far above the grid the desk queues the request and refuses it when its time has come. */
    @Test
    void whatIsQueuedIsDecidedLaterAndARefusalCanBeBegunAnew() {
        Jobs.JobView job = job(1, 119);
        UUID a = begun(job, "zoneEU@TAR-AD#1");
        assertThat(desks.send(a, BY)).contains("queued");
        assertThat(state(a)).isEqualTo(ApprovalState.SENT);
        jdbc.sql("update standin_request set decided_at = received_at, outcome = 'refused', reason = 'crewed traffic'")
                .update();
        desks.askAfterQueued();
        assertThat(state(a)).isEqualTo(ApprovalState.REFUSED);
        assertThat(approvals.approval(a).refusal()).isEqualTo("crewed traffic");
        approvals.move(a, ApprovalState.PREPARING, Instant.now(), "", BY);
        assertThat(state(a)).isEqualTo(ApprovalState.PREPARING);
    }

    @Test
    void aDeskThatIsDownLeavesTheRequestUnsentAndSayingSo() {
        UUID a = begun(job(1, 0), "zoneEU@TAR-AD#1");
        fault("air-desk", "DOWN");
        assertThat(desks.send(a, BY)).contains("503").contains("maintenance");
        assertThat(state(a)).isEqualTo(ApprovalState.PREPARING);
        fault("air-desk", "NONE");
        assertThat(desks.send(a, BY)).contains("granted");
        assertThat(desksCalls(a)).isEqualTo(1);
    }

    private long desksCalls(UUID a) {
        return jdbc.sql("select count(*) from desk_call where approval_id = ?")
                .param(a)
                .query(Long.class)
                .single();
    }

    /** Nobody can say whether it arrived; sent again, even after it was changed, it goes under its own key. */
    @Test
    void rubbishAndSilenceNeverMakeASecondRequest() {
        for (String fault : List.of("RUBBISH", "SLOW", "LOST", "LONG")) {
            UUID a = begun(job(1, 0), "zoneEU@TAR-AD#1");
            long before = inBook("air-desk");
            fault("air-desk", fault);
            assertThat(desks.send(a, BY)).contains("cannot make a second request");
            assertThat(state(a)).isEqualTo(ApprovalState.PREPARING);
            fault("air-desk", "NONE");
            Approvals.ApprovalView v = approvals.approval(a);
            Terms t = v.request();
            approvals.writeRequest(
                    a,
                    v.version(),
                    v.granter(),
                    new Terms(
                            t.from(),
                            t.to(),
                            t.area(),
                            1.0,
                            "1 m",
                            t.aircraft(),
                            t.pilots(),
                            t.purpose(),
                            t.quotes(),
                            Set.of()));
            assertThat(desks.send(a, BY)).contains("granted");
            assertThat(inBook("air-desk")).isEqualTo(before + 1);
            assertThat(approvals.approval(a).terms().ceilingM()).isEqualTo(t.ceilingM());
        }
    }

    /** A window that ends before it begins is none: it is granted, and what of it holds in time is not known. */
    @Test
    void timesTheWrongWayRoundAreNotTaken() {
        UUID a = begun(job(1, 0), "zoneEU@TAR-AD#1");
        fault("air-desk", "SWAPPED");
        assertThat(desks.send(a, BY)).contains("granted");
        assertThat(state(a)).isEqualTo(ApprovalState.GRANTED);
        assertThat(approvals.approval(a).terms().window()).isEmpty();
    }

    /** The correspondence is evidence: it holds what was sent, said and decided, not every question in between. */
    @Test
    void askingAfterItIsNoEvent() {
        UUID a = begun(job(1, 40), "zoneEU@TAR-AD#1");
        desks.send(a, BY);
        for (String fault : List.of("DOWN", "RUBBISH")) {
            fault("air-desk", fault);
            int before = approvals.letters(a).size();
            desks.ask(a);
            desks.ask(a);
            assertThat(approvals.letters(a)).as(fault).hasSize(before);
        }
    }

    @Test
    void aDeskThatAnswersASecondTimeAndDifferentlyChangesNothing() {
        UUID a = begun(job(1, 0), "zoneEU@TAR-AD#1");
        desks.send(a, BY);
        fault("air-desk", "TWICE");
        assertThat(desks.ask(a)).contains("What was decided first stands");
        assertThat(state(a)).isEqualTo(ApprovalState.GRANTED);
        assertThat(approvals.letters(a)).anyMatch(l -> l.text().contains("answered again, and differently"));
    }

    @Test
    void anUnlockGoesOutOnlyWhenItEqualsItsApprovalAndFitsAtTheDesk() {
        Jobs.JobView job = job(1, 0);
        UUID air = begun(job, "zoneEU@TAR-AD#1");
        UUID unlock = begun(job, "unlock#1");
        assertThatThrownBy(() -> desks.send(unlock, BY)).hasMessageContaining("it has to be granted first");
        desks.send(air, BY);
        assertThatThrownBy(() -> desks.send(unlock, BY))
                .hasMessageContaining(
                        "does not quote " + approvals.approval(air).reference());
        Approvals.ApprovalView u = approvals.approval(unlock);
        Terms t = u.request();
        Terms late = new Terms(
                t.from(),
                t.to().plusSeconds(86_400),
                t.area(),
                t.ceilingM(),
                t.ceilingAsWritten(),
                t.aircraft(),
                t.pilots(),
                t.purpose(),
                List.of(approvals.approval(air).reference()),
                Set.of());
        approvals.writeRequest(unlock, u.version(), u.granter(), late);
        assertThat(covers.compare(approvals.approval(unlock))
                        .values()
                        .iterator()
                        .next())
                .filteredOn(l -> l.state() == Cover.State.MISSING)
                .extracting(Cover.Line::field)
                .containsExactly("Dates and times");
        assertThatThrownBy(() -> desks.send(unlock, BY)).hasMessageContaining("Dates and times does not fit");
        Approvals.ApprovalView now = approvals.approval(unlock);
        approvals.writeRequest(
                unlock,
                now.version(),
                now.granter(),
                new Terms(
                        t.from(),
                        t.to(),
                        t.area(),
                        t.ceilingM(),
                        t.ceilingAsWritten(),
                        t.aircraft(),
                        t.pilots(),
                        t.purpose(),
                        late.quotes(),
                        Set.of()));
        assertThat(desks.send(unlock, BY)).contains("granted");
        assertThatThrownBy(() -> approvals.say(unlock, UnlockLife.Stage.SWITCHED_ON, false, "", BY))
                .hasMessageContaining("say first that it is granted");
        for (UnlockLife.Stage s : UnlockLife.Stage.values()) {
            approvals.say(unlock, s, false, "", BY);
        }
        assertThat(covers.unlock(approvals.approval(unlock), 6).life().isReady())
                .isTrue();
        approvals.unsay(unlock, UnlockLife.Stage.SWITCHED_ON, false, BY);
        assertThat(covers.unlock(approvals.approval(unlock), 6).life().next()).contains(UnlockLife.Stage.SWITCHED_ON);
        assertThat(covers.view(jobs.jobUnchecked(job.id())).rows())
                .allMatch(r -> r.shape().equals("full"));
    }

    /** Granted for a smaller ground and a lower ceiling than flown: breached in the plan, and drawn. */
    @Test
    void aGrantThatFallsShortIsBreachedInThePlanAndItsWithdrawalTakesTheRulesAway() {
        Jobs.JobView job = job(2, 60);
        UUID a = begun(job, "zoneEU@TAR-AD#1");
        Terms t = approvals.approval(a).request();
        Area ground = job.site().area();
        Terms less = new Terms(
                t.from(),
                t.to().minusSeconds(1800),
                ShapeText.write(Area.circle(ground.middle(), 100)),
                40.0,
                "40 m above ground",
                List.of("another serial"),
                t.pilots(),
                t.purpose(),
                t.quotes(),
                Set.of());
        approvals.grant(
                a,
                new Approvals.Grant(
                        "LESS-1",
                        less,
                        "Keep the gate shut.\n\nCall at noon.",
                        job.site().zone()),
                Instant.now(),
                BY);
        var findings = jobs.jobUnchecked(job.id()).assessment().findings().stream()
                .filter(f -> f.layer().equals("approval"))
                .toList();
        assertThat(findings.stream()
                        .filter(f -> f.verdict() == Verdict.BREACHED)
                        .map(f -> f.title()))
                .containsExactlyInAnyOrder(
                        "Ceiling of LESS-1",
                        "Inside the area approved",
                        "Within the hours approved",
                        "Aircraft named on the approvals");
        assertThat(findings).filteredOn(f -> f.verdict() == Verdict.DUTY).hasSize(2);
        assertThat(verdict(job.id(), "EU-ZONE-AUTH")).isEqualTo(Verdict.BREACHED);
        Covers.View v = covers.view(jobs.jobUnchecked(job.id()));
        assertThat(v.beyond()).hasSize(1);
        assertThat(v.rows().get(0).cells().get(0).findings())
                .filteredOn(f -> f.state() == Cover.State.MISSING)
                .extracting(Cover.Finding::dimension)
                .containsExactly(
                        Cover.Dimension.TIME, Cover.Dimension.AREA, Cover.Dimension.CEILING, Cover.Dimension.AIRCRAFT);
        approvals.move(a, ApprovalState.WITHDRAWN, Instant.now(), "job changed", BY);
        assertThat(ofTerms(job.id())).isEmpty();
    }

    /** Not said is not known, expressly left open makes no rule. */
    @Test
    void whatAPaperDoesNotSayIsNotKnownAndWhatItLeavesOpenAsksNothing() {
        Jobs.JobView job = job(1, 60);
        UUID a = begun(job, "zoneEU@TAR-AD#1");
        Terms t = approvals.approval(a).request();
        Terms vague = new Terms(
                t.from(),
                t.to(),
                t.area(),
                t.ceilingM(),
                "",
                List.of(),
                List.of(),
                t.purpose(),
                t.quotes(),
                Set.of(Cover.Dimension.PILOTS));
        approvals.grant(a, new Approvals.Grant("VAGUE-1", vague, "", job.site().zone()), Instant.now(), BY);
        var findings = jobs.jobUnchecked(job.id()).assessment().findings();
        assertThat(findings)
                .filteredOn(f -> f.title().equals("Aircraft named on the approvals"))
                .singleElement()
                .matches(f -> f.verdict() == Verdict.NOT_KNOWN);
        assertThat(findings).noneMatch(f -> f.title().equals("Pilot named on the approvals"));
        assertThat(verdict(job.id(), "EU-ZONE-AUTH")).isEqualTo(Verdict.BREACHED);
    }

    @Test
    void twoDocumentsOfOneNumberThatDifferAreRefused() {
        Jobs.JobView job = job(2, 60);
        UUID one = begun(job, "zoneEU@TAR-AD#1");
        UUID two = begun(job, "zoneEU@TAR-AD#2");
        approvals.grant(
                one,
                new Approvals.Grant(
                        "SAME-1",
                        approvals.approval(one).request(),
                        "",
                        job.site().zone()),
                Instant.now(),
                BY);
        assertThatThrownBy(() -> approvals.grant(
                        two,
                        new Approvals.Grant(
                                "SAME-1",
                                approvals.approval(two).request(),
                                "",
                                job.site().zone()),
                        Instant.now(),
                        BY))
                .hasMessageContaining("contradict each other");
        assertThat(state(two)).isEqualTo(ApprovalState.PREPARING);
    }

    /** Each day has its own request; the zone counts as lifted only when every day is covered. */
    @Test
    void aZoneIsLiftedOnlyWhenEveryDayIsCovered() {
        Jobs.JobView job = job(2, 60);
        for (String step : List.of("zoneEU@TAR-AD#1", "zoneEU@TAR-AD#2")) {
            assertThat(verdict(job.id(), "EU-ZONE-AUTH")).isEqualTo(Verdict.BREACHED);
            UUID a = begun(job, step);
            approvals.grant(
                    a,
                    new Approvals.Grant(
                            "D-" + step.charAt(step.length() - 1),
                            approvals.approval(a).request(),
                            "",
                            job.site().zone()),
                    Instant.now(),
                    BY);
        }
        assertThat(verdict(job.id(), "EU-ZONE-AUTH")).isEqualTo(Verdict.MET);
    }

    /** What was granted for a day says nothing of another: the job moved, the request is to be made again. */
    @Test
    void aGrantForAnotherDayIsNotTakenForThisOne() {
        Jobs.JobView job = job(1, 60);
        UUID a = begun(job, "zoneEU@TAR-AD#1");
        approvals.grant(
                a,
                new Approvals.Grant(
                        "DAY-1", approvals.approval(a).request(), "", job.site().zone()),
                Instant.now(),
                BY);
        assertThat(tower(job, Chains.WhatIf.NOTHING).planned().isDone()).isTrue();
        LocalDate later = job.draft().firstDay().plusDays(3);
        assertThat(tower(job, new Chains.WhatIf(later, null, null)).planned().isDone())
                .isFalse();
        jobs.save(job.id(), jobs.jobUnchecked(job.id()).version(), job.draft().on(later, later));
        Chains.Line moved = tower(jobs.jobUnchecked(job.id()), Chains.WhatIf.NOTHING);
        assertThat(moved.planned().isDone()).isFalse();
        assertThat(moved.note()).contains("the job now needs " + Days.show(later));
        assertThat(verdict(job.id(), "EU-ZONE-AUTH")).isEqualTo(Verdict.BREACHED);
    }

    private Chains.Line tower(Jobs.JobView job, Chains.WhatIf what) {
        return chains.view(job, what).lines().stream()
                .filter(l -> l.request().id().equals("zoneEU@TAR-AD#1"))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void statesAreGoneThroughInOrder() {
        UUID a = begun(job(1, 60), "zoneEU@TAR-AD#1");
        assertThatThrownBy(() -> approvals.move(a, ApprovalState.REFUSED, Instant.now(), "", BY))
                .hasMessageContaining("it is preparing, and cannot become refused from there");
        approvals.move(a, ApprovalState.SENT, Instant.now(), "", BY);
        approvals.move(a, ApprovalState.ASKED_BACK, Instant.now(), "how high?", BY);
        approvals.move(a, ApprovalState.SENT, Instant.now(), "60 m", BY);
        assertThat(approvals.letters(a))
                .extracting(Approvals.Letter::text)
                .contains("asked back: how high?", "sent: 60 m");
        assertThatThrownBy(() -> approvals.keep(a, Approvals.LetterKind.CALL, Instant.now(), " ", "", null, BY))
                .hasMessageContaining("neither a text nor a file");
    }

    @Test
    void aCircleOfKindsIsRefusedByName() {
        var park = kinds.row("landowner");
        var k = park.kind();
        var waits = new yarrek.core.approval.ApprovalKind(
                k.code(),
                k.title(),
                k.jurisdictions(),
                k.granter(),
                k.trigger(),
                k.needs(),
                Set.of("specificEU"),
                k.prepareHours(),
                k.copyHours(),
                k.usual(),
                k.worst(),
                0,
                0,
                k.fee(),
                k.quotes(),
                k.gives(),
                false,
                "",
                k.questions(),
                k.source());
        assertThatThrownBy(() -> kinds.save(waits, park.when(), true, park.version(), BY))
                .hasMessageContaining("operational authorisation")
                .hasMessageContaining("→ landowner's permission");
        assertThat(kinds.row("landowner").changed()).isFalse();
    }

    @Test
    void aKindOfOnesOwnStaysWhileRequestsAreOfIt() throws yarrek.formats.log.BrokenFileException {
        var like = kinds.row("harbourRoad").kind();
        var pier = new yarrek.core.approval.ApprovalKind(
                "pierPermit",
                "pier permit",
                Set.of(),
                "pier society",
                new yarrek.core.approval.ApprovalKind.Trigger(
                        Set.of(), Set.of(), false, yarrek.core.rulebook.Condition.never()),
                Set.of(),
                Set.of(),
                1,
                0.5,
                like.usual(),
                like.worst(),
                0,
                0,
                like.fee(),
                Set.of(),
                like.gives(),
                false,
                "",
                List.of(),
                "letter");
        kinds.save(pier, "{fact: purpose, isOneOf: [work]}", true, -1, BY);
        UUID a = begun(job(1, 60), "pierPermit#1");
        assertThatThrownBy(() -> kinds.revert("pierPermit")).hasMessageContaining("1 request is of this kind");
        kinds.save(
                pier,
                "{fact: purpose, isOneOf: [work]}",
                false,
                kinds.row("pierPermit").version(),
                BY);
        assertThat(kinds.kinds()).noneMatch(k -> k.code().equals("pierPermit"));
        assertThat(approvals.approval(a).title()).isEqualTo("pier permit");
        assertThat(applications.answers(approvals.approval(a))).isEmpty();
    }

    @Test
    void anApplicationIsAnsweredFromTheJobAndItsVersionsStayAsTheyAre() throws java.io.IOException {
        Jobs.JobView job = job(1, 60);
        UUID a = begun(job, "zoneEU@TAR-AD#1");
        assertThat(applications.answers(approvals.approval(a)))
                .filteredOn(Applications.Answer::isOpen)
                .extracting(x -> x.question().number())
                .containsExactly("1");
        applications.type(a, "1", "Quay 3, Port Tarrow", BY);
        UUID first = applications.make(a, yarrek.app.print.Pdf.Sheet.A4, BY);
        byte[] then = applications.made(first, true).content();
        applications.type(a, "1", "Quay 4, Port Tarrow", BY);
        UUID second = applications.make(a, yarrek.app.print.Pdf.Sheet.LETTER, BY);
        assertThat(applications.made(first, true).content()).isEqualTo(then);
        assertThat(applications.changes(second)).containsExactly("1 Operator and registration: changed");
        String text = new org.apache.pdfbox.text.PDFTextStripper().getText(org.apache.pdfbox.Loader.loadPDF(then));
        assertThat(text).contains("Quay 3, Port Tarrow").contains("Contents").contains("Annex A: map");
        assertThat(new String(
                        applications.made(second, false).content(), 0, 2, java.nio.charset.StandardCharsets.US_ASCII))
                .isEqualTo("PK");

        UUID other = begun(job(1, 90), "zoneEU@TAR-AD#1");
        applications.type(a, "2", "Ask for " + job.draft().name() + " at 60 m", BY);
        assertThat(applications.reuse(other, a, BY)).isEqualTo(2);
        assertThat(applications.answers(approvals.approval(other)))
                .filteredOn(x -> !x.reusedFrom().isEmpty())
                .allMatch(Applications.Answer::isOpen)
                .anyMatch(x -> x.toChange().contains(job.draft().name())
                        && x.toChange().contains("60 m"));
    }

    @Test
    void scansOfThePapersThatAnswersRestOnAreBoundIn() throws java.io.IOException {
        Jobs.JobView job = job(1, 60);
        UUID a = begun(job, "zoneEU@TAR-AD#1");
        int plain = pages(applications.make(a, yarrek.app.print.Pdf.Sheet.A4, BY));
        UUID certificate = papers.of(List.of(job.draft().pilotId())).stream()
                .filter(p -> p.kind().equals("pilotCertificate") && "A2".equals(p.level()))
                .findFirst()
                .orElseThrow()
                .id();
        java.io.ByteArrayOutputStream scan = new java.io.ByteArrayOutputStream();
        try (var d = new org.apache.pdfbox.pdmodel.PDDocument()) {
            d.addPage(new org.apache.pdfbox.pdmodel.PDPage());
            d.addPage(new org.apache.pdfbox.pdmodel.PDPage());
            d.save(scan);
        }
        UUID kept = papers.addScan(certificate, "certificate.pdf", scan.toByteArray(), BY);
        try {
            UUID version = applications.make(a, yarrek.app.print.Pdf.Sheet.A4, BY);
            // a page that names it, and its own two
            assertThat(pages(version)).isEqualTo(plain + 3);
            assertThat(new org.apache.pdfbox.text.PDFTextStripper()
                            .getText(org.apache.pdfbox.Loader.loadPDF(
                                    applications.made(version, true).content())))
                    .contains("Annex D: papers")
                    .contains("from page " + (plain + 2));
        } finally {
            papers.deleteScan(kept);
        }
    }

    private int pages(UUID version) throws java.io.IOException {
        try (var d = org.apache.pdfbox.Loader.loadPDF(
                applications.made(version, true).content())) {
            return d.getNumberOfPages();
        }
    }

    /** A zone with conditions is asked for at its own office; it is not among what no approval lifts. */
    @Test
    void aZoneThatIsAskedForIsNotCountedAmongWhatNothingLifts() {
        Jobs.JobView harbour = jobs.jobUnchecked(
                UUID.fromString(jdbc.sql("select id from job where name = 'Harbour wall, winter state'")
                        .query(String.class)
                        .single()));
        assertThat(verdict(harbour.id(), "EU-ZONE-COND")).isEqualTo(Verdict.BREACHED);
        assertThat(chains.byDate(harbour))
                .allMatch(c -> c.needs().stream().anyMatch(n -> n.contains("Port Tarrow harbour")))
                .allMatch(c -> c.nothingLifts().isEmpty());
    }

    @Test
    void otherAircraftAndDaysAreComparedByTheirPaper() {
        Jobs.JobView job = job(1, 60);
        assertThat(chains.byAircraft(job)).hasSizeGreaterThan(5).allMatch(c -> c.hours() >= 0 && c.days() >= 0);
        assertThat(chains.byDate(job))
                .hasSize(5)
                .extracting(Chains.Choice::name)
                .contains("as planned", "4 weeks later");
        // 200 days at the tower push the day back
        Chains.View slow = chains.view(job, new Chains.WhatIf(null, "zoneEU@TAR-AD#1", 200));
        assertThat(slow.plan().earliestJobDay())
                .isAfter(chains.view(job, Chains.WhatIf.NOTHING).plan().earliestJobDay());
        assertThat(slow.late()).isPositive();
    }
}
