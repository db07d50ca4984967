package yarrek.app.api;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import yarrek.app.fleet.Fleet;
import yarrek.app.page.OpenTo;
import yarrek.core.mass.Headroom;
import yarrek.core.mass.Part;
import yarrek.core.mass.TakeoffMass;
import yarrek.core.mass.Weighing;
import yarrek.core.units.Mass;

/** Take-off mass and class of a build given as JSON; no record is needed. */
@RestController
@RequestMapping("/api/v1")
class MassApi {
    private static final int MOST_PARTS = 200;

    /**
     * @param massG maker's mass, 0 g or more
     * @param toleranceG plus or minus; left out: 0.5 g, or 1 % above 500 g
     * @param weighedG the part's own weighing, when there is one
     * @param weighedResolutionG the scale's step
     */
    record PartIn(
            String id,
            String name,
            BigDecimal massG,
            BigDecimal toleranceG,
            BigDecimal weighedG,
            BigDecimal weighedResolutionG) {}

    /** A weighing of the whole build; it holds for exactly the parts named. */
    record WeighingIn(LocalDate on, String scale, BigDecimal massG, BigDecimal resolutionG, List<String> partIds) {}

    /** Something that could be added, or a pack that could be swapped in (then {@code massG} is the difference). */
    record CandidateIn(String name, BigDecimal massG, boolean pack) {}

    record BuildIn(String jurisdiction, List<PartIn> parts, List<WeighingIn> weighings, List<CandidateIn> candidates) {}

    record ClassOut(
            String name,
            String means,
            String source,
            BigDecimal headroomG,
            boolean close,
            BigDecimal doubtfulThresholdG) {}

    record CrossingOut(List<String> names, BigDecimal reachesG) {}

    record MassOut(
            BigDecimal takeoffMassG,
            BigDecimal uncertaintyG,
            String restsOn,
            ClassOut massClass,
            List<CrossingOut> crossings,
            List<String> steps) {}

    private final Fleet fleet;

    MassApi(Fleet fleet) {
        this.fleet = fleet;
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @PostMapping("/builds/mass")
    MassOut mass(@RequestBody BuildIn in) {
        if (in.parts() == null || in.parts().isEmpty() || in.parts().size() > MOST_PARTS) {
            throw new ApiConfig.BadRequestException("mass.parts", "parts must hold 1 to " + MOST_PARTS + " parts");
        }
        try {
            TakeoffMass mass = TakeoffMass.of(parts(in), weighings(in));
            List<Headroom.Candidate> candidates = new ArrayList<>();
            if (in.candidates() != null) {
                in.candidates()
                        .forEach(c -> candidates.add(
                                new Headroom.Candidate(c.name(), grams("candidates", c.massG()), c.pack())));
            }
            String jurisdiction = in.jurisdiction() == null ? "EU" : in.jurisdiction();
            Optional<Fleet.Weighed> weighed = fleet.classify(mass, candidates, jurisdiction);
            return new MassOut(
                    out(mass.mass()),
                    out(mass.uncertainty()),
                    mass.weighing().isPresent() ? "weighing" : "sum of the parts",
                    weighed.map(w -> new ClassOut(
                                    w.placement().massClass().name(),
                                    w.placement().massClass().means(),
                                    w.placement().massClass().source(),
                                    w.placement().headroom().map(MassApi::out).orElse(null),
                                    w.placement().close(),
                                    w.placement()
                                            .doubtfulThreshold()
                                            .map(MassApi::out)
                                            .orElse(null)))
                            .orElseThrow(() -> new ApiConfig.BadRequestException(
                                    "mass.jurisdiction",
                                    "there is no rule pack for jurisdiction '" + jurisdiction
                                            + "'; there is one for EU")),
                    weighed.get().crossings().stream()
                            .map(c -> new CrossingOut(c.names(), out(c.reaches())))
                            .toList(),
                    mass.steps());
        } catch (IllegalArgumentException | ArithmeticException e) {
            throw new ApiConfig.BadRequestException("mass.invalid", e.getMessage());
        }
    }

    private static List<Part> parts(BuildIn in) {
        List<Part> parts = new ArrayList<>();
        Set<String> ids = new HashSet<>();
        int n = 0;
        for (PartIn p : in.parts()) {
            n++;
            String id = p.id() == null ? "part" + n : p.id();
            if (!ids.add(id)) {
                throw new IllegalArgumentException("two parts have the id '" + id + "'");
            }
            Mass mass = grams("parts[" + (n - 1) + "].massG", p.massG());
            Optional<Weighing> weighed = p.weighedG() == null
                    ? Optional.empty()
                    : Optional.of(new Weighing(
                            LocalDate.EPOCH,
                            "as given",
                            grams("weighedG", p.weighedG()),
                            grams("weighedResolutionG", p.weighedResolutionG()),
                            Set.of(id)));
            parts.add(new Part(
                    id,
                    p.name() == null ? id : p.name(),
                    mass,
                    p.toleranceG() == null ? Part.defaultTolerance(mass) : grams("toleranceG", p.toleranceG()),
                    weighed));
        }
        return parts;
    }

    private static List<Weighing> weighings(BuildIn in) {
        if (in.weighings() == null) {
            return List.of();
        }
        return in.weighings().stream()
                .map(w -> new Weighing(
                        w.on() == null ? LocalDate.EPOCH : w.on(),
                        w.scale() == null ? "as given" : w.scale(),
                        grams("weighings.massG", w.massG()),
                        grams("weighings.resolutionG", w.resolutionG()),
                        w.partIds() == null ? Set.of() : Set.copyOf(w.partIds())))
                .toList();
    }

    private static Mass grams(String where, BigDecimal g) {
        if (g == null) {
            throw new IllegalArgumentException(where + " is missing; give grams, such as 249.0");
        }
        return Mass.ofGrams(g);
    }

    private static BigDecimal out(Mass m) {
        return new BigDecimal(BigDecimal.valueOf(Math.round(m.toGrams() * 1000), 3)
                .stripTrailingZeros()
                .toPlainString());
    }
}
