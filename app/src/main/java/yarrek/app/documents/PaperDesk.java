package yarrek.app.documents;

import java.math.BigDecimal;
import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.jobs.JobPapers;
import yarrek.app.office.Office;
import yarrek.app.page.Viewer;
import yarrek.app.papers.Papers;
import yarrek.app.papers.PapersOnFile;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.paper.Costs;
import yarrek.core.paper.LiabilityCover;
import yarrek.core.paper.Paper;
import yarrek.core.paper.Purchase;
import yarrek.core.paper.Weave;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.PaperHeld;
import yarrek.core.rulebook.PaperWanted;
import yarrek.core.rulebook.Recency;
import yarrek.core.rulebook.RulePack;
import yarrek.core.time.Days;

/** Papers looked at together: over time, by cost, by cover, by recency, and from purchase to first flight. */
@Service
public class PaperDesk {
    /** A policy beside what the laws ask where it counts. */
    public record Cover(
            UUID paperId,
            String insures,
            String whose,
            String where,
            LocalDate from,
            LocalDate to,
            BigDecimal amount,
            String currency,
            Double amountSdr,
            String shape,
            String standing) {}

    /** When a pilot was last active in a way that counts under a law, and until when that holds. */
    public record RecencyRow(
            UUID personId,
            String name,
            String law,
            LocalDate last,
            LocalDate through,
            String shape,
            String standing,
            String least,
            String citation) {}

    /**
     * What is asked of the weave.
     *
     * @param more rows left out, the least pressing
     */
    public record WeaveView(
            String zoom,
            LocalDate from,
            LocalDate through,
            String law,
            String holder,
            String job,
            Weave weave,
            int more) {}

    private final Papers papers;
    private final JobPapers jobPapers;
    private final Crew crew;
    private final Fleet fleet;
    private final Office office;
    private final Rulebook rulebook;
    private final Clock clock;

    PaperDesk(
            Papers papers, JobPapers jobPapers, Crew crew, Fleet fleet, Office office, Rulebook rulebook, Clock clock) {
        this.papers = papers;
        this.jobPapers = jobPapers;
        this.crew = crew;
        this.fleet = fleet;
        this.office = office;
        this.rulebook = rulebook;
        this.clock = clock;
    }

    public LocalDate today() {
        return LocalDate.now(clock.withZone(office.operator().zone()));
    }

    /** Everybody and everything that holds papers: operator, crew, aircraft, in that order. */
    @Transactional(readOnly = true)
    public List<Papers.Holder> holders(Viewer viewer) {
        List<Papers.Holder> all = new ArrayList<>();
        if (!viewer.isPilot()) {
            all.add(new Papers.Holder("operator", office.operator().id(), "Operator"));
        }
        crew.all().stream()
                .filter(p -> viewer.maySee(p.id()))
                .forEach(p -> all.add(new Papers.Holder("pilot", p.id(), p.name())));
        if (!viewer.isPilot()) {
            fleet.aircraftNames().entrySet().stream()
                    .sorted(Map.Entry.comparingByValue())
                    .forEach(a -> all.add(new Papers.Holder("aircraft", a.getKey(), a.getValue())));
        }
        return all;
    }

    /** Days that a zoom shows. */
    static int days(String zoom) {
        return switch (zoom) {
            case "weeks" -> 21;
            case "year" -> 365;
            default -> 91;
        };
    }

    /**
     * How the weave is looked at.
     *
     * @param at first day; null for some days before today
     * @param law every one when empty
     * @param holder a kind of holder or an identity; every one when empty
     * @param job every one when empty
     */
    public record Asked(String zoom, LocalDate at, String law, String holder, String job) {}

    /**
     * All that the page of papers shows.
     *
     * @param papers the most pressing first
     * @param covers empty for a pilot
     * @param costs empty for a pilot
     */
    public record Page(
            WeaveView weave,
            List<Papers.Holder> holders,
            List<Papers.Row> papers,
            List<RecencyRow> recency,
            Optional<List<Cover>> covers,
            Optional<Costs> costs) {}

