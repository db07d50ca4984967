package yarrek.app.api;

import static yarrek.app.api.Said.said;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.OptionalDouble;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import yarrek.app.office.HouseFigures;
import yarrek.app.office.Office;
import yarrek.app.page.OpenTo;
import yarrek.core.charging.ChargeDay;
import yarrek.core.charging.Filling;
import yarrek.core.judging.HouseFigure;
import yarrek.core.pack.Health;
import yarrek.core.pack.PackLife;
import yarrek.core.pack.Retirement;
import yarrek.core.pack.Rotation;
import yarrek.core.pack.Trend;

/** Packs given as JSON: their health over time, which of them flies what, when to charge them; no record is needed. */
@RestController
@RequestMapping("/api/v1/packs")
class PacksApi {
    private static final int MOST_PACKS = 200;

    /**
     * A measurement.
     *
     * @param mah counted between two states of charge
     * @param before state of charge, 0 to 1
     * @param after state of charge, 0 to 1
     */
    record MeasuredIn(LocalDate on, Double mah, Double before, Double after) {}

    /**
     * @param cycles equivalent full cycles so far, 0 or more
     * @param monthlyCycles of the last months, the newest last
     * @param firstUse or bought; left out: not known
     */
    record HealthIn(
            Double designMah,
            List<MeasuredIn> measured,
            Double cycles,
            List<Double> monthlyCycles,
            LocalDate firstUse) {}

    /** @param why there is no value, or how it was had */
    record HealthOut(LocalDate on, Double health, Double sd, String why) {}

    /** @param low and high ends of the interval that holds nine in ten; null with fewer than four measurements */
    record TrendOut(double perYear, Double low, Double high, int measured) {}

    record LifeOut(
            List<HealthOut> measured,
            TrendOut trend,
            LocalDate fasterSince,
            List<LocalDate> lookAt,
            String retire,
            List<String> notKnown,
            List<String> cautions) {}

    /**
     * @param minutes that it lasts today, after the reserve, carefully reckoned
     * @param daysRested left out: as if flown today
     * @param watched flown only where others do not do; left out: not
     * @param barred why it must not fly; left out: nothing that the asker knows speaks against it
     */
    record PackIn(String label, Double cycles, Double minutes, Double daysRested, boolean watched, String barred) {}

    record RotationIn(List<Double> flightsMin, List<PackIn> packs) {}

    record RotationOut(List<String> packs, List<String> refused, List<String> cautions) {}

    record ChargerIn(String name, Integer places, Double watts) {}

    /**
     * @param wh that it holds today
     * @param hours from empty to full at a charger that gives whatever is asked
     * @param from charge now, 0 to 1
     * @param to charge wanted, 0 to 1; usual 1
     */
    record LowIn(String label, Double wh, Double hours, Double from, Double to) {}

    /** @param from when charging may begin; left out: now */
    record ChargeIn(Instant from, Instant readyBy, List<ChargerIn> chargers, List<LowIn> packs) {}

    record ChargeOut(
            List<ChargeDay.Plugged> plugged, int inTime, long waitingMin, String verdict, List<String> cautions) {}

    private final Office office;
    private final HouseFigures figures;
    private final Clock clock;

