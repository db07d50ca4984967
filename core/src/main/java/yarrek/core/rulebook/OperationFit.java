package yarrek.core.rulebook;

import java.util.ArrayList;
import java.util.List;

/**
 * What a build, a pilot and an operator may do together: for each kind of operation that a law knows, whether the aircraft,
 * the pilot's papers and the operator's permit it, and which of them limits. The narrower decides.
 */
public record OperationFit(Operation operation, Truth choice, Outcome aircraft, Outcome pilot, Outcome operator) {

    /** In the order of the pack; operations that purpose or circumstances rule out come last. */
    public static List<OperationFit> of(Facts facts, RulePack pack) {
        List<OperationFit> fits = new ArrayList<>();
        for (Operation o : pack.operations()) {
            fits.add(new OperationFit(
                    o,
                    o.when().test(facts),
                    o.aircraft().judge(facts),
                    o.pilot().judge(facts),
                    o.operator().judge(facts)));
        }
        fits.sort(java.util.Comparator.comparing(f -> f.choice() == Truth.NO));
        return fits;
    }

    /** Met when all three permit it, not known when one is not known and none forbids, else breached. */
    public Verdict verdict() {
        if (choice == Truth.NO) {
            return Verdict.NOT_APPLICABLE;
        }
        List<Verdict> all = List.of(aircraft.verdict(), pilot.verdict(), operator.verdict());
        return all.contains(Verdict.BREACHED)
                ? Verdict.BREACHED
                : all.contains(Verdict.NOT_KNOWN) || choice == Truth.UNKNOWN ? Verdict.NOT_KNOWN : Verdict.MET;
    }

    /** Which of the three limits it: "aircraft", "pilot", "operator"; empty when none does. */
    public List<String> limits() {
        List<String> limits = new ArrayList<>();
        if (!aircraft.verdict().isFine()) {
            limits.add("aircraft");
        }
        if (!pilot.verdict().isFine()) {
            limits.add("pilot");
        }
        if (!operator.verdict().isFine()) {
            limits.add("operator");
        }
        return limits;
    }

    public String standing() {
        return switch (verdict()) {
            case MET -> "as far as checked";
            case BREACHED -> "not as it stands";
            case NOT_KNOWN -> "not known";
            default -> "not this purpose";
        };
    }
}