    /**
     * Everything of the page in one transaction, for its parts look at the same papers.
     *
     * @param year of the costs
     * @param most rows of the weave
     */
    @Transactional(readOnly = true)
    public Page page(Viewer viewer, Asked asked, int year, int most) {
        return new Page(
                weave(viewer, asked, most),
                holders(viewer),
                papers.all().stream()
                        .filter(p -> !viewer.isPilot() || p.holderId().equals(viewer.personId()))
                        .toList(),
                recency(viewer),
                viewer.isPilot() ? Optional.empty() : Optional.of(covers()),
                viewer.isPilot() ? Optional.empty() : Optional.of(costs(year)));
    }

    @Transactional(readOnly = true)
    public WeaveView weave(Viewer viewer, Asked asked, int most) {
        String zoom = asked.zoom();
        String law = asked.law();
        String holder = asked.holder();
        String job = asked.job();
        int days = days(zoom);
        LocalDate from = asked.at() == null ? today().minusDays(days / 7) : asked.at();
        LocalDate through = from.plusDays(days - 1);
        List<Weave.JobSpan> spans = viewer.isPilot()
                ? List.of()
                : jobPapers.spans(from, through).stream()
                        .filter(s -> job.isEmpty() || s.jobId().equals(job))
                        .toList();
        Set<String> needed = spans.stream()
                .flatMap(s -> s.needs().stream())
                .map(Weave.Need::holderId)
                .collect(Collectors.toSet());
        List<Papers.Holder> shown = holders(viewer).stream()
                .filter(h -> holder.isEmpty()
                        || h.kind().equals(holder)
                        || h.id().toString().equals(holder))
                .filter(h -> job.isEmpty() || needed.contains(h.id().toString()))
                .toList();
        Weave weave = papers.weave(
                from,
                through,
                office.operator().zone(),
                shown,
                spans,
                law.isEmpty() ? Optional.empty() : Optional.of(law));
        Set<Weave.Row> pressing = weave.rows().stream()
                .sorted(Comparator.comparing((Weave.Row r) -> r.knots().isEmpty())
                        .thenComparing(Weave.Row::worst, Comparator.reverseOrder()))
                .limit(most)
                .collect(Collectors.toCollection(() -> Collections.newSetFromMap(new IdentityHashMap<>())));
        List<Weave.Row> rows = weave.rows().stream().filter(pressing::contains).toList();
        return new WeaveView(
                zoom,
                from,
                through,
                law,
                holder,
                job,
                new Weave(weave.from(), weave.through(), weave.now(), rows, weave.strands(), weave.ticks()),
                weave.rows().size() - rows.size());
    }

    @Transactional(readOnly = true)
    public Costs costs(int year) {
        return Costs.of(year, papers.costs());
    }

    // --- insurance
    // -----------------------------------------------------------------------------------------------------

    @Transactional(readOnly = true)
    public List<Cover> covers() {
        Map<String, Papers.Kind> kinds = papers.kinds().stream()
                .filter(k -> k.insures() != null)
                .collect(Collectors.toMap(Papers.Kind::code, k -> k));
        Map<UUID, String> names = new HashMap<>(fleet.aircraftNames());
        names.put(office.operator().id(), "the operator");
        return papers.ofKinds(kinds.keySet()).stream()
                .map(p -> cover(p, kinds.get(p.kind()), names.getOrDefault(p.holderId(), p.holderKind())))
                .toList();
    }

    private Cover cover(Papers.Row p, Papers.Kind kind, String whose) {
        String shape = p.shape();
        String standing = p.state().words();
        if (kind.insures().equals("liability")) {
            Map<String, OptionalDouble> least = new LinkedHashMap<>();
            laws(p.jurisdiction()).forEach(law -> least.put(law, leastSdr(law)));
            LiabilityCover cover = LiabilityCover.of(
                    least, p.amountSdr() == null ? OptionalDouble.empty() : OptionalDouble.of(p.amountSdr()));
            if (!cover.below().isEmpty()) {
                shape = "notch";
            } else if (!cover.unknown().isEmpty() && shape.equals("full")) {
                shape = "dots";
            }
            standing += cover.says().isEmpty() ? "" : ", " + cover.says();
        }
        return new Cover(
                p.id(),
                kind.insures(),
                whose,
                p.jurisdiction().isBlank() ? "everywhere" : p.jurisdiction(),
                p.validFrom(),
                p.validTo(),
                p.amount(),
                p.amountCurrency(),
                p.amountSdr(),
                shape,
                standing);
    }

    private List<String> laws(String counts) {
        return counts.isBlank() ? List.copyOf(rulebook.jurisdictions().keySet()) : List.of(counts.split(" "));
    }