    PacksApi(Office office, HouseFigures figures, Clock clock) {
        this.office = office;
        this.figures = figures;
        this.clock = clock;
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @PostMapping("/health")
    LifeOut health(@RequestBody HealthIn in) {
        try {
            double design = said("designMah", in.designMah());
            LocalDate today = LocalDate.now(clock.withZone(office.operator().zone()));
            PackLife life = PackLife.of(
                    list("measured", in.measured()).stream()
                            .map(m -> new PackLife.Measured(
                                    said("on", m.on()),
                                    Health.counted(
                                            said("mah", m.mah()),
                                            said("before", m.before()),
                                            said("after", m.after()),
                                            design,
                                            Health.GAUGE,
                                            Health.Way.GAUGE)))
                            .toList(),
                    in.monthlyCycles() == null
                            ? List.of()
                            : list("monthlyCycles", in.monthlyCycles()).stream()
                                    .map(m -> notBelow("monthlyCycles", m))
                                    .toList(),
                    notBelow("cycles", in.cycles()),
                    in.firstUse(),
                    today,
                    Retirement.Ends.HOUSE);
            return new LifeOut(
                    life.measured().stream()
                            .map(m -> new HealthOut(
                                    m.on(),
                                    m.answer()
                                            .health()
                                            .map(h -> thousandths(h.value()))
                                            .orElse(null),
                                    m.answer()
                                            .health()
                                            .map(h -> thousandths(h.sd()))
                                            .orElse(null),
                                    m.answer().why()))
                            .toList(),
                    life.trend().map(PacksApi::yearly).orElse(null),
                    life.knee().map(Trend.Knee::since).orElse(null),
                    life.days().stream()
                            .filter(PackLife.Day::farOff)
                            .map(PackLife.Day::on)
                            .toList(),
                    life.retirement().words(today),
                    life.retirement().missing(),
                    Health.CAUTIONS);
        } catch (IllegalArgumentException e) {
            throw new ApiConfig.BadRequestException("pack.invalid", e.getMessage());
        }
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @PostMapping("/rotation")
    RotationOut rotation(@RequestBody RotationIn in) {
        try {
            Rotation.Choice c = Rotation.choose(
                    list("flightsMin", in.flightsMin()).stream()
                            .map(m -> above("flightsMin", m))
                            .toList(),
                    list("packs", in.packs()).stream()
                            .map(p -> new Rotation.Candidate(
                                    said("label", p.label()),
                                    notBelow("cycles", p.cycles()),
                                    above("minutes", p.minutes()),
                                    p.daysRested() == null ? 0 : p.daysRested(),
                                    p.watched(),
                                    p.barred()))
                            .toList(),
                    Rotation.Weights.house(figures.house().share(HouseFigure.PACK_RESERVE)));
            return new RotationOut(
                    c.packs().stream().map(Rotation.Candidate::label).toList(), c.refused(), Health.CAUTIONS);
        } catch (IllegalArgumentException e) {
            throw new ApiConfig.BadRequestException("pack.invalid", e.getMessage());
        }
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @PostMapping("/charge-plan")
    ChargeOut chargePlan(@RequestBody ChargeIn in) {
        try {
            ChargeDay d = ChargeDay.of(
                    list("packs", in.packs()).stream()
                            .map(p -> new ChargeDay.Low(
                                    said("label", p.label()),
                                    Filling.of(said("wh", p.wh()), said("hours", p.hours())),
                                    said("from", p.from()),
                                    p.to() == null ? 1 : p.to()))
                            .toList(),
                    list("chargers", in.chargers()).stream()
                            .map(c -> new ChargeDay.Charger(
                                    said("name", c.name()), said("places", c.places()), said("watts", c.watts())))
                            .toList(),
                    in.from() == null ? clock.instant() : in.from(),
                    said("readyBy", in.readyBy()));
            return new ChargeOut(d.plugged(), d.inTime(), d.waiting(), d.verdict(), ChargeDay.CAUTIONS);
        } catch (IllegalArgumentException e) {
            throw new ApiConfig.BadRequestException("pack.invalid", e.getMessage());
        }
    }

    private static TrendOut yearly(Trend t) {
        return new TrendOut(
                thousandths(t.perDay() * Trend.DAYS_A_YEAR), yearly(t.low()), yearly(t.high()), t.measured());
    }

    private static Double yearly(OptionalDouble perDay) {
        return perDay.isEmpty() ? null : (Double) thousandths(perDay.getAsDouble() * Trend.DAYS_A_YEAR);
    }

    private static <T> List<T> list(String name, List<T> all) {
        if (said(name, all).size() > MOST_PACKS) {
            throw new IllegalArgumentException(name + " holds at most " + MOST_PACKS + ", got " + all.size());
        }
        all.forEach(one -> said(name, one));
        return all;
    }

    private static double above(String name, Double value) {
        if (!(said(name, value) > 0)) {
            throw new IllegalArgumentException(name + " lies above 0, got " + value);
        }
        return value;
    }

    private static double notBelow(String name, Double value) {
        if (!(said(name, value) >= 0)) {
            throw new IllegalArgumentException(name + " is 0 or more, got " + value);
        }
        return value;
    }

    private static double thousandths(double d) {
        return Math.round(d * 1000) / 1000.0;
    }
}
