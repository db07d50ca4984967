package yarrek.app.whatif;

import java.time.Clock;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.function.BiFunction;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.airspace.Sites;
import yarrek.app.answers.Answers;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.jobs.JobDraft;
import yarrek.app.jobs.JobJudging;
import yarrek.app.jobs.Jobs;
import yarrek.app.judging.FactSources;
import yarrek.app.judging.Judging;
import yarrek.app.judging.Wanted;
import yarrek.app.office.Office;
import yarrek.app.page.NotFoundException;
import yarrek.app.rulebook.OwnRules;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.board.WhoAndWhat;
import yarrek.core.rulebook.Assessment;
import yarrek.core.rulebook.Comparison;
import yarrek.core.rulebook.FactDefinition;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.Finding;
import yarrek.core.rulebook.Remedies;
import yarrek.core.rulebook.Rule;
import yarrek.core.rulebook.RulePack;
import yarrek.core.rulebook.Tally;
import yarrek.core.rulebook.Together;
import yarrek.core.rulebook.Verdict;
import yarrek.core.rulebook.Vocabulary;
import yarrek.core.time.Days;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.rules.RulePackReader;

/** Looks ahead: judges what is not stored and says what would differ. Nothing here stores anything. */
@Service
public class Changes {
    /** Jobs judged for a preview of a rule of the house. */
    /** More builds than these are not tried in the place of the planned one. */
    private static final int MOST_BUILDS = 40;

    private static final int PREVIEW_DAYS = 365;

    /** Open jobs of which the difference is told one by one. */

    /**
     * One thing changed about a job; what is null stays as planned.
     *
     * @param shiftMinutes added to both hours
     * @param raiseM added to the greatest height
     */
    public record Tweak(
            UUID buildId,
            UUID pilotId,
            Integer shiftMinutes,
            Double raiseM,
            String jurisdiction,
            String fact,
            String value) {}

    /** What a tweak does: in words, and the findings that come, go and change. */
    public record Look(String words, Comparison comparison, Tally before, Tally after) {}

    /** Another pilot or build in the place of the planned one. */
    public record Swap(String what, UUID id, String name, Tally after, List<String> clears, List<String> opens) {}

    /**
     * The smallest thing that helps a job that is no-go.
     *
     * @param finding what stops it
     * @param fact a question of the plan that would be answered otherwise, with {@code value}; empty for another pilot or build
     * @param swap another pilot or build; null for a fact
     * @param after the job's standing with it
     */
    public record Cure(String finding, String words, String fact, String value, Swap swap, Tally after) {}

    /** Somebody who could fly a job, and what speaks against it. */
    public record Fit(UUID id, String name, boolean chosen, Tally tally, List<String> lacks) {}

    /** @param always what stands open whoever flies, and so is no reason for or against anybody */
    public record Who(List<String> always, List<Fit> fits) {}

    /** Everybody who could be pilot of a job: who has least against them first. */
    @Transactional(readOnly = true)
    public Who who(UUID jobId) {
        JobDraft d = jobs.jobUnchecked(jobId).draft();
        Map<Crew.PersonView, Assessment> tried = new LinkedHashMap<>();
        for (Crew.PersonView p : crew.all()) {
            JobDraft with = with(d, d.buildId(), p.id(), d.from(), d.to(), d.heightM());
            tried.put(p, look(jobId, with).together());
        }
        Set<String> always = new LinkedHashSet<>();
        tried.values().stream().findFirst().ifPresent(a -> always.addAll(open(a)));
        tried.values().forEach(a -> always.retainAll(open(a)));
        List<Fit> fits = tried.entrySet().stream()
                .map(e -> new Fit(
                        e.getKey().id(),
                        e.getKey().name(),
                        e.getKey().id().equals(d.pilotId()),
                        Tally.of(e.getValue().findings()),
                        open(e.getValue()).stream()
                                .filter(x -> !always.contains(x))
                                .toList()))
                .sorted(java.util.Comparator.comparing((Fit f) -> f.tally().isNoGo())
                        .thenComparing(f -> f.lacks().size())
                        .thenComparing(Fit::name))
                .toList();
        return new Who(List.copyOf(always), fits);
    }

    private static final int MOST_PILOTS = 20;
    private static final int MOST_COLUMNS = 30;

