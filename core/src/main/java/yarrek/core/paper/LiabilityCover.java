package yarrek.core.paper;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import yarrek.core.units.Finite;

/**
 * A liability policy against what the laws it counts under ask for at least. Amounts in special drawing rights (SDR) per
 * accident.
 *
 * @param below laws that ask for more, each with its amount in words
 * @param unknown laws that ask for an amount, while that of the policy is not known
 */
public record LiabilityCover(List<String> below, List<String> unknown, OptionalDouble amountSdr) {
    /**
     * @param leastByLaw in SDR; empty where a law states none
     * @param amountSdr of the policy; empty when not known
     */
    public static LiabilityCover of(Map<String, OptionalDouble> leastByLaw, OptionalDouble amountSdr) {
        List<String> below = new ArrayList<>();
        List<String> unknown = new ArrayList<>();
        leastByLaw.forEach((law, least) -> {
            if (least.isPresent() && amountSdr.isEmpty()) {
                unknown.add(law);
            } else if (least.isPresent() && amountSdr.getAsDouble() < least.getAsDouble()) {
                below.add(law + " asks for " + Finite.format(least.getAsDouble()) + " SDR");
            }
        });
        return new LiabilityCover(List.copyOf(below), List.copyOf(unknown), amountSdr);
    }

    /** In words, to stand behind the state of the paper; empty when nothing can be said. */
    public String says() {
        if (!below.isEmpty()) {
            return "too little: " + String.join(", ", below);
        }
        if (!unknown.isEmpty()) {
            return "amount in SDR not known for " + String.join(", ", unknown);
        }
        return amountSdr.isPresent() ? "at least what the law asks" : "";
    }
}
