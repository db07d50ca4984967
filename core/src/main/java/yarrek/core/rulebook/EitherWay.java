package yarrek.core.rulebook;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.BiFunction;

/**
 * An open question whose every answer ends in a breach need not be asked to know that there is one: of two limits of which
 * one must hold, both passed, the milder is breached.
 */
final class EitherWay {
    private EitherWay() {}

    /**
     * @param judge a rule on facts in which one more answer has been put
     * @return the findings, with the mildest of each such set breached
     */
    static List<Finding> settle(List<Finding> findings, Facts facts, BiFunction<Facts, Rule, Finding> judge) {
        List<Finding> open = findings.stream()
                .filter(f -> f.verdict() == Verdict.NOT_KNOWN
                        && f.rule().source().ask().isEmpty()
                        && f.gauge().filter(g -> g.margin() < 0).isPresent())
                .toList();
        Set<String> questions = new TreeSet<>();
        open.forEach(f -> questions.addAll(f.missing()));
        List<Finding> settled = new ArrayList<>(findings);
        for (String question : questions) {
            List<FactValue> answers = answers(Vocabulary.define(question));
            List<Finding> asked =
                    open.stream().filter(f -> f.missing().contains(question)).toList();
            for (Finding f : asked) {
                List<Finding> same = asked.stream()
                        .filter(o -> side(o).equals(side(f)))
                        .sorted(Comparator.comparingDouble(
                                (Finding o) -> -o.gauge().orElseThrow().margin()))
                        .toList();
                boolean always = !answers.isEmpty()
                        && answers.stream().allMatch(a -> {
                            Facts said = facts.toBuilder()
                                    .with(question, a, "supposed")
                                    .build();
                            return same.stream()
                                    .anyMatch(o -> judge.apply(said, o.rule()).verdict() == Verdict.BREACHED);
                        });
                if (always && same.get(0).equals(f)) {
                    settled.set(settled.indexOf(f), breached(f, question, answers, facts, judge));
                }
            }
        }
        return settled;
    }

    private static Finding breached(
            Finding f, String question, List<FactValue> answers, Facts facts, BiFunction<Facts, Rule, Finding> judge) {
        return answers.stream()
                .map(a -> judge.apply(
                        facts.toBuilder().with(question, a, "supposed").build(), f.rule()))
                .filter(o -> o.verdict() == Verdict.BREACHED)
                .findFirst()
                .map(o -> o.saying(o.says() + "; not known: "
                        + Outcome.lower(Vocabulary.define(question).label())
                        + ", but whichever it is, a limit is passed, and this is the mildest"))
                .orElse(f);
    }

    private static List<FactValue> answers(FactDefinition d) {
        return switch (d.type()) {
            case YES_NO -> List.of(new FactValue.YesNo(true), new FactValue.YesNo(false));
            case WORD -> d.words().stream().<FactValue>map(FactValue.Word::new).toList();
            default -> List.of();
        };
    }

    private static String side(Finding f) {
        Gauge g = f.gauge().orElseThrow();
        return g.fact() + g.bound().isUpper();
    }
}
