package yarrek.app.laying;

import ai.timefold.solver.core.api.score.buildin.hardmediumsoft.HardMediumSoftScore;
import ai.timefold.solver.core.api.score.stream.Constraint;
import ai.timefold.solver.core.api.score.stream.ConstraintFactory;
import ai.timefold.solver.core.api.score.stream.ConstraintProvider;
import ai.timefold.solver.core.api.solver.SolverFactory;
import ai.timefold.solver.core.config.constructionheuristic.ConstructionHeuristicPhaseConfig;
import ai.timefold.solver.core.config.constructionheuristic.ConstructionHeuristicType;
import ai.timefold.solver.core.config.heuristic.selector.move.composite.CartesianProductMoveSelectorConfig;
import ai.timefold.solver.core.config.heuristic.selector.move.composite.UnionMoveSelectorConfig;
import ai.timefold.solver.core.config.heuristic.selector.move.generic.ChangeMoveSelectorConfig;
import ai.timefold.solver.core.config.localsearch.LocalSearchPhaseConfig;
import ai.timefold.solver.core.config.localsearch.decider.acceptor.LocalSearchAcceptorConfig;
import ai.timefold.solver.core.config.localsearch.decider.forager.LocalSearchForagerConfig;
import ai.timefold.solver.core.config.phase.PhaseConfig;
import ai.timefold.solver.core.config.solver.SolverConfig;
import ai.timefold.solver.core.config.solver.termination.TerminationConfig;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import yarrek.app.laying.Seats.Seat;
import yarrek.core.board.Layout;

/**
 * Takes ways for jobs by simulated annealing, from the same beginning every time and with so many moves tried, so that the same jobs always
 * give the same proposal.
 */
final class WaysSearch implements Layout.Search {
    private static final long SEED = 1;
    /** How much worse a step may be taken for at first, of each kind. */
    private static final String TEMPERATURE = "1hard/2medium/40soft";

    private static final long MOVES_A_WAY = 25;
    private static final long LEAST_MOVES = 6_000;
    private static final long MOST_MOVES = 100_000;

    /** Where a machine is slower than any was tried on, what was found by then is proposed. */
    private static final Duration LONGEST = Duration.ofSeconds(10);

    /** What makes a taking better: nobody in two places, then jobs in, then the cost. */
    public static final class Worth implements ConstraintProvider {
        @Override
        public Constraint[] defineConstraints(ConstraintFactory f) {
            return new Constraint[] {
                f.forEachUniquePair(Seat.class)
                        .filter(Seat::isInTheWayOf)
                        .penalize(HardMediumSoftScore.ONE_HARD)
                        .asConstraint("nobody and nothing is in two places"),
                f.forEachIncludingUnassigned(Seat.class)
                        .filter(s -> s.way == null)
                        .penalize(HardMediumSoftScore.ONE_MEDIUM)
                        .asConstraint("jobs are in"),
                f.forEach(Seat.class)
                        .penalize(
                                HardMediumSoftScore.ONE_SOFT,
                                s -> s.way.option().cost())
                        .asConstraint("the plan stays near to what it is")
            };
        }
    }

    @Override
    public List<Integer> find(List<List<Layout.Option>> options, Layout.Conflicts conflicts) {
        List<Integer> taken = new ArrayList<>(options.stream().map(o -> -1).toList());
        List<Seat> seats = IntStream.range(0, options.size())
                .filter(i -> !options.get(i).isEmpty())
                .mapToObj(i -> new Seat(i, options.get(i), conflicts))
                // those with the fewest ways choose first
                .sorted(Comparator.comparingInt((Seat s) -> s.ways.size()).thenComparing(s -> s.job))
                .collect(Collectors.toCollection(ArrayList::new));
        if (seats.isEmpty()) {
            return taken;
        }
        int ways = seats.stream().mapToInt(s -> s.ways.size()).sum();
        SolverFactory.<Seats>create(
                        config(seats.size(), Math.max(LEAST_MOVES, Math.min(MOST_MOVES, MOVES_A_WAY * ways))))
                .buildSolver()
                .solve(new Seats(seats))
                .seats
                .stream()
                .filter(s -> s.way != null)
                .forEach(s -> taken.set(s.job, s.way.place()));
        return taken;
    }

    private static SolverConfig config(int seats, long moves) {
        ConstructionHeuristicPhaseConfig first = new ConstructionHeuristicPhaseConfig()
                .withConstructionHeuristicType(ConstructionHeuristicType.FIRST_FIT);
        // a job that stands where two others could be is moved together with one of them
        LocalSearchPhaseConfig search = new LocalSearchPhaseConfig()
                .withMoveSelectorConfig(new UnionMoveSelectorConfig()
                        .withMoveSelectors(
                                new ChangeMoveSelectorConfig(),
                                new CartesianProductMoveSelectorConfig()
                                        .withMoveSelectors(
                                                new ChangeMoveSelectorConfig(), new ChangeMoveSelectorConfig())))
                .withAcceptorConfig(
                        new LocalSearchAcceptorConfig().withSimulatedAnnealingStartingTemperature(TEMPERATURE))
                .withForagerConfig(new LocalSearchForagerConfig().withAcceptedCountLimit(1))
                .withTerminationConfig(new TerminationConfig().withMoveCountLimit(moves));
        return new SolverConfig()
                .withSolutionClass(Seats.class)
                .withEntityClasses(Seat.class)
                .withConstraintProviderClass(Worth.class)
                .withRandomSeed(SEED)
                .withTerminationConfig(new TerminationConfig().withSpentLimit(LONGEST))
                .withPhases(seats > 1 ? new PhaseConfig<?>[] {first, search} : new PhaseConfig<?>[] {first});
    }
}