    /**
     * Every pair of a pilot and a build for a job, judged; the planned ones first where there are too many to show.
     *
     * @param left how many pilots and builds are not among them
     */
    public record Pairs(WhoAndWhat matrix, int left) {}

    @Transactional(readOnly = true)
    public Pairs pairs(UUID jobId) {
        JobDraft d = jobs.jobUnchecked(jobId).draft();
        List<WhoAndWhat.Person> people = crew.all().stream()
                .sorted(java.util.Comparator.comparing(p -> !p.id().equals(d.pilotId())))
                .limit(MOST_PILOTS)
                .map(p -> new WhoAndWhat.Person(p.id(), p.name()))
                .toList();
        List<Fleet.BuildView> all = fleet.builds();
        List<WhoAndWhat.Person> builds = all.stream()
                .sorted(java.util.Comparator.comparing((Fleet.BuildView b) -> !b.id().equals(d.buildId())))
                .limit(MOST_COLUMNS)
                .map(b -> new WhoAndWhat.Person(b.id(), b.aircraft().name() + ", " + b.name()))
                .toList();
        // what a flight says for itself would hide what the pair does
        JobDraft plain = d.flying(List.of());
        List<JobDraft> drafts = people.stream()
                .flatMap(p -> builds.stream().map(b -> with(plain, b.id(), p.id(), d.from(), d.to(), d.heightM())))
                .toList();
        List<Judging.Judged> judged = jobJudging.looks(jobId, drafts);
        List<WhoAndWhat.Judged> pairs = IntStream.range(0, drafts.size())
                .mapToObj(i -> new WhoAndWhat.Judged(
                        drafts.get(i).pilotId(),
                        drafts.get(i).buildId(),
                        judged.get(i).tally(),
                        open(judged.get(i).together())))
                .toList();
        return new Pairs(
                WhoAndWhat.of(people, builds, pairs, d.pilotId(), d.buildId()),
                crew.all().size() - people.size() + all.size() - builds.size());
    }

    private static List<String> open(Assessment a) {
        return a.findings().stream()
                .filter(f -> f.isOpen()
                        && f.verdict() != Verdict.CLOSE
                        && f.beatenBy().isEmpty())
                .map(f -> f.rule().title() + " (" + f.verdict().words() + ")")
                .toList();
    }

    /**
     * The smallest single change that takes a breach away from a job that is no-go; another pilot or build where no answer
     * makes it go, the first of them that does. Empty when nothing alone helps.
     */
    @Transactional(readOnly = true)
    public Optional<Cure> cure(UUID jobId) {
        JobDraft d = jobs.jobUnchecked(jobId).draft();
        Judging.Judged before = look(jobId, d);
        Judging.Part worst = before.worst();
        List<Cure> cures = new ArrayList<>();
        Remedies.of(worst.facts(), worst.packs(), worst.assessment()).forEach((f, changes) -> {
            if (f.verdict() == Verdict.BREACHED) {
                changes.stream()
                        .filter(c -> c.value().isPresent())
                        .findFirst()
                        .ifPresent(c -> cures.add(cure(jobId, d, f, c)));
            }
        });
        Optional<Cure> answer = cures.stream()
                .min(java.util.Comparator.comparing(
                        c -> c.after() == null || c.after().isNoGo()));
        return answer.filter(c -> c.after() != null && !c.after().isNoGo())
                .or(() -> swaps(jobId, d, before.together())
                        .filter(s -> !s.after().isNoGo())
                        .findFirst()
                        .map(s -> new Cure("", s.what() + " " + s.name(), "", "", s, s.after())))
                .or(() -> answer);
    }

    /** What a fact changed would do; without a standing where the plan does not say that fact itself. */
    private Cure cure(UUID jobId, JobDraft d, Finding f, Remedies.Change c) {
        FactValue value = c.value().orElseThrow();
        if (Vocabulary.define(c.fact()).plan().isEmpty()) {
            return new Cure(f.rule().title(), c.words(), "", "", null, null);
        }
        Tally after = look(jobId, d.saying(c.fact(), value)).tally();
        return new Cure(f.rule().title(), c.words(), c.fact(), value.text(), null, after);
    }

