package yarrek.core.judging;

import java.util.ArrayList;
import java.util.Collections;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.stream.Collectors;

/**
 * The shots of a job in their order.
 *
 * @param all at most {@link #MOST}
 */
public record Shots(List<Shot> all) {
    /** More are planned as several jobs. */
    public static final int MOST = 100;

    /** Fewer than these may well be alike. */
    private static final int FEW = 3;

    private static final double ROUNDING = 1e-9;

    public Shots {
        all = List.copyOf(all);
    }

    /** Minutes of all of them; empty when one's are not said, or there are none. */
    public OptionalDouble minutes() {
        return all.isEmpty() || all.stream().anyMatch(s -> s.minutes() == null)
                ? OptionalDouble.empty()
                : OptionalDouble.of(all.stream().mapToDouble(Shot::minutes).sum());
    }

    /** What the list lacks of what lets a film be cut: empty where it has some of each, or is too short to tell. */
    public Optional<String> sameness() {
        if (all.size() < FEW) {
            return Optional.empty();
        }
        Set<Shot.Kind> seen = all.stream()
                .map(Shot::kind)
                .filter(Objects::nonNull)
                .collect(Collectors.toCollection(() -> EnumSet.noneOf(Shot.Kind.class)));
        if (seen.isEmpty()) {
            return Optional.of("no shot says how it is seen");
        }
        if (seen.size() == 1) {
            return Optional.of("all are " + seen.iterator().next().words() + " shots");
        }
        Set<Shot.Kind> missing = EnumSet.of(Shot.Kind.WIDE, Shot.Kind.LOW, Shot.Kind.REVEAL, Shot.Kind.DETAIL);
        missing.removeAll(seen);
        return missing.isEmpty()
                ? Optional.empty()
                : Optional.of(
                        "none is " + missing.stream().map(Shot.Kind::words).collect(Collectors.joining(", or ")));
    }

    /**
     * What there is to film them with. Minutes.
     *
     * @param slot from arriving to having left
     * @param endurance of a full pack in today's air
     * @param reserve share of it kept for landing, 0 to 1
     * @param transit to the first shot and back, of each pack
     * @param turnRound from one pack to the next
     */
    public record Means(
            double slot,
            double setUp,
            double packUp,
            double endurance,
            double reserve,
            double transit,
            double turnRound,
            int packs) {
        /** Minutes of a pack that can be filmed with; 0 when there are none. */
        public double usable() {
            return Math.max(0, endurance * (1 - reserve) - transit);
        }

        private Means with(double anotherSlot, double anotherTurnRound, int anotherPacks) {
            return new Means(anotherSlot, setUp, packUp, endurance, reserve, transit, anotherTurnRound, anotherPacks);
        }
    }

    /**
     * How far one gets.
     *
     * @param airborne minutes filmed
     * @param endsAt minutes after arriving, packed up
     * @param lostToSwaps minutes spent on changes of pack
     */
    public record Walk(
            int swaps,
            int packsUsed,
            double airborne,
            double endsAt,
            List<Shot> done,
            List<Shot> lost,
            double lostToSwaps) {}

    /**
     * Takes the shots in their order. A shot is never split: one that the pack in use has no minutes left for is begun with the
     * next, and one that would not end within the slot is left out and the next one tried.
     *
     * @throws IllegalArgumentException when the minutes of a shot are not said
     */
    public Walk walk(Means m) {
        double at = m.setUp();
        double left = m.packs() > 0 ? m.usable() : 0;
        int swaps = 0;
        double airborne = 0;
        List<Shot> done = new ArrayList<>();
        List<Shot> lost = new ArrayList<>();
        for (Shot s : all) {
            if (s.minutes() == null) {
                throw new IllegalArgumentException("the minutes of “" + s.name() + "” are not said");
            }
            boolean swap = s.minutes() > left + ROUNDING;
            boolean pack = !swap || (s.minutes() <= m.usable() + ROUNDING && swaps + 1 < m.packs());
            double begins = at + (swap ? m.turnRound() : 0);
            if (!pack || begins + s.minutes() + m.packUp() > m.slot() + ROUNDING) {
                lost.add(s);
                continue;
            }
            if (swap) {
                swaps++;
                left = m.usable();
            }
            at = begins + s.minutes();
            left -= s.minutes();
            airborne += s.minutes();
            done.add(s);
        }
        return new Walk(
                swaps,
                done.isEmpty() ? 0 : swaps + 1,
                airborne,
                at + m.packUp(),
                List.copyOf(done),
                List.copyOf(lost),
                swaps * m.turnRound());
    }

    /**
     * For each shot that is lost, the single changes that would each save it.
     *
     * @param reconfirm minutes of the turn-round that an unlock takes; 0 for none
     */
    public Map<Shot, List<String>> saving(Means m, double reconfirm) {
        Map<Shot, List<String>> saving = new LinkedHashMap<>();
        Walk now = walk(m);
        Walk morePacks = walk(m.with(m.slot(), m.turnRound(), m.packs() + 1));
        Walk noUnlock = walk(m.with(m.slot(), m.turnRound() - reconfirm, m.packs()));
        Walk longer = walk(m.with(Double.MAX_VALUE, m.turnRound(), m.packs()));
        for (Shot s : now.lost()) {
            List<String> by = new ArrayList<>();
            if (saves(s, now, morePacks)) {
                by.add("one more pack");
            }
            if (reconfirm > 0 && saves(s, now, noUnlock)) {
                by.add("no unlock to be confirmed again");
            }
            if (saves(s, now, longer)) {
                by.add("a longer slot: all that the packs last for takes "
                        + (long) Math.ceil(longer.endsAt() - ROUNDING) + " min");
            }
            saving.put(s, by.isEmpty() ? List.of("nothing alone; plan it as a job of its own") : by);
        }
        return saving;
    }

    /** Shots may be like each other: it counts how many of them are lost. */
    private static boolean saves(Shot s, Walk now, Walk then) {
        return Collections.frequency(then.lost(), s) < Collections.frequency(now.lost(), s);
    }
}
