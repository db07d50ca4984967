package yarrek.core.judging;

import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Collectors;
import yarrek.core.approval.Cover;
import yarrek.core.approval.Terms;
import yarrek.core.approval.UnlockLife;
import yarrek.core.geo.Area;
import yarrek.core.rulebook.ApprovalHeld;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.PaperKind;
import yarrek.core.rulebook.Vocabulary;
import yarrek.core.time.TimeWindow;

/** What is granted for a job: what it lifts and settles, and how the hours, place, aircraft and pilot stand to its terms. */
public final class Granted {
    private final PlanInput in;
    private final Facts.Builder b;
    private final List<TimeWindow> windows;
    private final ZoneId zone;

    Granted(PlanInput in, Facts.Builder b) {
        this.in = in;
        this.b = b;
        this.windows = in.plan().windows();
        this.zone = in.place().zone();
    }

    /** A paper on file, and on which of the hours it counts. */
    private record OnFile(JobPaper paper, Set<String> lifts, List<TimeWindow> covers) {}

    /**
     * Puts the rules that approvals lift and the facts that they settle. A rule, zone or fact counts only when every hour is
     * covered by an approval that names it.
     *
     * @return numbers of what lifts each zone, by its id
     */
    Map<String, String> put() {
        List<OnFile> onFile = onFile();
        Set<String> names = new TreeSet<>();
        onFile.forEach(p -> names.addAll(p.lifts()));
        Map<String, String> byZone = new HashMap<>();
        Map<String, Set<String>> liftedBy = new TreeMap<>();
        for (String name : names) {
            List<OnFile> its =
                    onFile.stream().filter(p -> p.lifts().contains(name)).toList();
            boolean everyHour = !windows.isEmpty()
                    && windows.stream()
                            .allMatch(w -> its.stream().anyMatch(p -> p.covers().contains(w)));
            if (everyHour) {
                String numbers = its.stream()
                        .filter(p -> !p.covers().isEmpty())
                        .map(p -> p.paper().number())
                        .distinct()
                        .collect(Collectors.joining(", "));
                settle(
                        name,
                        its.stream()
                                .map(p -> p.paper().settles().get(name))
                                .filter(Objects::nonNull)
                                .findFirst(),
                        numbers);
                byZone.put(name, numbers);
                liftedBy.computeIfAbsent(numbers, k -> new HashSet<>()).add(name);
            }
        }
        liftedBy.forEach((numbers, ids) -> b.approval(new ApprovalHeld(numbers, ids)));
        terms();
        return byZone;
    }

    private List<OnFile> onFile() {
        Map<UUID, ApprovalOnFile> byPaper = in.requests().stream()
                .filter(a -> a.held() && a.paperId() != null)
                .collect(Collectors.toMap(ApprovalOnFile::paperId, Function.identity(), (first, second) -> second));
        List<OnFile> onFile = new ArrayList<>();
        Cover.Overhangs overhangs = new Cover.Overhangs();
        for (JobPaper p : in.jobPapers()) {
            ApprovalOnFile a = byPaper.get(p.id());
            Set<String> lifts = new HashSet<>(p.lifts());
            if (a != null && a.zoneId() != null) {
                lifts.add(a.zoneId()); // an id with a space in it cannot stand in the paper's own list
            }
            if (!lifts.isEmpty()) {
                List<TimeWindow> covers = a == null
                        ? windows.stream().filter(w -> p.validity().covers(w)).toList()
                        : covered(a, need(in, a.toQuote(in.requests())), overhangs);
                onFile.add(new OnFile(p, lifts, covers));
            }
        }
        return onFile;
    }

    /** The hours that what is granted covers in every dimension. */
    private List<TimeWindow> covered(ApprovalOnFile a, Cover.Need need, Cover.Overhangs overhangs) {
        Optional<Area> area = a.terms().drawnArea();
        return windows.stream()
                .filter(w -> a.terms().cover(a.reference(), need.in(w), area, overhangs, zone).stream()
                        .allMatch(f -> f.state() == Cover.State.COVERED))
                .toList();
    }

