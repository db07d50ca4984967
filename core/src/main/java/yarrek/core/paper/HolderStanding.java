package yarrek.core.paper;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import yarrek.core.time.Days;

/**
 * How somebody or something stands by the papers it holds. Of papers that are renewed by one another the best counts. Whether a
 * job needs them is not in it.
 *
 * @param state the most pressing; not known where no paper is on file
 * @param words of that state, as they are shown
 * @param reasons in words, the most pressing first; empty when every paper is in force
 */
public record HolderStanding(PaperState state, String words, List<String> reasons) {
    /**
     * A paper as far as its standing goes.
     *
     * @param series papers of one series renew one another
     * @param validTo last day, included; null when it has no end or its end is not known
     * @param actBy by when to renew it; null for none
     */
    public record Held(String series, String name, PaperState state, LocalDate validTo, LocalDate actBy) {
        private String why() {
            return switch (state) {
                case RUN_OUT -> name + (validTo == null ? " ran out" : " ran out on " + Days.show(validTo));
                case ACT_SOON -> name + ": act by " + (actBy == null ? "now" : Days.show(actBy));
                case GAP -> name + ": a gap";
                case NOT_YET_VALID -> name + " is not yet valid";
                case UNKNOWN -> name + ": its end is not known";
                case IN_FORCE -> name;
            };
        }
    }

    /** The most pressing first. */
    private static final List<PaperState> PRESSING = List.of(
            PaperState.RUN_OUT,
            PaperState.GAP,
            PaperState.UNKNOWN,
            PaperState.NOT_YET_VALID,
            PaperState.ACT_SOON,
            PaperState.IN_FORCE);

    /** Orders standings, the most pressing first. */
    public static final Comparator<HolderStanding> MOST_PRESSING =
            Comparator.comparingInt(s -> PRESSING.indexOf(s.state));

    public HolderStanding {
        reasons = List.copyOf(reasons);
    }

    /** The standing of whoever holds these. */
    public static HolderStanding of(List<Held> papers) {
        if (papers.isEmpty()) {
            return new HolderStanding(PaperState.UNKNOWN, "no paper on file", List.of());
        }
        Map<String, Held> best = new LinkedHashMap<>();
        papers.forEach(p -> best.merge(p.series(), p, (a, b) -> rank(b) > rank(a) ? b : a));
        List<Held> sorted = new ArrayList<>(best.values());
        sorted.sort(Comparator.comparingInt(HolderStanding::rank));
        PaperState worst = sorted.get(0).state();
        return new HolderStanding(
                worst,
                worst.words(),
                sorted.stream()
                        .filter(p -> p.state() != PaperState.IN_FORCE)
                        .map(Held::why)
                        .toList());
    }

    private static int rank(Held p) {
        return PRESSING.indexOf(p.state());
    }
}