    /** Does what a cure proposes: another pilot, another build, or another answer to a question of the plan. */
    @Transactional
    public void change(UUID jobId, long version, UUID pilot, UUID build, String fact, String value) {
        JobDraft d = jobs.jobUnchecked(jobId).draft();
        JobDraft changed = d.with(new JobDraft.Anew(null, null, null, null, null, null, pilot, build));
        if (!fact.isEmpty()) {
            FactDefinition of = Vocabulary.define(fact);
            if (of.plan().isEmpty()) {
                throw new IllegalArgumentException(of.label() + " is not said in the plan of a job");
            }
            changed = changed.saying(fact, answers.read(of, value));
        }
        jobs.save(jobId, version, changed);
    }

    /** What would clear each finding. */
    public record Clean(Map<Finding, List<Remedies.Change>> remedies, List<Swap> swaps) {}

    /** What a rule would have said of past and planned jobs. */
    public record Preview(Rule rule, int jobs, int flagged, int notKnown, int notApplicable, List<String> examples) {}

    /** A rule that a version of a pack adds, drops or changes; either may be null. */
    public record RuleChange(Rule before, Rule after, List<String> what) {
        public Rule any() {
            return after == null ? before : after;
        }
    }

    /** An open job whose findings a version would change. */
    public record JobChange(UUID id, String name, LocalDate firstDay, Comparison comparison) {}

    /** What a version of a pack changes. */
    public record PackChange(Rulebook.Version version, Rulebook.Version current, List<RuleChange> rules, int same) {}

    /**
     * What a version changes in a stretch of the open jobs, which are gone through in the order of their days.
     *
     * @param judged how many of the stretch the version's law concerns
     * @param next where the next stretch begins; the number of open jobs when there is none
     */
    public record JobChanges(List<JobChange> jobs, int judged, int next, int open) {}

    /** Jobs in one stretch: a second or two of work. */
    private static final int STRETCH = 60;

    private static final int READ_AT_ONCE = 250;

    private final Jobs jobs;
    private final JobJudging jobJudging;
    private final Rulebook rulebook;
    private final Fleet fleet;
    private final Crew crew;
    private final Sites sites;
    private final Answers answers;
    private final Office office;
    private final Clock clock;

    Changes(
            Jobs jobs,
            JobJudging jobJudging,
            Rulebook rulebook,
            Fleet fleet,
            Crew crew,
            Sites sites,
            Answers answers,
            Office office,
            Clock clock) {
        this.jobs = jobs;
        this.jobJudging = jobJudging;
        this.rulebook = rulebook;
        this.fleet = fleet;
        this.crew = crew;
        this.sites = sites;
        this.answers = answers;
        this.office = office;
        this.clock = clock;
    }

    private Judging.Judged look(UUID jobId, JobDraft draft) {
        return jobJudging.look(jobId, draft, UnaryOperator.identity());
    }

    // --- one fact of a job
    // ---------------------------------------------------------------------------------------------

    /**
     * @throws IllegalArgumentException in words when a value is not understood or the height would be negative
     */
    @Transactional(readOnly = true)
    public Look whatIf(UUID jobId, Tweak t) {
        Jobs.JobView job = jobs.jobUnchecked(jobId);
        JobDraft draft = job.draft();
        List<String> words = new ArrayList<>();
        JobDraft changed = tweaked(draft, t, words);
        UnaryOperator<Facts> law = UnaryOperator.identity();
        if (t.jurisdiction() != null) {
            law = f -> f.toBuilder()
                    .word("jurisdiction", t.jurisdiction(), "changed to see")
                    .build();
            words.add("flown under the law of " + t.jurisdiction());
        }
        UnaryOperator<Facts> fact = UnaryOperator.identity();
        if (t.fact() != null) {
            FactDefinition d = Vocabulary.define(t.fact());
            FactValue v = answers.read(d, t.value());
            fact = f -> f.toBuilder().with(d.name(), v, "changed to see").build();
            words.add(d.label() + ": " + v.show(d));
        }
        Assessment before = look(jobId, draft).together();
        Assessment then =
                jobJudging.look(jobId, changed, law.andThen(fact)::apply).together();
        return new Look(
                words.isEmpty() ? "nothing changed" : String.join(", ", words),
                Comparison.of(before, then),
                Tally.of(before.findings()),
                Tally.of(then.findings()));
    }

    /** A job moved by days, or given to another pilot or build, and what that changes. */
    public record Moved(JobDraft draft, Look look) {}

