package yarrek.core.paper;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/**
 * What papers cost in a calendar year: those that began in it, and those that end in it and are renewed at the same cost.
 * Currencies are never added up with each other.
 */
public record Costs(int year, Map<String, BigDecimal> spent, Map<String, BigDecimal> toCome, int withoutCost) {

    /**
     * A paper as a cost.
     *
     * @param begins first day in force or day of issue; empty when neither is known
     * @param ends last day in force; empty while open
     * @param cost empty when nobody has said
     */
    public record Item(
            Optional<LocalDate> begins, Optional<LocalDate> ends, Optional<BigDecimal> cost, String currency) {}

    public static Costs of(int year, List<Item> items) {
        Map<String, BigDecimal> spent = new TreeMap<>();
        Map<String, BigDecimal> toCome = new TreeMap<>();
        int without = 0;
        for (Item i : items) {
            boolean began = i.begins().map(d -> d.getYear() == year).orElse(false);
            boolean ends = i.ends().map(d -> d.getYear() == year).orElse(false);
            if (!began && !ends) {
                continue;
            }
            if (i.cost().isEmpty()) {
                without++;
                continue;
            }
            if (began) {
                spent.merge(i.currency(), i.cost().get(), BigDecimal::add);
            }
            if (ends) {
                toCome.merge(i.currency(), i.cost().get(), BigDecimal::add);
            }
        }
        return new Costs(year, spent, toCome, without);
    }
}
