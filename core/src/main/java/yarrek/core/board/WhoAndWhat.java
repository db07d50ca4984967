package yarrek.core.board;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import yarrek.core.rulebook.Tally;

/**
 * Who could fly a job with what: each pair of a pilot and a build as it was judged.
 *
 * @param always what stands open with every pair, and so is no reason for or against any
 * @param pilots who can fly the most first; builds as they came
 * @param opens what alone keeps most pairs from being a go, the most first
 */
public record WhoAndWhat(List<String> always, List<Pilot> pilots, List<Build> builds, List<Opens> opens) {
    private static final int MOST_OPENING = 4;

    /** Somebody who may fly. */
    public record Person(UUID id, String name) {}

    /**
     * A pair as it was judged.
     *
     * @param open what stands open, the most pressing first
     */
    public record Judged(UUID pilot, UUID build, Tally tally, List<String> open) {}

    /**
     * A pair.
     *
     * @param lacks what stands open with it and not with every pair
     * @param chosen whether the job is planned so
     */
    public record Cell(UUID build, Tally tally, List<String> lacks, boolean chosen) {
        public boolean isGo() {
            return !tally.isNoGo();
        }

        /** The one thing to say in a cell; empty where nothing lacks. */
        public String first() {
            return lacks.isEmpty() ? "" : lacks.get(0);
        }

        /** How many more there are. */
        public int more() {
            return Math.max(0, lacks.size() - 1);
        }

        /** Name of the status shape. */
        public String shape() {
            return tally.isNoGo() ? "notch" : tally.notKnown() > 0 ? "dots" : tally.close() > 0 ? "cut" : "full";
        }
    }

    /** @param cells by the builds, in their order */
    public record Pilot(UUID id, String name, List<Cell> cells) {
        public long may() {
            return cells.stream().filter(Cell::isGo).count();
        }
    }

    /** @param may how many pilots */
    public record Build(UUID id, String name, long may) {}

    /** Something that, had it been there, would make so many pairs a go. */
    public record Opens(String what, int pairs) {}

    /**
     * @param judged every pair once
     * @param pilot, build as the job is planned; may be null
     */
    public static WhoAndWhat of(List<Person> people, List<Person> builds, List<Judged> judged, UUID pilot, UUID build) {
        Set<String> always = new LinkedHashSet<>();
        judged.stream().findFirst().ifPresent(j -> always.addAll(j.open()));
        judged.forEach(j -> always.retainAll(j.open()));
        Map<UUID, Map<UUID, Judged>> byPair = new HashMap<>();
        judged.forEach(
                j -> byPair.computeIfAbsent(j.pilot(), k -> new HashMap<>()).put(j.build(), j));
        List<Pilot> pilots = people.stream()
                .map(p -> new Pilot(
                        p.id(),
                        p.name(),
                        builds.stream()
                                .map(b -> cell(
                                        byPair.get(p.id()).get(b.id()),
                                        always,
                                        p.id().equals(pilot) && b.id().equals(build)))
                                .toList()))
                .sorted(Comparator.comparing(Pilot::may).reversed().thenComparing(Pilot::name))
                .toList();
        List<Build> columns = new ArrayList<>();
        for (int i = 0; i < builds.size(); i++) {
            int at = i;
            columns.add(new Build(
                    builds.get(i).id(),
                    builds.get(i).name(),
                    pilots.stream().filter(p -> p.cells().get(at).isGo()).count()));
        }
        return new WhoAndWhat(List.copyOf(always), pilots, columns, opens(pilots));
    }

    private static Cell cell(Judged j, Set<String> always, boolean chosen) {
        return new Cell(
                j.build(),
                j.tally(),
                j.open().stream().filter(o -> !always.contains(o)).toList(),
                chosen);
    }

    /** What stands alone between a pair and its being a go, counted. */
    private static List<Opens> opens(List<Pilot> pilots) {
        Map<String, Integer> pairs = new LinkedHashMap<>();
        for (Pilot p : pilots) {
            for (Cell c : p.cells()) {
                if (!c.isGo() && c.lacks().size() == 1) {
                    pairs.merge(p.name() + ": " + c.first(), 1, Integer::sum);
                }
            }
        }
        return pairs.entrySet().stream()
                .sorted(Map.Entry.<String, Integer>comparingByValue()
                        .reversed()
                        .thenComparing(Map.Entry.comparingByKey()))
                .limit(MOST_OPENING)
                .map(e -> new Opens(e.getKey(), e.getValue()))
                .collect(Collectors.toList());
    }

    /** The builds in their order. */
    public List<UUID> buildIds() {
        return builds.stream().map(Build::id).toList();
    }

    /** The pair that is best: planned so where that goes, else a go with the least open, else the one with the least lacking. */
    public Cell best() {
        return pilots.stream()
                .flatMap(p -> p.cells().stream())
                .min(Comparator.comparing((Cell c) -> !c.isGo())
                        .thenComparing(c -> !(c.chosen() && c.isGo()))
                        .thenComparing(c -> c.lacks().size()))
                .orElseThrow();
    }
}
