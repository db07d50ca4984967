package yarrek.app.laying;

import ai.timefold.solver.core.api.domain.entity.PlanningEntity;
import ai.timefold.solver.core.api.domain.lookup.PlanningId;
import ai.timefold.solver.core.api.domain.solution.PlanningEntityCollectionProperty;
import ai.timefold.solver.core.api.domain.solution.PlanningScore;
import ai.timefold.solver.core.api.domain.solution.PlanningSolution;
import ai.timefold.solver.core.api.domain.valuerange.ValueRangeProvider;
import ai.timefold.solver.core.api.domain.variable.PlanningVariable;
import ai.timefold.solver.core.api.score.buildin.hardmediumsoft.HardMediumSoftScore;
import java.time.Duration;
import java.util.List;
import java.util.stream.IntStream;
import yarrek.core.board.Layout;
import yarrek.core.time.TimeWindow;

/** What is searched: a seat for each job, taken by one of its ways or by none. */
@PlanningSolution
public class Seats {
    @PlanningEntityCollectionProperty
    List<Seat> seats;

    @PlanningScore
    HardMediumSoftScore score;

    /** For the solver's copies. */
    protected Seats() {}

    Seats(List<Seat> seats) {
        this.seats = seats;
    }

    private static final long FAR_S = Duration.ofDays(2).toSeconds();

    /** A way by its place among those of its job: one is like no other. */
    public static final class Way {
        private final int place;
        private final Layout.Option option;
        private final long from;
        private final long to;

        private Way(int place, Layout.Option option) {
            this.place = place;
            this.option = option;
            List<TimeWindow> hours =
                    option.stay().uses().values().stream().flatMap(List::stream).toList();
            from = hours.stream()
                    .mapToLong(w -> w.start().getEpochSecond())
                    .min()
                    .orElse(Long.MAX_VALUE);
            to = hours.stream().mapToLong(w -> w.end().getEpochSecond()).max().orElse(Long.MIN_VALUE);
        }

        /** Whether they are days apart, which is asked far more often than who is at both. */
        private boolean isFarFrom(Way other) {
            return from > other.to + FAR_S || other.from > to + FAR_S;
        }

        int place() {
            return place;
        }

        Layout.Option option() {
            return option;
        }
    }

    /** Of one job. */
    @PlanningEntity
    public static class Seat {
        @PlanningId
        Integer job;

        @ValueRangeProvider
        List<Way> ways;

        @PlanningVariable(allowsUnassigned = true)
        Way way;

        private Layout.Conflicts conflicts;

        /** For the solver's copies. */
        protected Seat() {}

        Seat(int job, List<Layout.Option> options, Layout.Conflicts conflicts) {
            this.job = job;
            this.conflicts = conflicts;
            this.ways = IntStream.range(0, options.size())
                    .mapToObj(i -> new Way(i, options.get(i)))
                    .toList();
        }

        boolean isInTheWayOf(Seat other) {
            return !way.isFarFrom(other.way) && conflicts.between(way.option(), other.way.option());
        }
    }
}
