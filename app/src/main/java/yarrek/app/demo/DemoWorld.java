package yarrek.app.demo;

import java.io.IOException;
import java.time.Clock;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.context.annotation.Profile;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.airspace.Airspace;
import yarrek.app.fleet.Fleet;
import yarrek.app.office.Office;
import yarrek.app.page.Viewer;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.airspace.ZoneKind;
import yarrek.core.units.Mass;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.zones.ZoneFiles;

/** Fills an empty demo database with the sample world, set around the day it is first started. Everything is invented. */
@Component
@Profile("demo")
class DemoWorld implements ApplicationRunner {
    private static final Logger LOG = LoggerFactory.getLogger(DemoWorld.class);
    static final ZoneId ZONE = ZoneId.of("Atlantic/Azores");
    static final String BY = "sample world";

    private final Office office;
    private final Airspace airspace;
    private final Fleet fleet;
    private final Rulebook rulebook;
    private final DemoTables tables;
    private final DemoFlights flights;
    private final DemoStory story;
    private final Clock clock;

    DemoWorld(
            Office office,
            Airspace airspace,
            Fleet fleet,
            Rulebook rulebook,
            DemoTables tables,
            DemoFlights flights,
            DemoStory story,
            Clock clock) {
        this.office = office;
        this.airspace = airspace;
        this.fleet = fleet;
        this.rulebook = rulebook;
        this.tables = tables;
        this.flights = flights;
        this.story = story;
        this.clock = clock;
    }

    /** All or nothing: a start that is broken off leaves an empty database behind. */
    @Override
    @Transactional(rollbackFor = Exception.class)
    public void run(ApplicationArguments args) throws IOException, BrokenFileException {
        if (!office.isEmpty()) {
            return;
        }
        Viewer viewer = new Viewer(new UUID(0, 0), "manager", BY, "", Viewer.Role.MANAGER, null, true, 0);
        SecurityContextHolder.getContext()
                .setAuthentication(UsernamePasswordAuthenticationToken.authenticated(viewer, null, List.of()));
        try {
            fill(LocalDate.now(clock.withZone(ZONE)), viewer);
        } finally {
            SecurityContextHolder.clearContext();
        }
    }

    private void fill(LocalDate today, Viewer viewer) throws IOException, BrokenFileException {
        office.saveOperator(-1, "Larkmoor Coastal Survey Co-operative", "EU-XT", ZONE, "+351 000 000 000");
        bringIn("tarrow-isles.geojson", "Tarrow Isles zones", "invented by Yarrek for the Tarrow Isles", true, today);
        bringIn("maker-map.geojson", "built-in map of the aircraft", "invented maker's map", false, today);
        for (String register : List.of(
                "crew",
                "pack-models",
                "accessories",
                "models",
                "aircraft",
                "packs",
                "builds",
                "papers",
                "sites",
                "site-things",
                "directory",
                "granters")) {
            tables.register(register);
        }
        rulebook.houseNeeds("maintenanceRelease", "maintenance release", "aircraft", true, BY);
        rulebook.sayRead(
                "EU-XT",
                today.minusDays(40),
                "The invented ordinances of the isles as printed, sections 1 to 14; nothing changed.",
                BY);
        fleet.weigh(
                tables.named("BUILD", "Sorrel, light"),
                today.minusDays(40),
                "bench scale 2",
                Mass.ofGrams(248.8),
                Mass.ofGrams(0.1));
        tables.ownRules(BY);
        tables.register("jobs");
        tables.answers(BY);
        story.before(today);
        flights.fly(today, ZONE, BY);
        story.after(viewer);
        office.createDemoUser("pilot", "Ailsa Fenwright", Viewer.Role.PILOT, tables.named("PILOT", "Ailsa Fenwright"));
        office.createDemoUser("reader", "Auditor", Viewer.Role.READER, null);
        UUID manager = office.createDemoUser(
                "manager",
                "Operations manager",
                Viewer.Role.MANAGER,
                null); // last: its presence says the world is whole
        office.saveMailWish(manager, "manager@larkmoor.example", true);
        LOG.info("the sample world is filled in around {}", today);
    }

    private void bringIn(String file, String name, String attribution, boolean whole, LocalDate today)
            throws IOException, BrokenFileException {
        airspace.bringIn(
                DemoTables.file(file),
                name,
                new Airspace.SourceDraft(name, attribution, today.minusDays(9), Airspace.STALE_DAYS, whole),
                new ZoneFiles.Settings(ZoneKind.OTHER, Optional.empty(), false),
                BY);
    }
}
