package yarrek.app.demo;

import java.io.IOException;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;
import yarrek.app.airspace.Airspace;
import yarrek.app.fleet.Fleet;
import yarrek.app.office.Office;
import yarrek.app.page.Viewer;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.airspace.ZoneKind;
import yarrek.core.units.Mass;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.zones.ZoneFiles;

/** The sample world, set around the day on which it is filled in. Everything is invented. */
@Component
class DemoWorld {
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

    DemoWorld(
            Office office,
            Airspace airspace,
            Fleet fleet,
            Rulebook rulebook,
            DemoTables tables,
            DemoFlights flights,
            DemoStory story) {
        this.office = office;
        this.airspace = airspace;
        this.fleet = fleet;
        this.rulebook = rulebook;
        this.tables = tables;
        this.flights = flights;
        this.story = story;
    }

    /** The records of the sample world, for a house that has an operator, logins and settings of its own. */
    void sample(LocalDate today, Viewer viewer) throws IOException, BrokenFileException {
        zonesAndRegisters(today);
        jobs();
        story.around(today);
        flights.fly(today, ZONE, BY);
        story.after(viewer);
    }

    /** The whole of it, with its operator and logins, in an empty database. */
    void fill(LocalDate today, Viewer viewer) throws IOException, BrokenFileException {
        office.saveOperator(-1, "Larkmoor Coastal Survey Co-operative", "EU-XT", ZONE, "+351 000 000 000");
        zonesAndRegisters(today);
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
        jobs();
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

    private void jobs() throws IOException, BrokenFileException {
        for (String register : List.of("jobs", "flights-planned", "crew-of-jobs", "builds-of-jobs")) {
            tables.register(register);
        }
    }

    private void zonesAndRegisters(LocalDate today) throws IOException, BrokenFileException {
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
