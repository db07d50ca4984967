package yarrek.app.api;

import java.time.Clock;
import java.time.LocalDate;
import java.util.List;
import java.util.UUID;
import org.springframework.format.annotation.DateTimeFormat;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import yarrek.app.airspace.Sites;
import yarrek.app.field.Lookout;
import yarrek.app.page.OpenTo;
import yarrek.core.geo.Area;

/** Sites and what a plan meets at them. */
@RestController
@RequestMapping("/api/v1/sites")
class PlacesApi {
    private final Sites sites;
    private final Lookout lookout;
    private final Clock clock;

    PlacesApi(Sites sites, Lookout lookout, Clock clock) {
        this.sites = sites;
        this.lookout = lookout;
        this.clock = clock;
    }

    /** Degrees, square metres and metres. */
    record Site(
            UUID id,
            String name,
            String jurisdiction,
            String zone,
            double launchLatitudeDeg,
            double launchLongitudeDeg,
            double areaM2,
            double perimeterM,
            double extentM) {}

    /** @param stands binds, caution, not known, maker's map, or does not concern it */
    record ZoneMet(
            String id,
            String name,
            String kind,
            String restriction,
            String heights,
            String stands,
            String why,
            double overlapM2,
            double share) {}

    /** @param freshness none, stale or current: stale zones say nothing any more */
    record Look(String freshness, String maps, String follows, List<ZoneMet> zones) {}

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping
    List<Site> sites() {
        return sites.sites().stream()
                .map(s -> {
                    Area.Figures f = s.area().figures();
                    return new Site(
                            s.id(),
                            s.name(),
                            s.jurisdiction(),
                            s.zone().getId(),
                            s.launch().latitudeDeg(),
                            s.launch().longitudeDeg(),
                            f.areaM2(),
                            f.perimeterM(),
                            f.extentM());
                })
                .toList();
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/{id}/zones")
    Look zones(
            @PathVariable("id") UUID id,
            @RequestParam(value = "heightM", required = false) Double heightM,
            @RequestParam(value = "build", required = false) UUID build,
            @RequestParam(value = "day", required = false) @DateTimeFormat(iso = DateTimeFormat.ISO.DATE)
                    LocalDate day) {
        if (heightM != null && !(heightM >= 0 && heightM <= 10_000)) {
            throw new ApiConfig.BadRequestException(
                    "site.height", "heightM must be 0 to 10000 m above ground, got " + heightM);
        }
        LocalDate on = day == null ? LocalDate.now(clock.withZone(sites.site(id).zone())) : day;
        Lookout.ZoneView v = lookout.zones(lookout.ofSite(id, build, heightM, on));
        return new Look(
                v.freshness().name().toLowerCase(java.util.Locale.ROOT),
                v.comparison().words(),
                v.comparison().follows(),
                v.rows().stream()
                        .map(r -> new ZoneMet(
                                r.met().zone().id(),
                                r.met().zone().name(),
                                r.met().zone().kind().words(),
                                r.met().zone().restriction().name(),
                                r.met().zone().heights(),
                                r.stands(),
                                r.why(),
                                r.met().overlapM2(),
                                r.met().share()))
                        .toList());
    }
}