    /**
     * What moving a job would do.
     *
     * @param days later; negative for earlier
     * @param pilot, build null for as planned
     */
    @Transactional(readOnly = true)
    public Moved moved(UUID jobId, int days, UUID pilot, UUID build) {
        JobDraft d = jobs.jobUnchecked(jobId).draft();
        JobDraft moved = d.with(new JobDraft.Anew(
                null, d.firstDay().plusDays(days), d.lastDay().plusDays(days), null, null, null, pilot, build));
        Judging.Judged before = look(jobId, d);
        Judging.Judged after = look(jobId, moved);
        List<String> words =
                new ArrayList<>(List.of(days == 0 ? "on its days" : Days.show(moved.firstDay(), moved.lastDay())));
        if (pilot != null) {
            words.add("flown by " + crew.person(pilot).name());
        }
        if (build != null) {
            Fleet.BuildView b = fleet.build(build);
            words.add("with " + b.aircraft().name() + ", " + b.name());
        }
        return new Moved(
                moved,
                new Look(
                        String.join(", ", words),
                        Comparison.of(before.together(), after.together()),
                        before.tally(),
                        after.tally()));
    }

    private JobDraft tweaked(JobDraft d, Tweak t, List<String> words) {
        UUID build = d.buildId();
        UUID pilot = d.pilotId();
        LocalTime from = d.from();
        LocalTime to = d.to();
        Double height = d.heightM();
        if (t.buildId() != null) {
            Fleet.BuildView b = fleet.build(t.buildId());
            build = b.id();
            words.add("with " + b.aircraft().name() + ", " + b.name() + " ("
                    + b.mass().mass() + ")");
        }
        if (t.pilotId() != null) {
            pilot = t.pilotId();
            words.add("flown by " + crew.person(pilot).name());
        }
        if (t.shiftMinutes() != null && t.shiftMinutes() != 0) {
            from = from.plusMinutes(t.shiftMinutes());
            to = to.plusMinutes(t.shiftMinutes());
            words.add("from " + from + " to " + to);
        }
        if (t.raiseM() != null && t.raiseM() != 0) {
            if (height == null) {
                throw new IllegalArgumentException("the job states no height that could be changed");
            }
            height = height + t.raiseM();
            if (height < 0) {
                throw new IllegalArgumentException("that would be below the ground: " + height + " m");
            }
            words.add("at " + yarrek.core.units.Finite.format(height) + " m "
                    + d.heightReference().words());
        }
        return with(d, build, pilot, from, to, height);
    }

    private static JobDraft with(JobDraft d, UUID build, UUID pilot, LocalTime from, LocalTime to, Double height) {
        return d.with(new JobDraft.Anew(null, null, null, from, to, height, pilot, build));
    }

    /** The smallest single changes that clear each open finding, and what other pilots and builds would do. */
    @Transactional(readOnly = true)
    public Clean clean(UUID jobId) {
        JobDraft d = jobs.jobUnchecked(jobId).draft();
        Judging.Judged before = look(jobId, d);
        Judging.Part worst = before.worst();
        return new Clean(
                Remedies.of(worst.facts(), worst.packs(), worst.assessment()),
                swaps(jobId, d, before.together())
                        .filter(s -> !s.clears().isEmpty()
                                && s.opens().size() <= s.clears().size())
                        .sorted(java.util.Comparator.comparingInt(
                                        (Swap s) -> s.after().law())
                                .thenComparing(
                                        s -> s.opens().size() - s.clears().size()))
                        .limit(6)
                        .toList());
    }

    /** Every other pilot, then other builds, each judged when it is asked for. */
    private Stream<Swap> swaps(UUID jobId, JobDraft d, Assessment before) {
        Stream<Swap> pilots = crew.all().stream()
                .filter(p -> !p.id().equals(d.pilotId()))
                .map(p -> swap(
                        "pilot",
                        p.id(),
                        p.name(),
                        before,
                        jobId,
                        with(d, d.buildId(), p.id(), d.from(), d.to(), d.heightM())));
        Stream<Swap> builds = fleet.builds().stream()
                .filter(b -> !b.id().equals(d.buildId()))
                .limit(MOST_BUILDS)
                .map(b -> swap(
                        "build",
                        b.id(),
                        b.aircraft().name() + ", " + b.name(),
                        before,
                        jobId,
                        with(d, b.id(), d.pilotId(), d.from(), d.to(), d.heightM())));
        return Stream.concat(pilots, builds);
    }