    /** The liability cover that a law asks for at least; empty where its pack states none. */
    private OptionalDouble leastSdr(String law) {
        return rulebook.packOf(law).stream()
                .flatMap(p -> p.rules().stream())
                .filter(r -> r.inForceOn(today()))
                .map(r -> r.requires().least("insurance.amountSdr"))
                .filter(OptionalDouble::isPresent)
                .mapToDouble(OptionalDouble::getAsDouble)
                .max();
    }

    // --- recency
    // -------------------------------------------------------------------------------------------------------

    /** Every pilot under every law that counts recency and under which they hold a paper. */
    @Transactional(readOnly = true)
    public List<RecencyRow> recency(Viewer viewer) {
        List<RecencyRow> rows = new ArrayList<>();
        LocalDate today = today();
        List<Crew.PersonView> people =
                crew.all().stream().filter(p -> viewer.maySee(p.id())).toList();
        PapersOnFile onFile =
                papers.onFile(people.stream().map(Crew.PersonView::id).toList());
        for (Crew.PersonView p : people) {
            List<PaperHeld> held = onFile.held(Map.of(p.id(), "pilot"));
            for (String law : rulebook.jurisdictions().keySet()) {
                Optional<Recency> recency = rulebook.recency(law);
                boolean active =
                        held.stream().anyMatch(x -> !x.jurisdiction().isBlank() && x.countsIn(Optional.of(law)));
                if (recency.isEmpty() || !active) {
                    continue;
                }
                rows.add(row(p, law, recency.get(), recency.get().last(held, Optional.of(law)), today));
            }
        }
        return rows;
    }

    private static RecencyRow row(Crew.PersonView p, String law, Recency r, Optional<LocalDate> last, LocalDate today) {
        LocalDate through = last.map(r::through).orElse(null);
        String shape = through == null
                ? "dots"
                : through.isBefore(today)
                        ? "notch"
                        : through.isBefore(today.plusDays(Paper.SOON_DAYS)) ? "cut" : "full";
        String standing = through == null
                ? "no qualifying activity on record"
                : through.isBefore(today) ? "lapsed" : "lapses after " + Days.show(through);
        return new RecencyRow(
                p.id(), p.name(), law, last.orElse(null), through, shape, standing, r.least(), r.citation());
    }

    // --- from purchase to first flight
    // -----------------------------------------------------------------------------------

    /** The papers that the home law asks for an aircraft before it flies for work, and from when it may. */
    @Transactional(readOnly = true)
    public Purchase purchase(UUID aircraftId) {
        Office.OperatorView operator = office.operator();
        Fleet.AircraftView a = fleet.aircraft(aircraftId);
        Facts.Builder b = Facts.builder(operator.zone())
                .word("jurisdiction", operator.jurisdiction(), "operator")
                .word("purpose", "work", "taken for granted");
        rulebook.packOf(operator.jurisdiction())
                .flatMap(RulePack::category)
                .ifPresent(c -> b.word("category", c, "taken for granted"));
        List<Fleet.BuildView> builds = fleet.buildsOf(aircraftId);
        if (builds.isEmpty()) {
            a.craft(List.of()).describe(b);
        } else {
            builds.get(0).built().describe(b, "build " + builds.get(0).name());
        }
        Facts facts = b.build();
        Map<String, Purchase.Duty> duties = new LinkedHashMap<>();
        LocalDate today = today();
        List<PaperWanted> wanted = rulebook.packOf(operator.jurisdiction())
                .map(p -> PaperWanted.certainly(p, papers.meanings(), facts, today))
                .orElse(List.of());
        for (PaperWanted w : wanted) {
            UUID holder = w.role().equals("operator") ? operator.id() : w.role().equals("aircraft") ? aircraftId : null;
            if (holder != null) {
                duties.putIfAbsent(w.kind(), duty(w.kindName() + " of the " + w.role(), w.kind(), holder));
            }
        }
        return Purchase.of(Optional.ofNullable(a.boughtOn()), today, operator.zone(), List.copyOf(duties.values()));
    }

    private Purchase.Duty duty(String words, String kind, UUID holder) {
        return new Purchase.Duty(
                words,
                papers.papersOf(holder).stream()
                        .filter(p -> p.kind().equals(kind))
                        .toList());
    }
}
