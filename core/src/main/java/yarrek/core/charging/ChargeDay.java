package yarrek.core.charging;

import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;

/**
 * When to plug in which pack where, so that all are full by an hour and none stands full for longer than it must.
 *
 * @param plugged one for each pack, in their order
 * @param inTime how many are full by the hour
 * @param waiting minutes that packs stand full before the hour, in all
 * @param verdict in words
 */
public record ChargeDay(List<Plugged> plugged, int inTime, long waiting, String verdict) {
    private static final int STEP_MINUTES = 5;
    private static final int MINUTES = 60;
    private static final int MOST_PLACES = 60;

    /** What no plan outranks. */
    public static final List<String> CAUTIONS = List.of(
            "Charging is attended and in a place that stands fire; a swollen, dropped, wet or hot pack is not charged.",
            "Not looked at: the packs' temperature (house: 5 to 40 °C, never below 0), fuses and the supply behind the chargers.",
            "The pack maker's and the charger maker's limits go before this plan.");

    /**
     * A charger whose places charge each for itself.
     *
     * @param places 1 or more
     * @param watts of each place, above 0
     */
    public record Charger(String name, int places, double watts) {
        public Charger {
            if (places < 1 || places > MOST_PLACES || !(watts > 0)) {
                throw new IllegalArgumentException("charger " + name + " needs 1 to " + MOST_PLACES
                        + " places and more than 0 W, got " + places + " of " + watts + " W");
            }
        }
    }

    /**
     * A pack to be charged.
     *
     * @param from charge now, 0 to 1
     * @param to charge wanted, 0 to 1
     */
    public record Low(String label, Filling filling, double from, double to) {}

    /**
     * A pack's turn.
     *
     * @param place of the charger, from 1
     * @param in when it is plugged in; on the five minutes before it has to be
     * @param full when it has the charge that is wanted
     */
    public record Plugged(String label, String charger, int place, Instant in, Instant full) {}

    public ChargeDay {
        plugged = List.copyOf(plugged);
    }

    /**
     * By the plan that leaves the least standing full; when that one had to begin before now, by the one that is done soonest.
     *
     * @throws IllegalArgumentException without a charger, or when the hour lies before now
     */
    public static ChargeDay of(List<Low> packs, List<Charger> chargers, Instant from, Instant by) {
        Instant now = from.truncatedTo(ChronoUnit.SECONDS);
        if (chargers.isEmpty()) {
            throw new IllegalArgumentException("no charger is named, so nothing is charged");
        }
        if (by.isBefore(now)) {
            throw new IllegalArgumentException("the hour to be ready by lies before now");
        }
        int all = chargers.stream().mapToInt(Charger::places).sum();
        if (all > MOST_PLACES) {
            throw new IllegalArgumentException("a plan holds at most " + MOST_PLACES + " places, got " + all);
        }
        List<Charger> places = chargers.stream()
                .flatMap(c -> IntStream.range(0, c.places()).mapToObj(i -> c))
                .toList();
        List<List<Double>> minutes = packs.stream()
                .map(p -> places.stream()
                        .map(c -> p.filling().minutes(c.watts(), p.from(), p.to()))
                        .toList())
                .toList();
        double deadline = Duration.between(now, by).toSeconds() / (double) MINUTES;
        ChargePlan plan = onTheFive(ChargePlan.unevenly(minutes, deadline), now, deadline);
        if (plan.earliest() < 0) {
            plan = soonest(minutes, places.size());
        }
        List<Plugged> plugged = new ArrayList<>();
        int inTime = 0;
        double waiting = 0;
        for (int i = 0; i < packs.size(); i++) {
            ChargePlan.Place p = plan.places().get(i);
            Charger c = places.get(p.slot());
            plugged.add(new Plugged(
                    packs.get(i).label(),
                    c.name(),
                    p.slot() - places.indexOf(c) + 1,
                    now.plus(seconds(p.start())),
                    now.plus(seconds(p.end()))));
            inTime += p.end() <= deadline + 1e-6 ? 1 : 0;
            waiting += Math.max(0, deadline - p.end());
        }
        return new ChargeDay(plugged, inTime, Math.round(waiting), words(packs.size(), inTime));
    }

    /** People plug in on the five minutes: each start moves to those before it, and what charges there before moves with it. */
    private static ChargePlan onTheFive(ChargePlan plan, Instant now, double deadline) {
        double past = Math.floorMod(now.getEpochSecond(), (long) STEP_MINUTES * MINUTES) / (double) MINUTES;
        Map<Integer, Double> free = new HashMap<>();
        ChargePlan.Place[] at = new ChargePlan.Place[plan.places().size()];
        IntStream.range(0, at.length)
                .boxed()
                .sorted(Comparator.<Integer>comparingDouble(
                        i -> -plan.places().get(i).start()))
                .forEach(i -> {
                    ChargePlan.Place p = plan.places().get(i);
                    double latest = free.getOrDefault(p.slot(), deadline) - (p.end() - p.start());
                    double start = Math.floor((latest + past) / STEP_MINUTES + 1e-9) * STEP_MINUTES - past;
                    free.put(p.slot(), start);
                    at[i] = new ChargePlan.Place(p.slot(), start, start + p.end() - p.start());
                });
        return new ChargePlan(List.of(at));
    }

    private static String words(int packs, int inTime) {
        return packs == 0
                ? "nothing to charge"
                : inTime == packs
                        ? (packs == 1 ? "it is" : (packs == 2 ? "both" : "all " + packs) + " are")
                                + " ready by the hour"
                        : inTime + " of " + packs
                                + " are ready by the hour: begin earlier, bring more packs or another charger";
    }

    private static Duration seconds(double minutes) {
        return Duration.ofSeconds(Math.round(minutes * MINUTES));
    }

    /** The longest first, each to the place at which it is full first. */
    private static ChargePlan soonest(List<List<Double>> minutes, int slots) {
        double[] free = new double[slots];
        ChargePlan.Place[] at = new ChargePlan.Place[minutes.size()];
        IntStream.range(0, minutes.size())
                .boxed()
                .sorted(Comparator.<Integer>comparingDouble(
                        i -> -minutes.get(i).stream().mapToDouble(m -> m).min().orElseThrow()))
                .forEach(i -> {
                    int slot = 0;
                    for (int s = 1; s < slots; s++) {
                        if (free[s] + minutes.get(i).get(s)
                                < free[slot] + minutes.get(i).get(slot)) {
                            slot = s;
                        }
                    }
                    double from = free[slot];
                    free[slot] += minutes.get(i).get(slot);
                    at[i] = new ChargePlan.Place(slot, from, free[slot]);
                });
        return new ChargePlan(List.of(at));
    }
}
