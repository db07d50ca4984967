package yarrek.app.laying;

import java.time.Clock;
import java.time.LocalDate;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.UUID;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.jobs.Boards;
import yarrek.app.jobs.JobDraft;
import yarrek.app.jobs.JobJudging;
import yarrek.app.jobs.Jobs;
import yarrek.app.judging.FactSources;
import yarrek.app.judging.Judging;
import yarrek.app.judging.Wanted;
import yarrek.app.office.Office;
import yarrek.core.board.Layout;
import yarrek.core.judging.Neighbours;
import yarrek.core.rulebook.Finding;

/** Proposes who flies which of some jobs with what on which days, and keeps what is taken of it. */
@Service
class Laying {
    /** More jobs than these are laid out in several goes. */
    static final int MOST_JOBS = 100;

    private static final int MOST_PILOTS = 40;
    private static final int MOST_BUILDS = 60;

    /** So many ways are judged before any is proposed: some 5 ms each, several times that straight after a start. */
    private static final int BUDGET = 600;

    private final Jobs jobs;
    private final JobJudging jobJudging;
    private final Judging judging;
    private final Crew crew;
    private final Fleet fleet;
    private final Office office;
    private final Clock clock;

    Laying(Jobs jobs, JobJudging jobJudging, Judging judging, Crew crew, Fleet fleet, Office office, Clock clock) {
        this.jobs = jobs;
        this.jobJudging = jobJudging;
        this.judging = judging;
        this.crew = crew;
        this.fleet = fleet;
        this.office = office;
        this.clock = clock;
    }

    /** A line of a proposal with its job as it is and as it would be. */
    record Line(Jobs.Stored stored, Layout.Line line, JobDraft draft) {}

    /**
     * @param ways how many there are, of which {@code judged} were judged
     * @param left pilots and builds that were not considered, since there are too many
     */
    record Proposed(List<Line> lines, int judged, long ways, int left) {
        /** Jobs as they would be, for the board. */
        Map<UUID, Boards.Instead> instead() {
            return lines.stream()
                    .filter(l -> l.line().isIn())
                    .collect(Collectors.toMap(
                            l -> l.stored().id(),
                            l -> new Boards.Instead(l.draft(), l.line().judged().tally())));
        }
    }

    /**
     * @param ids of planned jobs, at most {@link #MOST_JOBS}
     * @param from first day on which a job may be, not before today; {@code through} the last
     * @throws IllegalArgumentException when there are too many, or none
     */
    @Transactional(readOnly = true)
    public Proposed propose(Collection<UUID> ids, LocalDate from, LocalDate through) {
        if (ids.isEmpty() || ids.size() > MOST_JOBS) {
            throw new IllegalArgumentException(
                    ids.isEmpty()
                            ? "choose the jobs to be laid out"
                            : "at most " + MOST_JOBS + " jobs are laid out together, got " + ids.size());
        }
        LocalDate today = LocalDate.now(clock.withZone(office.operator().zone()));
        LocalDate first = from.isBefore(today) ? today : from;
        Map<UUID, Jobs.Stored> stored = new LinkedHashMap<>();
        jobs.planned(ids).forEach(s -> stored.put(s.id(), s));
        List<UUID> everybody = crew.all().stream().map(Crew.PersonView::id).toList();
        List<UUID> everything = fleet.builds().stream().map(Fleet.BuildView::id).toList();
        List<UUID> pilots = everybody.stream().limit(MOST_PILOTS).toList();
        List<UUID> builds = everything.stream().limit(MOST_BUILDS).toList();
        Map<UUID, UUID> craft = fleet.aircraftByBuild(builds);
        UnaryOperator<UUID> as = u -> craft.getOrDefault(u, u);
        FactSources sources =
                sources(stored.values(), pilots, builds, first, through).without(stored.keySet());
        List<Layout.Job> wanted = stored.values().stream()
                .map(s -> new Layout.Job(s.id(), s.draft().name(), planned(s.draft()), stay(s.draft(), sources, as)))
                .toList();
        Layout.Proposal p = new Layout(
                        job -> field(stored.get(job.id()).draft(), pilots, builds, first, through),
                        bookings(sources, as),
                        (job, choices) -> judge(stored.get(job.id()), choices, sources),
                        new WaysSearch(),
                        sources.house().way(),
                        clock.instant(),
                        BUDGET)
                .propose(wanted);
        return new Proposed(
                p.lines().stream()
                        .map(l -> {
                            Jobs.Stored s = stored.get(l.job().id());
                            return new Line(s, l, l.isIn() ? draft(s.draft(), l.choice()) : s.draft());
                        })
                        .toList(),
                p.judged(),
                p.ways(),
                everybody.size() - pilots.size() + everything.size() - builds.size());
    }