    private Swap swap(String what, UUID id, String name, Assessment before, UUID jobId, JobDraft d) {
        Assessment after = look(jobId, d).together();
        Comparison c = Comparison.of(before, after);
        return new Swap(
                what,
                id,
                name,
                Tally.of(after.findings()),
                c.vanish().stream().map(f -> f.rule().title()).toList(),
                c.appear().stream()
                        .map(f -> f.rule().title() + " (" + f.verdict().words() + ")")
                        .toList());
    }

    // --- a rule of the operator's own
    // ----------------------------------------------------------------------------------

    /**
     * What a rule would have said of the jobs of the last year and says of those planned.
     *
     * @throws BrokenFileException when the text is no rule
     */
    @Transactional(readOnly = true)
    public Preview preview(String yaml, OwnRules.BoundTo boundTo, UUID boundId) throws BrokenFileException {
        LocalDate today = today();
        Rule rule = RulePackReader.rule(yaml, Optional.empty(), today);
        int flagged = 0;
        int notKnown = 0;
        int notApplicable = 0;
        List<String> examples = new ArrayList<>();
        List<UUID> ids = jobJudging.idsBetween(today.minusDays(PREVIEW_DAYS), today.plusDays(PREVIEW_DAYS));
        for (int at = 0; at < ids.size(); at += READ_AT_ONCE) {
            JobJudging.Judged read = jobJudging.asTheyAre(ids.subList(at, Math.min(ids.size(), at + READ_AT_ONCE)));
            for (JobJudging.Done d : read.jobs()) {
                List<Wanted> parts = d.draft().parts(d.id());
                List<Finding> said = IntStream.range(0, parts.size())
                        .filter(n -> isBound(boundTo, boundId, read.sources().setting(parts.get(n))))
                        .mapToObj(n -> rule.judge(d.facts().get(n)))
                        .toList();
                Finding f = said.stream()
                        .min(java.util.Comparator.comparing(Finding::verdict))
                        .orElse(null);
                if (f == null || f.verdict() == Verdict.NOT_APPLICABLE) {
                    notApplicable++;
                } else if (f.verdict() == Verdict.BREACHED) {
                    flagged++;
                    if (examples.size() < 5) {
                        examples.add(d.draft().name() + ": " + f.says());
                    }
                } else if (f.verdict() == Verdict.NOT_KNOWN) {
                    notKnown++;
                }
            }
        }
        return new Preview(rule, ids.size(), flagged, notKnown, notApplicable, examples);
    }

    private static boolean isBound(OwnRules.BoundTo boundTo, UUID boundId, OwnRules.Setting s) {
        return switch (boundTo) {
            case EVERYTHING -> true;
            case SITE -> Objects.equals(boundId, s.siteId());
            case MODEL -> Objects.equals(boundId, s.modelId());
            case JOB -> Objects.equals(boundId, s.jobId());
        };
    }

    private LocalDate today() {
        return LocalDate.now(clock.withZone(office.operator().zone()));
    }

    // --- a version of the law
    // ------------------------------------------------------------------------------------------

    private Rulebook.Version version(UUID versionId) {
        return rulebook.versions().stream()
                .filter(v -> versionId.equals(v.id()))
                .findFirst()
                .orElseThrow(() -> new NotFoundException("version of a pack"));
    }

    /** What a version of a pack changes in rules, were it adopted from a day. */
    @Transactional(readOnly = true)
    public PackChange packChange(UUID versionId, LocalDate from) {
        Rulebook.Version version = version(versionId);
        Rulebook.Version current = rulebook.versions().stream()
                .filter(v -> v.pack().id().equals(version.pack().id())
                        && v.isAdopted()
                        && !versionId.equals(v.id())
                        && !v.adoptedFrom().isAfter(from))
                .max(java.util.Comparator.comparing(Rulebook.Version::adoptedFrom))
                .orElse(null);
        List<RuleChange> rules = ruleChanges(
                current == null ? List.of() : current.pack().rules(),
                version.pack().rules());
        int same = version.pack().rules().size()
                - (int) rules.stream().filter(r -> r.after() != null).count();
        return new PackChange(version, current, rules, same);
    }

