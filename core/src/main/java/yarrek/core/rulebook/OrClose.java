package yarrek.core.rulebook;

import java.util.List;
import java.util.Set;

/**
 * Breached in the letter, but close while the other holds: between a figure of the law and the rounded one it prints
 * beside it, or between two readings of a word. What the other does not know leaves the breach as it is.
 *
 * @param note which two figures or readings these are
 */
public record OrClose(Requirement main, Requirement other, String note) implements Requirement {
    static final Kind<OrClose> KIND = Kind.of("main", (n, reading) -> {
        n.only(Set.of("main", "closeWhile", "note"), "a requirement with a second reading");
        return new OrClose(
                reading.requirement(n.get("main")), reading.requirement(n.get("closeWhile")), n.text("note"));
    });

    @Override
    public Outcome judge(Facts facts) {
        Outcome o = main.judge(facts);
        boolean between =
                o.verdict() == Verdict.BREACHED && other.verdict(facts).isFine();
        return between ? new Outcome(Verdict.CLOSE, o.says() + "; " + note, o.gauge(), List.of()) : o;
    }

    @Override
    public Verdict verdict(Facts facts) {
        Verdict v = main.verdict(facts);
        return v == Verdict.BREACHED && other.verdict(facts).isFine() ? Verdict.CLOSE : v;
    }

    @Override
    public List<HoldsPaper> papers() {
        return main.papers();
    }

    @Override
    public double margin(Facts facts) {
        return main.margin(facts);
    }

    @Override
    public Set<String> factNames() {
        return Combined.names(List.of(main, other));
    }

    @Override
    public String words() {
        return main.words() + "; close only while " + other.words() + " (" + note + ")";
    }

    @Override
    public boolean heldAtAnotherTime(Facts facts) {
        return main.heldAtAnotherTime(facts);
    }

    @Override
    public void offer(Offers to) {
        main.offer(to);
    }
}
