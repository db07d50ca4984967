package yarrek.core.rulebook;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import yarrek.core.time.TimeWindow;

/** The kinds of paper on file, by code. */
public final class PaperKinds {
    public static final PaperKinds NONE = new PaperKinds(List.of());

    /** How the source of a fact begins that a paper settled. */
    private static final String ON_FILE = "on file: ";

    private final Map<String, PaperKind> byCode;

    public PaperKinds(List<PaperKind> kinds) {
        byCode = kinds.stream()
                .collect(Collectors.toMap(PaperKind::code, Function.identity(), (a, b) -> a, TreeMap::new));
    }

    /** Codes of those of which this is so, such as {@code PaperKind::alsoForJob}. */
    public Set<String> codes(Predicate<PaperKind> so) {
        return byCode.values().stream().filter(so).map(PaperKind::code).collect(Collectors.toUnmodifiableSet());
    }

    /** Whether it is so of a kind; a code that is not on file means nothing. */
    public boolean is(String code, Predicate<PaperKind> so) {
        PaperKind k = byCode.get(code);
        return k != null && so.test(k);
    }

    /** What is granted for one job counts as the holder's for that job, where the kind allows. */
    public List<PaperHeld> counted(List<PaperHeld> held) {
        return held.stream()
                .map(p -> p.role().equals("job") && is(p.kind(), PaperKind::alsoForJob)
                        ? p.of(byCode.get(p.kind()).holder())
                        : p)
                .toList();
    }

    /**
     * Puts what papers in force in all of the hours settle.
     *
     * @param held under the role of whom they are
     * @param holders names of whom it is known who they are, by role; nothing is settled of anybody else
     */
    public void settle(
            Facts.Builder b, List<PaperHeld> held, List<TimeWindow> windows, String law, Map<String, String> holders) {
        for (PaperKind k : byCode.values()) {
            String holder = holders.get(k.holder());
            if (k.settles().isEmpty() || holder == null) {
                continue;
            }
            List<PaperHeld> its = held.stream()
                    .filter(p ->
                            p.kind().equals(k.code()) && p.role().equals(k.holder()) && p.countsIn(Optional.of(law)))
                    .toList();
            String fact = k.settles().get();
            if (Vocabulary.define(fact).type() == FactType.WORDS) {
                words(b, fact, its, windows, k.words() + " of " + holder);
            } else {
                yesNo(b, k, its, windows, k.words() + " of " + holder);
            }
        }
    }

    /** The levels in force; several kinds may each add theirs, and one whose end is not known leaves the list open. */
    private static void words(
            Facts.Builder b, String fact, List<PaperHeld> its, List<TimeWindow> windows, String source) {
        List<PaperHeld> inForce =
                its.stream().filter(p -> covers(List.of(p), windows)).toList();
        if (!inForce.stream().allMatch(PaperHeld::isEndSettled)) {
            b.without(fact);
            return;
        }
        Set<String> levels =
                inForce.stream().flatMap(p -> p.level().stream()).collect(Collectors.toCollection(TreeSet::new));
        b.build()
                .get(fact)
                .filter(k -> k.source().startsWith(ON_FILE))
                .ifPresent(k -> levels.addAll(((FactValue.Words) k.value()).values()));
        b.with(fact, new FactValue.Words(levels), ON_FILE + source);
    }

    /**
     * Yes by any kind that is in force; no only where a kind says so and no other is in force. What is in force only if its
     * end, which is not known, has not come settles neither.
     */
    private static void yesNo(
            Facts.Builder b, PaperKind k, List<PaperHeld> its, List<TimeWindow> windows, String source) {
        String fact = k.settles().orElseThrow();
        boolean byAnother = b.build()
                .get(fact)
                .filter(known ->
                        known.source().startsWith(ON_FILE) && known.value().equals(new FactValue.YesNo(true)))
                .isPresent();
        if (covers(its.stream().filter(PaperHeld::isEndSettled).toList(), windows)) {
            b.yesNo(fact, true, ON_FILE + source);
        } else if (k.noneIsNo() && !byAnother && !covers(its, windows)) {
            b.yesNo(fact, false, its.isEmpty() ? "no " + source + " on file" : source + ", not in force for all of it");
        }
    }

    private static boolean covers(List<PaperHeld> held, List<TimeWindow> windows) {
        return !held.isEmpty()
                && windows.stream()
                        .allMatch(w -> held.stream().anyMatch(p -> p.validity().covers(w)));
    }

    /** Papers that a rule wants for the sake of a fact which they settle. */
    List<PaperWanted> wantedFor(Rule r) {
        List<PaperWanted> wanted = new ArrayList<>();
        for (PaperKind k : byCode.values()) {
            k.settles().filter(f -> r.requires().factNames().contains(f)).ifPresent(f -> {
                Set<String> levels = r.requires().contained(f);
                boolean words = Vocabulary.define(f).type() == FactType.WORDS;
                if (!words || !levels.isEmpty()) {
                    wanted.add(new PaperWanted(r.id(), k.holder(), k.code(), k.words(), levels));
                }
            });
        }
        return wanted;
    }
}