    /** Sets a fact where every request on file that would settle it is granted. */
    private void settle(String lift, Optional<FactValue> value, String numbers) {
        String fact = JobPaper.factOf(lift);
        boolean outstanding = in.requests().stream()
                .filter(a -> !a.held())
                .anyMatch(a ->
                        a.kind().map(k -> k.gives().facts().containsKey(fact)).orElse(false));
        if (value.isPresent() && !outstanding && Vocabulary.knows(fact)) {
            b.with(fact, value.get(), "approval " + numbers);
        }
    }

    /** A day of the plan as a paper has to cover it; its window is put in for each. */
    public static Cover.Need need(PlanInput in, Set<String> toQuote) {
        return new Cover.Need(
                in.plan().windows().get(0),
                in.place().area(),
                in.plan().greatestHeight(in.place()),
                in.craft().map(Craft::serial).orElse("no aircraft chosen yet"),
                in.pilot().map(p -> Set.of(p.name())).orElse(Set.of()),
                in.plan().purpose(),
                toQuote);
    }

    /** How the plan stands to the terms of what is held: area, hours, aircraft and pilot, the worst of all of them. */
    private void terms() {
        List<ApprovalOnFile> held = heldFor(in.requests(), windows, zone);
        hoursAndNames(
                b,
                held,
                windows,
                zone,
                in.craft().map(Craft::serial),
                in.pilot().map(Person::name));
        outside(held);
        List<ApprovalOnFile> authorisations = held.stream()
                .filter(a -> a.kind()
                        .map(k -> in.kinds().is(k.gives().paper(), PaperKind::alsoForJob))
                        .orElse(false))
                .toList();
        if (!authorisations.isEmpty()) {
            authorisation(authorisations);
        }
        unlock();
    }

    private void outside(List<ApprovalOnFile> held) {
        List<ApprovalOnFile> limiting = held.stream()
                .filter(a -> !a.terms().leavesOpen(Cover.Dimension.AREA))
                .toList();
        double outside = 0;
        boolean known = true;
        for (ApprovalOnFile a : limiting) {
            Optional<Area> area = a.terms().drawnArea();
            known &= area.isPresent();
            outside = Math.max(
                    outside,
                    area.flatMap(x -> Cover.overhang(in.place().area(), x))
                            .map(Cover.Overhang::metres)
                            .orElse(0.0));
        }
        if (!limiting.isEmpty() && (known || outside > 0)) {
            b.quantity("approval.outsideM", outside, 0, "site against " + ApprovalOnFile.numbers(limiting));
        }
    }

    private static final Map<Cover.Dimension, String> COVERED_FACTS = Map.of(
            Cover.Dimension.AREA, "authorisation.placeCovered",
            Cover.Dimension.TIME, "authorisation.timeCovered",
            Cover.Dimension.AIRCRAFT, "authorisation.aircraftCovered",
            Cover.Dimension.PILOTS, "authorisation.pilotCovered");

    /** What the authorisations of these days cover, dimension by dimension; what none of them says stays not known. */
    private void authorisation(List<ApprovalOnFile> held) {
        String numbers = ApprovalOnFile.numbers(held);
        Cover.Need need = need(in, Set.of());
        Cover.Overhangs overhangs = new Cover.Overhangs();
        COVERED_FACTS.forEach((dimension, fact) -> {
            List<Cover.State> days = windows.stream()
                    .map(w -> held.stream()
                            .map(a -> state(a, need.in(w), dimension, overhangs))
                            .min(Comparator.comparingInt(
                                    s -> s == Cover.State.COVERED ? 0 : s == Cover.State.NOT_KNOWN ? 1 : 2))
                            .orElse(Cover.State.NOT_KNOWN))
                    .toList();
            if (days.contains(Cover.State.MISSING)) {
                b.yesNo(fact, false, numbers);
            } else if (!days.isEmpty() && !days.contains(Cover.State.NOT_KNOWN)) {
                b.yesNo(fact, true, numbers);
            }
        });
        held.stream()
                .map(a -> a.terms().ceilingM())
                .filter(Objects::nonNull)
                .min(Double::compare)
                .ifPresent(m -> b.quantity("authorisation.heightM", m, 0, numbers));
        if (held.stream().allMatch(a -> a.terms().allows() != null)) {
            b.with(
                    "authorisation.allows",
                    new FactValue.Words(held.stream()
                            .flatMap(a -> a.terms().allows().stream())
                            .collect(Collectors.toSet())),
                    numbers);
        }
        Set<String> sections =
                held.stream().flatMap(a -> a.terms().sections().stream()).collect(Collectors.toSet());
        if (!sections.isEmpty()) {
            b.with("authorisation.sections", new FactValue.Words(sections), numbers);
        }
    }

