package yarrek.core.rulebook;

import static org.assertj.core.api.Assertions.assertThat;
import static yarrek.core.rulebook.SomeRules.atMost;

import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;

/** What is folded before looking at every moment says the same as each moment looked at by itself. */
class OverTimeTest {

    private static Requirement tree(Random random, int depth) {
        int kind = random.nextInt(depth == 0 ? 5 : 7);
        return switch (kind) {
            case 0 -> atMost("heightAboveGroundM", 20 + random.nextInt(100));
            case 1 -> atMost("groundSpeedMps", 5 + random.nextInt(20));
            case 2 -> new WordIsOneOf("sight", Set.of(random.nextBoolean() ? "VLOS" : "BVLOS"));
            case 3 -> new YesNoIs("assembly", random.nextBoolean());
            case 4 ->
                new QuantityWithin(
                        "peopleDistanceM",
                        Bound.AT_LEAST,
                        new Limit.OfFact("heightAboveGroundM", 1 + random.nextInt(2), random.nextInt(9)),
                        Closeness.USUAL);
            case 5 -> new AllOf(List.of(tree(random, depth - 1), tree(random, depth - 1)));
            default -> new AnyOf(List.of(tree(random, depth - 1), tree(random, depth - 1)));
        };
    }

    private static Condition condition(Random random, int depth) {
        int kind = random.nextInt(depth == 0 ? 3 : 6);
        return switch (kind) {
            case 0 ->
                new QuantityWithin("heightAboveGroundM", Bound.BELOW, new Limit.Constant(20 + random.nextInt(100)));
            case 1 -> new WordIsOneOf("sight", Set.of(random.nextBoolean() ? "VLOS" : "BVLOS"));
            case 2 -> new QuantityWithin("groundSpeedMps", Bound.ABOVE, new Limit.OfFact("heightAboveGroundM", 0.2, 0));
            case 3 -> new Not(condition(random, depth - 1));
            case 4 -> new All(List.of(condition(random, depth - 1), condition(random, depth - 1)));
            default -> new Any(List.of(condition(random, depth - 1), condition(random, depth - 1)));
        };
    }

    @RepeatedTest(300)
    void foldedAndUnfoldedSayTheSame(RepetitionInfo nth) {
        Random random = new Random(nth.getCurrentRepetition());
        Facts.Builder b = Facts.builder(ZoneOffset.UTC).word("sight", "VLOS", "t");
        if (random.nextBoolean()) {
            b.yesNo("assembly", random.nextBoolean(), "t");
        }
        if (random.nextBoolean()) {
            b.quantity("peopleDistanceM", random.nextInt(200), random.nextInt(5), "t");
        }
        if (random.nextBoolean()) {
            b.quantity("groundSpeedMps", random.nextInt(25), 1, "t");
        }
        double[] heights =
                random.doubles(40, 0, 130).map(h -> h > 120 ? Double.NaN : h).toArray();
        Moments m = new Moments(
                b.build(), Map.of("heightAboveGroundM", new FlightFacts.Series(heights, random.nextInt(4), "log")));
        Condition when = condition(random, 3);
        Condition except = condition(random, 2);
        Rule rule = SomeRules.rule("R", Severity.STOP, Layer.LAW, when, except, atMost("heightAboveGroundM", 120));
        assertThat(IntStream.range(0, heights.length).mapToObj(OverTime.applies(rule, m)))
                .containsExactlyElementsOf(IntStream.range(0, heights.length)
                        .mapToObj(i -> rule.applies(m.at(i)))
                        .toList());
        Requirement r = tree(random, 3);
        OverTime folded = OverTime.of(r, m);
        assertThat(IntStream.range(0, heights.length).mapToObj(folded.verdict()))
                .containsExactlyElementsOf(IntStream.range(0, heights.length)
                        .mapToObj(i -> r.verdict(m.at(i)))
                        .toList());
        assertThat(IntStream.range(0, heights.length).mapToDouble(folded.margin()))
                .containsExactlyElementsOf(IntStream.range(0, heights.length)
                        .mapToObj(i -> r.margin(m.at(i)))
                        .toList());
    }
}