    /** What a version of a pack changes in the findings of open jobs, were it adopted from a day, a stretch at a time. */
    @Transactional(readOnly = true)
    public JobChanges jobChanges(UUID versionId, LocalDate from, int at) {
        Rulebook.Version version = version(versionId);
        List<UUID> open = jobJudging.openIds();
        int next = Math.min(open.size(), Math.max(0, at) + STRETCH);
        List<JobChange> told = new ArrayList<>();
        int judged = 0;
        List<UUID> stretch = open.subList(Math.min(open.size(), Math.max(0, at)), next);
        if (stretch.isEmpty()) {
            return new JobChanges(told, 0, next, open.size());
        }
        JobJudging.Judged read = jobJudging.asTheyAre(stretch);
        for (JobJudging.Done d : read.jobs()) {
            JobDraft draft = d.draft();
            if (draft.firstDay().isBefore(from)
                    || !version.pack()
                            .holdsIn(read.sources().sites().get(draft.siteId()).jurisdiction())) {
                continue;
            }
            judged++;
            List<Wanted> parts = draft.parts(d.id());
            Comparison c = Comparison.of(
                    together(d, parts, read.sources(), (f, own) -> rulebook.packsFor(f, own)),
                    together(d, parts, read.sources(), (f, own) -> rulebook.packsWith(version.pack(), f, own)));
            if (!c.isEmpty()) {
                told.add(new JobChange(d.id(), draft.name(), draft.firstDay(), c));
            }
        }
        return new JobChanges(told, judged, next, open.size());
    }

    private static Assessment together(
            JobJudging.Done d,
            List<Wanted> parts,
            FactSources sources,
            BiFunction<Facts, OwnRules.Setting, List<RulePack>> packs) {
        List<Assessment> each = IntStream.range(0, parts.size())
                .mapToObj(n ->
                        Assessment.of(d.facts().get(n), packs.apply(d.facts().get(n), sources.setting(parts.get(n)))))
                .toList();
        return Together.of(each, which -> which.size() + " of " + parts.size());
    }

    private static List<RuleChange> ruleChanges(List<Rule> before, List<Rule> after) {
        Map<String, Rule> was = byVersion(before);
        Map<String, Rule> is = byVersion(after);
        return Stream.concat(is.keySet().stream(), was.keySet().stream())
                .distinct()
                .map(k -> new RuleChange(was.get(k), is.get(k), what(was.get(k), is.get(k))))
                .filter(c -> !c.what().isEmpty())
                .toList();
    }

    private static Map<String, Rule> byVersion(List<Rule> rules) {
        return rules.stream()
                .collect(
                        Collectors.toMap(r -> r.id() + " " + r.inForceFrom(), r -> r, (a, b) -> a, LinkedHashMap::new));
    }

    /** In which parts two versions of a rule differ, each in words. */
    private static List<String> what(Rule a, Rule b) {
        if (a == null) {
            return List.of("new: " + b.requires().words());
        }
        if (b == null) {
            return List.of("no longer there: " + a.requires().words());
        }
        List<String> what = new ArrayList<>();
        differ(what, "requires", a.requires().words(), b.requires().words());
        differ(what, "applies when", a.appliesWhen().when(), b.appliesWhen().when());
        differ(what, "except when", a.exceptWhen().when(), b.exceptWhen().when());
        differ(what, "weight", a.severity().toString(), b.severity().toString());
        differ(
                what,
                "last day",
                a.inForceThrough().toString(),
                b.inForceThrough().toString());
        differ(what, "title", a.title(), b.title());
        differ(what, "source", a.source().citation(), b.source().citation());
        differ(what, "question", a.source().ask(), b.source().ask());
        differ(what, "remedy", a.remedy(), b.remedy());
        return what;
    }

    private static void differ(List<String> into, String part, String a, String b) {
        if (!a.equals(b)) {
            into.add(part + ": “" + a + "” becomes “" + b + "”");
        }
    }

    // --- which category
    // ------------------------------------------------------------------------------------------------

    /** Facts of a build, a pilot, a place and a purpose, without a job: by the hours of today. */
    @Transactional(readOnly = true)
    public Facts factsFor(UUID buildId, UUID pilotId, UUID siteId, String purpose) {
        Sites.SiteView site = sites.site(siteId);
        LocalDate today = LocalDate.now(clock.withZone(site.zone()));
        return jobJudging.factsOf(
                null,
                JobDraft.sketch(
                        siteId, today, LocalTime.of(11, 0), LocalTime.of(13, 0), purpose, null, pilotId, buildId));
    }
}