    private Cover.State state(ApprovalOnFile a, Cover.Need need, Cover.Dimension dimension, Cover.Overhangs overhangs) {
        return a.terms().cover(a.reference(), need, a.terms().drawnArea(), overhangs, zone).stream()
                .filter(f -> f.dimension() == dimension)
                .map(Cover.Finding::state)
                .findFirst()
                .orElse(Cover.State.NOT_KNOWN);
    }

    /** How far the maker's unlock has come for these days: every stage said, or which is next. */
    private void unlock() {
        List<ApprovalOnFile> unlocks = in.requests().stream()
                .filter(a -> a.isUnlock() && a.isForAny(windows, zone))
                .toList();
        if (unlocks.isEmpty()) {
            return;
        }
        b.yesNo("unlock.needed", true, "an unlock is among the approvals of the job");
        Optional<UnlockLife.Stage> open = unlocks.stream()
                .map(a -> a.held() ? UnlockLife.of(a.unlocked(), true).next() : Optional.of(UnlockLife.Stage.GRANTED))
                .flatMap(Optional::stream)
                .findFirst();
        b.yesNo(
                "unlock.ready",
                open.isEmpty(),
                open.map(s -> "not yet " + s.words()).orElse("every stage said to be done"));
    }

    /** Those held that have terms and are for a day of these hours. */
    static List<ApprovalOnFile> heldFor(List<ApprovalOnFile> all, List<TimeWindow> windows, ZoneId zone) {
        return all.stream()
                .filter(a -> a.held() && !a.terms().equals(Terms.NONE) && a.isForAny(windows, zone))
                .toList();
    }

    /**
     * Puts how hours, aircraft and pilot stand to the terms of what is held; what a paper does not say stays not known unless
     * another paper is departed from already.
     *
     * @param serial of the aircraft; empty when it is not known which flies
     * @param pilot name; empty likewise
     */
    static void hoursAndNames(
            Facts.Builder b,
            List<ApprovalOnFile> held,
            List<TimeWindow> windows,
            ZoneId zone,
            Optional<String> serial,
            Optional<String> pilot) {
        if (held.isEmpty()) {
            return;
        }
        double minutes = 0;
        boolean known = true;
        for (ApprovalOnFile a : held) {
            List<TimeWindow> its =
                    windows.stream().filter(w -> a.isFor(w, zone)).toList();
            minutes = Math.max(
                    minutes,
                    its.stream()
                            .mapToDouble(w -> a.terms().outsideWeek(w, zone))
                            .sum());
            if (a.terms().leavesOpen(Cover.Dimension.TIME)) {
                continue;
            }
            Optional<TimeWindow> granted = a.terms().window();
            known &= granted.isPresent();
            minutes = Math.max(
                    minutes,
                    granted.map(g -> its.stream()
                                    .mapToDouble(w -> Cover.minutesOutside(w, g))
                                    .sum())
                            .orElse(0.0));
        }
        if (known || minutes > 0) {
            b.quantity("approval.outsideMinutes", minutes, 0, "the hours against " + ApprovalOnFile.numbers(held));
        }
        named(b, "approval.aircraftNamed", serial, held, Cover.Dimension.AIRCRAFT, Terms::aircraft);
        named(b, "approval.pilotNamed", pilot, held, Cover.Dimension.PILOTS, Terms::pilots);
    }

    private static void named(
            Facts.Builder b,
            String fact,
            Optional<String> who,
            List<ApprovalOnFile> held,
            Cover.Dimension dimension,
            Function<Terms, List<String>> list) {
        who.flatMap(name -> Cover.allName(
                        name,
                        held.stream()
                                .map(ApprovalOnFile::terms)
                                .filter(t -> !t.leavesOpen(dimension))
                                .map(list)
                                .toList()))
                .ifPresent(yes -> b.yesNo(fact, yes, who.get() + " against " + ApprovalOnFile.numbers(held)));
    }
}
