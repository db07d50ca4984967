package yarrek.formats.rules;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import yarrek.core.rulebook.AllOf;
import yarrek.core.rulebook.AnyOf;
import yarrek.core.rulebook.Bound;
import yarrek.core.rulebook.Closeness;
import yarrek.core.rulebook.Condition;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Facts;
import yarrek.core.rulebook.Limit;
import yarrek.core.rulebook.QuantityWithin;
import yarrek.core.rulebook.Requirement;
import yarrek.core.rulebook.Rule;
import yarrek.core.rulebook.Verdict;
import yarrek.core.rulebook.Vocabulary;
import yarrek.core.rulebook.WordIsOneOf;
import yarrek.core.rulebook.YesNoIs;
import yarrek.core.time.TimeWindow;

/** Every figure, yes or no and word that a shipped rule asks for: on its right side, at it, on its wrong side, missing. */
class EveryLimitTest {
    private static final List<String> PACKS = List.of("eu", "gb", "ca", "us", "au", "nz", "house");

    /** A single requirement of a rule. */
    record One(String rule, Requirement requirement) {
        @Override
        public String toString() {
            return rule + ": " + requirement.words();
        }
    }

    private static Stream<One> all() {
        return PACKS.stream()
                .flatMap(p -> RulePackReader.shipped(p + ".yaml").rules().stream())
                .flatMap(r -> single(r.requires()).stream().map(q -> new One(r.id(), q)));
    }

    private static List<Requirement> single(Requirement r) {
        List<Requirement> found = new ArrayList<>();
        if (r instanceof AllOf all) {
            all.of().forEach(x -> found.addAll(single(x)));
        } else if (r instanceof AnyOf any) {
            any.of().forEach(x -> found.addAll(single(x)));
        } else {
            found.add(r);
        }
        return found;
    }

    static Stream<One> quantities() {
        return all().filter(o -> o.requirement() instanceof QuantityWithin q && q.limit() instanceof Limit.Constant);
    }

    static Stream<One> yesNos() {
        return all().filter(o -> o.requirement() instanceof YesNoIs);
    }

    static Stream<One> words() {
        return all().filter(o -> o.requirement() instanceof WordIsOneOf);
    }

    private static Facts.Builder facts() {
        return Facts.builder(ZoneOffset.UTC)
                .window(new TimeWindow(Instant.parse("2027-06-12T09:00:00Z"), Instant.parse("2027-06-12T15:00:00Z")));
    }

    private static Verdict of(Requirement r, String fact, double value) {
        // the mass that the class goes by is worked out from the take-off masses, real and declared
        Facts.Builder b = fact.equals("classMassG") || fact.equals("greaterMassG")
                ? facts().quantity("takeoffMassG", value, 0, "test").quantity("maxTakeoffMassG", value, 0, "test")
                : facts().quantity(fact, value, 0, "test");
        return r.judge(b.build()).verdict();
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("quantities")
    void aFigureIsJudgedAtItsLimitAndOnEitherSide(One o) {
        QuantityWithin q = (QuantityWithin) o.requirement();
        double limit = ((Limit.Constant) q.limit()).value();
        // far enough away that no closeness of 5 % reaches there
        double step = Math.max(1, Math.abs(limit)) * 0.5;
        double right = q.bound().isUpper() ? limit - step : limit + step;
        double wrong = q.bound().isUpper() ? limit + step : limit - step;
        assertThat(of(q, q.fact(), right)).isEqualTo(Verdict.MET);
        assertThat(of(q, q.fact(), wrong)).isEqualTo(Verdict.BREACHED);
        boolean included = q.bound() == Bound.AT_MOST || q.bound() == Bound.AT_LEAST;
        if (q.closeness().straddling()) {
            assertThat(of(q, q.fact(), limit)).isIn(Verdict.CLOSE, Verdict.BREACHED);
        } else {
            Verdict on = q.closeness().equals(Closeness.NONE) ? Verdict.MET : Verdict.CLOSE;
            assertThat(of(q, q.fact(), limit)).isEqualTo(included ? on : Verdict.BREACHED);
        }
        assertThat(q.judge(facts().build()).verdict()).isEqualTo(Verdict.NOT_KNOWN);
        assertThat(q.judge(facts().build()).missing()).containsExactly(q.fact());
    }

    /** Going further to the wrong side never makes it better. */
    @ParameterizedTest(name = "{0}")
    @MethodSource("quantities")
    void aFigureNeverGetsBetterOnTheWayOut(One o) {
        QuantityWithin q = (QuantityWithin) o.requirement();
        double limit = ((Limit.Constant) q.limit()).value();
        double span = Math.max(1, Math.abs(limit));
        Verdict before = Verdict.MET;
        for (int i = -20; i <= 20; i++) {
            double value = limit + (q.bound().isUpper() ? 1 : -1) * span * i / 20;
            Verdict now = of(q, q.fact(), value);
            assertThat(now.compareTo(before))
                    .as("at %s after %s", value, before)
                    .isLessThanOrEqualTo(0);
            before = now;
        }
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("yesNos")
    void aYesOrNoIsJudgedBothWays(One o) {
        YesNoIs y = (YesNoIs) o.requirement();
        assertThat(y.judge(facts().yesNo(y.fact(), y.value(), "test").build()).verdict())
                .isEqualTo(Verdict.MET);
        assertThat(y.judge(facts().yesNo(y.fact(), !y.value(), "test").build()).verdict())
                .isEqualTo(Verdict.BREACHED);
        assertThat(y.judge(facts().build()).verdict()).isEqualTo(Verdict.NOT_KNOWN);
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("words")
    void everyWordOfAFactIsAllowedOrNot(One o) {
        WordIsOneOf w = (WordIsOneOf) o.requirement();
        for (String word : Vocabulary.define(w.fact()).words()) {
            assertThat(w.judge(facts().with(w.fact(), new FactValue.Word(word), "test")
                                    .build())
                            .verdict())
                    .as(word)
                    .isEqualTo(w.values().contains(word) ? Verdict.MET : Verdict.BREACHED);
        }
        assertThat(w.judge(facts().build()).verdict()).isEqualTo(Verdict.NOT_KNOWN);
    }

    static Stream<Rule> conditional() {
        return PACKS.stream()
                .flatMap(p -> RulePackReader.shipped(p + ".yaml").rules().stream())
                .filter(r -> !r.appliesWhen().equals(Condition.always()))
                .filter(r -> r.source().ask().isEmpty());
    }

    /** A rule of which nobody knows whether it applies says so, and never that it is met by what is not known. */
    @ParameterizedTest
    @MethodSource("conditional")
    void aRuleOfWhichNobodyKnowsWhetherItAppliesIsNotMet(Rule r) {
        assertThat(r.judge(facts().build()).verdict()).isNotIn(Verdict.MET, Verdict.CLOSE);
    }
}
