package yarrek.core.mass;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import yarrek.core.units.Mass;

/** What would push a build over the next threshold. */
public final class Headroom {
    private Headroom() {}

    /**
     * Something that could be added, or swapped in.
     *
     * @param adds what it adds to the mass of the build; for another pack the difference to the present one
     * @param isPack a pack takes the place of the pack; two packs are never combined
     */
    public record Candidate(String name, Mass adds, boolean isPack) {}

    /**
     * @param names one name, or two that cross only together
     * @param reaches the mass of the build with them
     */
    public record Crossing(List<String> names, Mass reaches) {}

    /**
     * Candidates that take the best figure to the threshold or over it, alone first, then pairs of which neither crosses
     * alone.
     */
    public static List<Crossing> crossings(TakeoffMass takeoff, Optional<Mass> threshold, List<Candidate> candidates) {
        if (threshold.isEmpty()) {
            return List.of();
        }
        Mass limit = threshold.get();
        List<Crossing> crossings = new ArrayList<>();
        List<Candidate> light = new ArrayList<>();
        for (Candidate c : candidates) {
            Mass reaches = takeoff.mass().plus(c.adds());
            if (reaches.compareTo(limit) >= 0) {
                crossings.add(new Crossing(List.of(c.name()), reaches));
            } else {
                light.add(c);
            }
        }
        for (int i = 0; i < light.size(); i++) {
            for (int j = i + 1; j < light.size(); j++) {
                if (light.get(i).isPack() && light.get(j).isPack()) {
                    continue;
                }
                Mass reaches = takeoff.mass()
                        .plus(light.get(i).adds())
                        .plus(light.get(j).adds());
                if (reaches.compareTo(limit) >= 0) {
                    crossings.add(new Crossing(
                            List.of(light.get(i).name(), light.get(j).name()), reaches));
                }
            }
        }
        return crossings;
    }
}