    private static List<Layout.Booking> bookings(FactSources sources, UnaryOperator<UUID> as) {
        return sources.neighbours().stays(as).stream()
                .map(e -> new Layout.Booking(e.getKey(), e.getValue()))
                .toList();
    }

    private static Layout.Choice planned(JobDraft d) {
        return new Layout.Choice(d.pilotId(), d.buildId(), d.firstDay());
    }

    private static long length(JobDraft d) {
        return ChronoUnit.DAYS.between(d.firstDay(), d.lastDay()) + 1;
    }

    private static JobDraft draft(JobDraft d, Layout.Choice c) {
        return d.with(new JobDraft.Anew(
                null, c.first(), c.first().plusDays(length(d) - 1), null, null, null, c.pilot(), c.build()));
    }

    private static Function<Layout.Choice, Neighbours.Stay> stay(
            JobDraft d, FactSources sources, UnaryOperator<UUID> as) {
        var site = sources.sites().get(d.siteId());
        return c -> new Neighbours.Stay(site.place().launch(), draft(d, c).uses(site.zone())).as(as);
    }

    /** Whoever watches for a job does not fly it; its own pilot and build may be taken even where there are too many. */
    private static Layout.Field field(
            JobDraft d, List<UUID> pilots, List<UUID> builds, LocalDate from, LocalDate through) {
        return new Layout.Field(
                withOwn(pilots, d.pilotId())
                        .filter(p -> !p.equals(d.observerId()))
                        .toList(),
                withOwn(builds, d.buildId()).toList(),
                Layout.days(from, through, length(d)));
    }

    private static Stream<UUID> withOwn(List<UUID> all, UUID own) {
        return Stream.concat(Stream.ofNullable(own), all.stream()).distinct();
    }

    /** Everything that any of the ways rests on, read once. */
    private FactSources sources(
            Collection<Jobs.Stored> stored, List<UUID> pilots, List<UUID> builds, LocalDate from, LocalDate through) {
        List<Wanted> wanted = new ArrayList<>();
        for (Jobs.Stored s : stored) {
            JobDraft d = s.draft();
            Layout.Field f = field(d, pilots, builds, from, through);
            wanted.addAll(d.parts(s.id()));
            for (LocalDate day : f.days().isEmpty()
                    ? List.<LocalDate>of()
                    : List.of(f.days().get(0), f.days().get(f.days().size() - 1))) {
                for (int i = 0;
                        i < Math.max(f.pilots().size(), f.builds().size())
                                && f.builds().size() > 0;
                        i++) {
                    UUID pilot = f.pilots().isEmpty()
                            ? null
                            : f.pilots().get(i % f.pilots().size());
                    wanted.addAll(draft(
                                    d,
                                    new Layout.Choice(
                                            pilot, f.builds().get(i % f.builds().size()), day))
                            .parts(s.id()));
                }
            }
        }
        return jobJudging.load(wanted, List.of());
    }

    private List<Layout.Judged> judge(Jobs.Stored s, List<Layout.Choice> choices, FactSources sources) {
        return judging
                .look(
                        choices.stream()
                                .map(c -> draft(s.draft(), c).parts(s.id()))
                                .toList(),
                        sources)
                .stream()
                .map(j -> new Layout.Judged(
                        j.tally(),
                        j.together().findings().stream()
                                .filter(Finding::blocks)
                                .map(f -> f.rule().title() + " (" + f.verdict().words() + ")")
                                .distinct()
                                .toList()))
                .toList();
    }

    /** A line as it was proposed and is taken. */
    record Taken(UUID job, long version, Layout.Choice choice) {}

    /**
     * Plans jobs as proposed: all of them, or none.
     *
     * @return how many were not planned so already
     * @throws yarrek.app.forms.LostUpdateException when somebody else changed one meanwhile
     * @throws IllegalArgumentException when one cannot be stored so, or is no longer planned
     */
    @Transactional
    public int take(List<Taken> lines) {
        Map<UUID, Taken> byId = new HashMap<>();
        lines.forEach(t -> byId.put(t.job(), t));
        List<Jobs.Stored> now = jobs.planned(byId.keySet());
        if (now.size() < byId.size()) {
            throw new IllegalArgumentException("a job of the proposal is no longer planned");
        }
        List<Jobs.Stored> changed = now.stream()
                .filter(s ->
                        !Objects.equals(planned(s.draft()), byId.get(s.id()).choice()))
                .map(s -> new Jobs.Stored(
                        s.id(),
                        byId.get(s.id()).version(),
                        draft(s.draft(), byId.get(s.id()).choice())))
                .toList();
        jobs.saveAll(changed);
        return changed.size();
    }

    /** Names of everybody and every build, for the page. */
    @Transactional(readOnly = true)
    public Map<UUID, String> names(Set<UUID> builds) {
        Map<UUID, String> names = new HashMap<>(crew.names());
        names.putAll(fleet.buildNames(builds));
        return names;
    }
}
