package yarrek.core.judging;

import java.time.LocalDate;
import java.util.List;
import java.util.Set;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Facts;

/**
 * An aircraft with what its model says of it. A null is not known.
 *
 * @param model maker and name
 * @param lightsOfBuilds the lights of each of its builds; empty when it has none
 */
public record Craft(
        String name,
        String serial,
        LocalDate marketDate,
        Boolean remoteIdActive,
        Boolean geoAwarenessCurrent,
        Model model,
        List<Set<String>> lightsOfBuilds) {
    /**
     * What the maker says. Masses in grams, speeds in m/s, temperatures in degrees Celsius.
     *
     * @param lights fitted as it leaves the maker
     * @param leaflet minutes of a full pack; null when not known
     */
    public record Model(
            String fullName,
            Double maxTakeoffMassG,
            String classMark,
            boolean privatelyBuilt,
            boolean hasCamera,
            boolean isToy,
            Double maxLevelSpeedMps,
            Double dimensionM,
            Double windLimitMps,
            Double temperatureMinC,
            Double temperatureMaxC,
            Double maxHeightM,
            String remoteId,
            Set<String> lights,
            PackLasts.Leaflet leaflet) {}

    /** Puts what the aircraft gives without its build being known. */
    public void describe(Facts.Builder b) {
        Put.quantity(b, "maxTakeoffMassG", model.maxTakeoffMassG(), "maker of " + model.fullName());
        b.word("classMark", model.classMark(), "label of " + model.fullName());
        b.yesNo("privatelyBuilt", model.privatelyBuilt(), "model " + model.fullName());
        b.yesNo("hasCamera", model.hasCamera(), "model " + model.fullName());
        b.yesNo("isToy", model.isToy(), "model " + model.fullName());
        if (marketDate != null) {
            b.date("marketDate", marketDate, "aircraft " + name);
        }
        Put.quantity(b, "maxLevelSpeedMps", model.maxLevelSpeedMps(), "maker");
        Put.quantity(b, "dimensionM", model.dimensionM(), "maker");
        Put.quantity(b, "maker.windMps", model.windLimitMps(), "maker");
        Put.quantity(b, "maker.temperatureMinC", model.temperatureMinC(), "maker");
        Put.quantity(b, "maker.temperatureMaxC", model.temperatureMaxC(), "maker");
        Put.quantity(b, "maker.heightM", model.maxHeightM(), "maker");
        b.word("remoteId", model.remoteId(), "model " + model.fullName());
        Put.yesNo(b, "remoteIdActive", remoteIdActive, "aircraft " + name);
        Put.yesNo(b, "geoAwarenessCurrent", geoAwarenessCurrent, "aircraft " + name);
    }

    /** Puts the lights, when every build carries the same; it is not said which build it is. */
    void lightsOfAny(Facts.Builder b) {
        List<Set<String>> carried = lightsOfBuilds.stream().distinct().toList();
        if (carried.size() <= 1) {
            b.with(
                    "lights",
                    new FactValue.Words(carried.isEmpty() ? model.lights() : carried.get(0)),
                    carried.isEmpty() ? "model " + model.fullName() : "every build of " + name);
        }
    }
}
