package yarrek.app.demo;

import java.io.IOException;
import java.io.InputStream;
import java.math.BigDecimal;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.context.annotation.Profile;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.airspace.Airspace;
import yarrek.app.airspace.Directory;
import yarrek.app.airspace.Sites;
import yarrek.app.airspace.Weather;
import yarrek.app.answers.Answers;
import yarrek.app.approvals.Approvals;
import yarrek.app.approvals.Kinds;
import yarrek.app.chains.Chains;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.flights.Flights;
import yarrek.app.flights.Logs;
import yarrek.app.incidents.Incidents;
import yarrek.app.jobs.JobDraft;
import yarrek.app.jobs.JobDraft.HeightReference;
import yarrek.app.jobs.Jobs;
import yarrek.app.office.Office;
import yarrek.app.page.Viewer;
import yarrek.app.papers.Papers;
import yarrek.app.rulebook.FindingRow;
import yarrek.app.rulebook.OwnRules;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.airspace.HeightLimit;
import yarrek.core.airspace.Timetable;
import yarrek.core.airspace.Zone;
import yarrek.core.airspace.ZoneKind;
import yarrek.core.approval.ApprovalState;
import yarrek.core.approval.Terms;
import yarrek.core.geo.Area;
import yarrek.core.geo.Geodesy;
import yarrek.core.geo.Position;
import yarrek.core.geo.ShapeText;
import yarrek.core.rulebook.FactValue;
import yarrek.core.rulebook.Verdict;
import yarrek.core.rulebook.Vocabulary;
import yarrek.core.rulebook.ZoneMet;
import yarrek.core.units.Mass;
import yarrek.core.weather.Observation;
import yarrek.core.weather.Report;
import yarrek.core.weather.Wind;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.zones.ZoneFiles;

/** Fills an empty demo database with the sample world, set around the day it is first started. Everything is invented. */
@Component
@Profile("demo")
class DemoWorld implements ApplicationRunner {
    private static final Logger LOG = LoggerFactory.getLogger(DemoWorld.class);
    private static final ZoneId ZONE = ZoneId.of("Atlantic/Azores");
    private static final String BY = "sample world";
    private static final Map<String, FactValue> NONE = Map.of("structure.artificial", new FactValue.YesNo(false));

    private final Office office;
    private final Papers papers;
    private final Crew crew;
    private final Fleet fleet;
    private final Airspace airspace;
    private final Sites sites;
    private final Directory directory;
    private final Weather weather;
    private final Jobs jobs;
    private final Flights flights;
    private final Logs logs;
    private final Incidents incidents;
    private final Answers answers;
    private final Rulebook rulebook;
    private final Approvals approvals;
    private final Kinds kinds;
    private final Chains chains;
    private final Clock clock;

    private final Map<String, UUID> ids = new HashMap<>();
    private LocalDate today;
    private int paperNumber = 100;

    DemoWorld(
            Office office,
            Papers papers,
            Crew crew,
            Fleet fleet,
            Airspace airspace,
            Sites sites,
            Directory directory,
            Weather weather,
            Jobs jobs,
            Flights flights,
            Logs logs,
            Incidents incidents,
            Answers answers,
            Rulebook rulebook,
            Approvals approvals,
            Kinds kinds,
            Chains chains,
            Clock clock) {
        this.approvals = approvals;
        this.kinds = kinds;
        this.chains = chains;
        this.office = office;
        this.papers = papers;
        this.crew = crew;
        this.fleet = fleet;
        this.airspace = airspace;
        this.sites = sites;
        this.directory = directory;
        this.weather = weather;
        this.jobs = jobs;
        this.flights = flights;
        this.logs = logs;
        this.incidents = incidents;
        this.answers = answers;
        this.rulebook = rulebook;
        this.clock = clock;
    }

    /** All or nothing: a start that is broken off leaves an empty database behind. */
    @Override
    @Transactional(rollbackFor = Exception.class)
    public void run(ApplicationArguments args) throws IOException, BrokenFileException {
        if (!office.isEmpty()) {
            return;
        }
        today = LocalDate.now(clock.withZone(ZONE));
        ids.put(
                "operator",
                office.saveOperator("Larkmoor Coastal Survey Co-operative", "EU-XT", ZONE, "+351 000 000 000"));
        try (InputStream in = getClass().getResourceAsStream("/demo/tarrow-isles.geojson")) {
            bringIn(in.readAllBytes(), "Tarrow Isles zones", "invented by Yarrek for the Tarrow Isles", true);
        }
        try (InputStream in = getClass().getResourceAsStream("/demo/maker-map.geojson")) {
            bringIn(in.readAllBytes(), "built-in map of the aircraft", "invented maker's map", false);
        }
        people();
        models();
        aircraftAndPacks();
        operatorPapers();
        sites();
        directory();
        ownZones();
        weatherAhead();
        answersGiven();
        ownRules();
        planJobs();
        answers.say(Answers.About.JOB, ids.get("Roost watch at dusk"), Map.of("zone.conditionsKept", "yes"), BY);
        chains();
        fly();
        openIncident();
        office.createUser("pilot", "Ailsa Fenwright", "pilot-demo", Viewer.Role.PILOT, ids.get("Ailsa Fenwright"));
        office.createUser("reader", "Auditor", "reader-demo", Viewer.Role.READER, null);
        UUID manager = office.createUser(
                "manager",
                "Operations manager",
                "manager-demo",
                Viewer.Role.MANAGER,
                null); // last: its presence says the world is whole
        office.saveMailWish(manager, "manager@larkmoor.example", true);
        LOG.info("the sample world is filled in around {}", today);
    }

    // --- people and papers -------------------------------------------------------------------------------------------

    private void people() {
        person("Ailsa Fenwright", 1988);
        person("Tomas Orrel", 1979);
        person("Merete Skaldane", 1992);
        person("Idris Pennow", 1996);
        person("Hanne Loxby", 1984);
        person("Rufus Caldervane", 1971);
        person("Yara Dunmorrow", 2004);
        certificate("Ailsa Fenwright", "A2", -900, 925);
        certificate("Ailsa Fenwright", "A1/A3", -900, 925);
        certificate("Tomas Orrel", "A2", -1810, 16); // runs out in the middle of a job
        certificate("Tomas Orrel", "A1/A3", -1400, 426);
        certificate("Merete Skaldane", "A1/A3", -1790, 24);
        certificate("Idris Pennow", "A1/A3", -1850, -12); // ran out
        certificate("Hanne Loxby", "A2", -400, 1426);
        certificate("Hanne Loxby", "A1/A3", -400, 1426);
        certificate("Rufus Caldervane", "A1/A3", -200, 1626);
        certificate("Yara Dunmorrow", "A1/A3", 9, 1835); // exam passed, not yet valid
        abroad("Hanne Loxby", "pilotCertificate", "advanced", "CA", -800, null);
        abroad("Hanne Loxby", "recencyProof", null, "CA", -700, null); // lapses within the month
        abroad("Ailsa Fenwright", "pilotCertificate", "basic", "CA", -300, null);
        abroad("Ailsa Fenwright", "pilotCertificate", "Flyer ID", "GB", -200, 1625);
        paper("firstAid", null, "pilot", "Ailsa Fenwright", -700, 30, 21, null);
        paper("firstAid", null, "pilot", "Hanne Loxby", -300, 430, 21, null);
        paperWithoutEnd("firstAid", "pilot", "Rufus Caldervane", -500, false);
    }

    private void person(String name, int born) {
        ids.put(name, crew.save(null, -1, name, LocalDate.of(born, 5, 17), "+351 000 000 " + (100 + ids.size())));
    }

    private void certificate(String pilot, String level, int fromDays, int toDays) {
        paper("pilotCertificate", level, "pilot", pilot, fromDays, toDays, 14, null);
    }

    private void paper(
            String kind,
            String level,
            String holderKind,
            String holder,
            Integer fromDays,
            Integer toDays,
            int lead,
            Double sdr) {
        papers.save(
                null,
                -1,
                new Papers.Entry(
                        kind,
                        level,
                        "TI-" + ++paperNumber,
                        "Tarrow Isles Air Office",
                        "EU",
                        holderKind,
                        ids.get(holder),
                        fromDays == null ? null : today.plusDays(fromDays),
                        fromDays == null ? null : today.plusDays(fromDays),
                        toDays == null ? null : today.plusDays(toDays),
                        true,
                        ZONE,
                        lead,
                        "",
                        "seen by the manager",
                        sdr,
                        "",
                        terms(kind)),
                BY);
    }

    /** A paper for one of the trips abroad. */
    private void abroad(String pilot, String kind, String level, String law, int fromDays, Integer toDays) {
        papers.save(
                null,
                -1,
                new Papers.Entry(
                        kind,
                        level,
                        law + "-" + ++paperNumber,
                        "authority of " + law,
                        law,
                        "pilot",
                        ids.get(pilot),
                        today.plusDays(fromDays),
                        today.plusDays(fromDays),
                        toDays == null ? null : today.plusDays(toDays),
                        true,
                        ZONE,
                        14,
                        "",
                        "seen by the manager",
                        null,
                        "",
                        Papers.Terms.NONE),
                BY);
    }

    /** What such papers cost in the sample world. */
    private Papers.Terms terms(String kind) {
        String cost = switch (kind) {
            case "operatorRegistration" -> "31.00";
            case "liabilityInsurance" -> "412.00";
            case "hullInsurance" -> "188.50";
            case "pilotCertificate" -> "25.00";
            case "firstAid" -> "60.00";
            case "maintenanceRelease" -> "95.00";
            default -> null;
        };
        BigDecimal insured = switch (kind) {
            case "liabilityInsurance" -> new BigDecimal("1800000.00");
            case "hullInsurance" -> new BigDecimal("1450.00");
            default -> null;
        };
        return new Papers.Terms(
                cost == null ? null : new BigDecimal(cost),
                cost == null ? null : "EUR",
                kind.equals("pilotCertificate") ? Integer.valueOf(90) : null,
                "",
                "Operations manager",
                today.minusDays(30),
                insured,
                insured == null ? null : "EUR");
    }

    private void paperWithoutEnd(String kind, String holderKind, String holder, int fromDays, boolean endKnown) {
        papers.save(
                null,
                -1,
                new Papers.Entry(
                        kind,
                        null,
                        "TI-" + ++paperNumber,
                        "Tarrow Isles Air Office",
                        "EU",
                        holderKind,
                        ids.get(holder),
                        today.plusDays(fromDays),
                        today.plusDays(fromDays),
                        null,
                        endKnown,
                        ZONE,
                        14,
                        "",
                        "",
                        null,
                        "",
                        Papers.Terms.NONE),
                BY);
    }

    private void operatorPapers() {
        paper("operatorRegistration", null, "operator", "operator", -700, 395, 30, null);
        paper("liabilityInsurance", null, "operator", "operator", -340, 25, 10, 1_500_000.0);
        for (String name : List.of("Thrift", "Campion", "Sorrel", "Marram", "Bracken", "Sedge", "Heath", "Teasel")) {
            paper("markOnAircraft", null, "aircraft", name, -200, null, 0, null);
        }
        paper("hullInsurance", null, "aircraft", "Marram", -340, 25, 10, null);
        for (Fleet.AircraftView a : fleet.aircraft()) {
            switch (a.name()) {
                case "Marram" -> paper("maintenanceRelease", null, "aircraft", a.name(), -170, 12, 7, null);
                case "Heath" -> paper("maintenanceRelease", null, "aircraft", a.name(), -400, -35, 7, null);
                default -> paper("maintenanceRelease", null, "aircraft", a.name(), -150, 260, 7, null);
            }
        }
        rulebook.houseNeeds("maintenanceRelease", "maintenance release", "aircraft", true, BY);
        rulebook.sayRead(
                "EU-XT",
                today.minusDays(40),
                "The invented ordinances of the isles as printed, sections 1 to 14; nothing changed.",
                BY);
    }

    // --- fleet -------------------------------------------------------------------------------------------------------

    private void models() {
        packModel("Brindlewick P1", "80.5", 2250, 2, 7.3);
        packModel("Brindlewick P1 large", "121.4", 3850, 2, 7.3);
        packModel("Vosmere V4", "363.0", 5000, 4, 15.2);
        packModel("Othrane H6", "1240.0", 12000, 6, 22.8);
        accessory("storage card", "card", "0.4", "0.1", null);
        accessory("filter, grey", "filter", "1.2", "0.1", null);
        accessory("filter, polarising", "filter", "1.9", "0.1", null);
        accessory("propeller guards", "guards", "23.0", "0.5", null);
        accessory("strobe, green", "light", "9.8", "0.3", "greenFlashing");
        accessory("floats", "float", "54.0", "1.0", null);
        accessory("tracker", "tracker", "12.5", "0.3", null);
        accessory("spotlight", "payload", "82.0", "1.0", null);
        accessory("thermal head", "payload", "310.0", "3.0", null);
        model(
                "Brindlewick",
                "Tuft",
                "168.5",
                "260",
                "none",
                16.0,
                10.7,
                "none",
                List.of(),
                "Brindlewick P1",
                "Brindlewick P1 large");
        model("Brindlewick", "Tuft 2", "168.0", "249.9", "C0", 16.0, 10.7, "none", List.of(), "Brindlewick P1");
        model("Vosmere", "Ledge", "520.0", "899", "C1", 18.5, 12.0, "builtIn", List.of("position"), "Vosmere V4");
        model(
                "Vosmere",
                "Ledge Pro",
                "560.0",
                "1350",
                "C2",
                20.0,
                12.0,
                "builtIn",
                List.of("position", "greenFlashing"),
                "Vosmere V4");
        model(
                "Othrane",
                "Anvil",
                "3900.0",
                "9000",
                "C3",
                23.0,
                13.8,
                "builtIn",
                List.of("position", "greenFlashing"),
                "Othrane H6");
    }

    private void packModel(String name, String grams, double mah, int cells, double volts) {
        ids.put(
                name,
                fleet.save(new Fleet.PackModelView(null, -1, name, new BigDecimal(grams), null, mah, cells, volts)));
    }

    private void accessory(String name, String kind, String grams, String tolerance, String light) {
        ids.put(
                name,
                fleet.save(new Fleet.AccessoryView(
                        null, -1, name, kind, new BigDecimal(grams), new BigDecimal(tolerance), light)));
    }

    private void model(
            String maker,
            String name,
            String airframe,
            String max,
            String mark,
            double speed,
            double wind,
            String remoteId,
            List<String> lights,
            String... packs) {
        Set<UUID> fit = new java.util.HashSet<>();
        for (String p : packs) {
            fit.add(ids.get(p));
        }
        ids.put(
                name,
                fleet.save(new Fleet.ModelView(
                        null,
                        -1,
                        maker,
                        name,
                        new BigDecimal(airframe),
                        null,
                        new BigDecimal(max),
                        mark,
                        false,
                        true,
                        false,
                        speed,
                        0.4,
                        wind,
                        -10.0,
                        40.0,
                        500.0,
                        remoteId,
                        Set.copyOf(lights),
                        fit)));
    }

    private void aircraftAndPacks() {
        aircraft("Thrift", "Tuft", "BT1-00417", true, null);
        aircraft("Campion", "Tuft", "BT1-00533", true, null);
        aircraft("Sorrel", "Tuft 2", "BT2-01190", false, null);
        aircraft("Yarrow", "Tuft 2", "BT2-01222", false, null);
        aircraft("Marram", "Ledge", "VL-77120", false, true);
        aircraft("Sedge", "Ledge", "VL-77164", false, true);
        aircraft("Bracken", "Ledge Pro", "VLP-3081", false, true);
        aircraft("Heath", "Ledge Pro", "VLP-3094", false, false);
        aircraft("Teasel", "Ledge Pro", "VLP-3107", false, true);
        aircraft("Juniper", "Anvil", "OA-0042", false, true);
        aircraft("Hazel", "Anvil", "OA-0057", false, null);
        for (int i = 1; i <= 14; i++) {
            pack("P" + String.format("%02d", i), i <= 10 ? "Brindlewick P1" : "Brindlewick P1 large", i);
        }
        for (int i = 1; i <= 16; i++) {
            pack("V" + String.format("%02d", i), "Vosmere V4", i);
        }
        for (int i = 1; i <= 8; i++) {
            pack("H" + String.format("%02d", i), "Othrane H6", i);
        }
        build("Thrift", "light", "Brindlewick P1", "storage card");
        build("Thrift", "with filter", "Brindlewick P1", "storage card", "filter, grey");
        build("Campion", "large pack", "Brindlewick P1 large", "storage card");
        build("Sorrel", "light", "Brindlewick P1", "storage card");
        build("Yarrow", "light", "Brindlewick P1", "storage card", "filter, polarising");
        build("Marram", "standard", "Vosmere V4", "storage card");
        build("Marram", "night", "Vosmere V4", "storage card", "strobe, green");
        build("Sedge", "standard", "Vosmere V4", "storage card");
        build("Bracken", "standard", "Vosmere V4", "storage card");
        build("Bracken", "over water", "Vosmere V4", "storage card", "floats", "tracker");
        build("Heath", "standard", "Vosmere V4", "storage card");
        build("Teasel", "thermal", "Vosmere V4", "storage card", "thermal head");
        build("Juniper", "standard", "Othrane H6", "storage card");
        fleet.weigh(
                ids.get("Sorrel/light"), today.minusDays(40), "bench scale 2", Mass.ofGrams(248.8), Mass.ofGrams(0.1));
    }

    private void aircraft(String name, String model, String serial, Boolean before2024, Boolean remoteId) {
        LocalDate market = LocalDate.of(Boolean.TRUE.equals(before2024) ? 2022 : 2024, 5, 12);
        ids.put(
                name,
                fleet.save(
                        new Fleet.AircraftView(
                                null,
                                -1,
                                name,
                                serial,
                                null,
                                market,
                                market.plusDays(40),
                                null,
                                null,
                                null,
                                null,
                                remoteId,
                                remoteId,
                                0,
                                0),
                        ids.get(model)));
    }

    private void pack(String label, String model, int i) {
        ids.put(
                label,
                fleet.save(
                        new Fleet.PackView(
                                null,
                                -1,
                                label,
                                "S" + label + "-" + (4000 + i * 37),
                                null,
                                today.minusDays(90L + i * 61L),
                                0,
                                0,
                                0,
                                0),
                        ids.get(model)));
    }

    private void build(String aircraft, String name, String pack, String... accessories) {
        UUID id = fleet.createBuild(ids.get(aircraft), name, ids.get(pack));
        List<UUID> on = new ArrayList<>();
        for (String a : accessories) {
            on.add(ids.get(a));
        }
        fleet.changeBuild(id, fleet.build(id).version(), ids.get(pack), on);
        ids.put(aircraft + "/" + name, id);
    }

    // --- answers and rules of the house
    // --------------------------------------------------------------------------------

    /** What the operator has answered once, so that its jobs are not asked again. */
    private void answersGiven() {
        answers.say(
                Answers.About.OPERATOR,
                ids.get("operator"),
                Map.of(
                        "procedures.onRecord", "yes",
                        "records.retentionMonths", "36",
                        "thirdCountryOperator", "no",
                        "foreignState", "no",
                        "scenario", "none",
                        "pilot.supervised", "no"),
                BY);
        for (String site : List.of(
                "Skarn cliffs",
                "Lowmere bog",
                "Harbour wall",
                "Inner Sound moorings",
                "Beacon mast",
                "Field edge",
                "Saltings shore")) {
            answers.say(
                    Answers.About.SITE,
                    ids.get(site),
                    Map.of(
                            "uSpace", "no",
                            "airspace.controlled", site.equals("Field edge") ? "yes" : "no",
                            "zoneDemandsRemoteId", "no",
                            "launchPermission", "yes",
                            "event", "none"),
                    BY);
        }
        for (String aircraft : List.of(
                "Thrift", "Campion", "Sorrel", "Yarrow", "Marram", "Sedge", "Bracken", "Heath", "Teasel", "Juniper",
                "Hazel")) {
            answers.say(
                    Answers.About.AIRCRAFT,
                    ids.get(aircraft),
                    Map.of("sailplane", "no", "modified", "no", "aircraft.serviceable", "yes"),
                    BY);
        }
    }

    /** A by-law, a landowner's condition, a maker's limit and a rule of the house, beside the law. */
    private void ownRules() throws BrokenFileException {
        ownRule(
                OwnRules.BoundTo.SITE,
                ids.get("Harbour wall"),
                "{id: PORT-HOURS, title: No flying over berths by night, layer: by-law, severity: stop, phase: time, requires: {fact: light, isOneOf: [day, civilTwilight]}, cite: 'Port Tarrow by-law 12', from: 2021-01-01, confidence: high, remedy: Plan it between dawn and dusk.}");
        ownRule(
                OwnRules.BoundTo.SITE,
                ids.get("Skarn cliffs"),
                "{id: SKARN-HEIGHT, title: Below the colony's ledges, layer: landowner, severity: act, phase: height, requires: {fact: heightAboveGroundM, atMost: 70}, cite: 'Letter of the Skarn estate, condition 3', from: 2024-03-01, confidence: high, remedy: Stay at or below 70 m while birds are on the ledges.}");
        ownRule(
                OwnRules.BoundTo.MODEL,
                ids.get("Ledge Pro"),
                "{id: LEDGEPRO-HEIGHT, title: Greatest height of the Ledge Pro, layer: maker, severity: act, phase: height, requires: {fact: heightAboveTakeoffM, atMost: 100}, cite: 'Vosmere Ledge Pro manual, 7.2', from: 2023-01-01, confidence: high, remedy: Plan it lower or take another model.}");
        ownRule(
                OwnRules.BoundTo.EVERYTHING,
                null,
                "{id: HOUSE-RECENT, title: Flown within three months, layer: house, severity: caution, phase: people, requires: {fact: pilot.lastFlightOn, withinMonths: 3, counting: sameDay}, cite: House limit 11, from: 2024-01-01, confidence: high, remedy: Fly a practice session first.}");
    }

    private void ownRule(OwnRules.BoundTo boundTo, UUID boundId, String yaml) throws BrokenFileException {
        rulebook.saveOwnRule(null, -1, yaml, boundTo, boundId, true, BY);
    }

    // --- places and jobs ---------------------------------------------------------------------------------------------

    private void sites() {
        site(
                "Skarn cliffs",
                46.6505,
                -17.8370,
                18.0,
                900.0,
                true,
                46.6535,
                -17.8405,
                46.6535,
                -17.8330,
                46.6492,
                -17.8330,
                46.6492,
                -17.8405);
        site(
                "Lowmere bog",
                46.6080,
                -17.9020,
                6.0,
                1200.0,
                false,
                46.6110,
                -17.9070,
                46.6118,
                -17.8970,
                46.6055,
                -17.8968,
                46.6050,
                -17.9062);
        site(
                "Harbour wall",
                46.5936,
                -17.8462,
                4.0,
                60.0,
                true,
                46.5955,
                -17.8470,
                46.5955,
                -17.8395,
                46.5920,
                -17.8395,
                46.5920,
                -17.8470);
        site(
                "Inner Sound moorings",
                46.5660,
                -17.8640,
                3.0,
                700.0,
                true,
                46.5690,
                -17.8680,
                46.5690,
                -17.8570,
                46.5630,
                -17.8570,
                46.5630,
                -17.8680);
        site(
                "Beacon mast",
                46.6215,
                -17.8815,
                null,
                2100.0,
                false,
                46.6230,
                -17.8840,
                46.6230,
                -17.8790,
                46.6200,
                -17.8790,
                46.6200,
                -17.8840);
        site(
                "Field edge",
                46.5905,
                -17.9060,
                5.0,
                400.0,
                false,
                46.5925,
                -17.9095,
                46.5925,
                -17.9030,
                46.5885,
                -17.9030,
                46.5885,
                -17.9095);
        site(
                "Saltings shore",
                46.6290,
                -17.9220,
                3.0,
                800.0,
                true,
                46.6325,
                -17.9260,
                46.6325,
                -17.9180,
                46.6270,
                -17.9180,
                46.6270,
                -17.9260);
    }

    private void bringIn(byte[] content, String name, String attribution, boolean whole) throws BrokenFileException {
        airspace.bringIn(
                content,
                name,
                new Airspace.SourceDraft(name, attribution, today.minusDays(9), Airspace.STALE_DAYS, whole),
                new ZoneFiles.Settings(ZoneKind.OTHER, Optional.empty(), false),
                BY);
    }

    private static final Map<String, Double> ELEVATIONS = Map.of(
            "Skarn cliffs", 64.0,
            "Lowmere bog", 22.0,
            "Harbour wall", 4.0,
            "Inner Sound moorings", 1.0,
            "Field edge", 18.0,
            "Saltings shore", 3.0);

    private void site(
            String name, double lat, double lon, Double relief, Double builtUp, boolean water, double... corners) {
        List<Position> area = new ArrayList<>();
        for (int i = 0; i < corners.length; i += 2) {
            area.add(new Position(corners[i], corners[i + 1]));
        }
        boolean visited = !name.equals("Field edge");
        ids.put(
                name,
                sites.save(new Sites.SiteView(
                        null,
                        -1,
                        name,
                        new Position(lat, lon),
                        Area.of(area),
                        "EU-XT",
                        ZONE,
                        ELEVATIONS.get(name),
                        relief,
                        30.0,
                        water ? Wind.Terrain.OPEN_WATER : Wind.Terrain.OPEN_LAND,
                        builtUp,
                        water,
                        things(name, new Position(lat, lon)),
                        new Sites.Particulars(
                                name.equals("Harbour wall") ? "Port Tarrow harbour office" : "Isles common land trust",
                                name.equals("Harbour wall") ? "+351 000 000 140" : "+351 000 000 160",
                                name.equals("Skarn cliffs") ? "none" : "good",
                                name.equals("Field edge") ? "locked: motors stay off" : "nothing shown",
                                visited ? today.minusDays(20) : null,
                                "",
                                null,
                                visited ? today.minusMonths(4) : null,
                                visited ? "Ailsa Fenwright" : "",
                                "first-aid bag and fire blanket in the van",
                                ""),
                        "")));
    }

    /** What stands and lies on a site of the sample world. */
    private static List<Sites.Feature> things(String site, Position launch) {
        return switch (site) {
            case "Beacon mast" ->
                List.of(
                        thing(Sites.FeatureKind.OBSTACLE, "mast", "Beacon mast", 112.0, at(launch, 75, 60)),
                        thing(
                                Sites.FeatureKind.OBSTACLE,
                                "line",
                                "guy ropes",
                                60.0,
                                at(launch, 60, 45) + "; " + at(launch, 75, 60) + "; " + at(launch, 95, 70)),
                        thing(Sites.FeatureKind.EMITTER, "", "transmitter hut", null, at(launch, 110, 130)),
                        thing(
                                Sites.FeatureKind.MEASURE,
                                "",
                                "run past the mast",
                                null,
                                at(launch, 340, 150) + "; " + at(launch, 75, 85) + "; " + at(launch, 120, 260)));
            case "Harbour wall" ->
                List.of(
                        thing(Sites.FeatureKind.OBSTACLE, "crane", "quay crane", 31.0, at(launch, 40, 120)),
                        thing(Sites.FeatureKind.PEOPLE, "", "ferry queue", null, at(launch, 300, 90)),
                        thing(
                                Sites.FeatureKind.ROAD,
                                "",
                                "quay road",
                                null,
                                at(launch, 280, 160) + "; " + at(launch, 20, 210)),
                        thing(Sites.FeatureKind.NO_RECOVERY, "", "outer basin", null, at(launch, 80, 220)),
                        thing(
                                Sites.FeatureKind.MEASURE,
                                "",
                                "along the wall",
                                null,
                                at(launch, 350, 60) + "; " + at(launch, 60, 330) + "; " + at(launch, 85, 450)));
            case "Skarn cliffs" ->
                List.of(
                        thing(Sites.FeatureKind.ALTERNATE, "", "sheepfold", null, at(launch, 190, 140)),
                        thing(Sites.FeatureKind.HAZARD, "", "cliff edge, loose turf", null, at(launch, 10, 60)));
            case "Lowmere bog" ->
                List.of(
                        thing(
                                Sites.FeatureKind.OBSTACLE,
                                "trees",
                                "shelter belt",
                                14.0,
                                at(launch, 250, 190) + "; " + at(launch, 230, 320)),
                        thing(Sites.FeatureKind.ALTERNATE, "", "gravel turning place", null, at(launch, 100, 90)));
            default -> List.of();
        };
    }

    private static Sites.Feature thing(Sites.FeatureKind kind, String sort, String name, Double heightM, String shape) {
        return new Sites.Feature(kind, sort, name, heightM, shape, Sites.Known.SEEN, "");
    }

    private static String at(Position from, double azimuthDeg, double metres) {
        return Geodesy.destination(from, azimuthDeg, metres).toString();
    }

    /** Whom to call in the sample world. */
    private void directory() {
        entry("Islands emergency number", Directory.Role.EMERGENCY, "112", "", "day and night", "", null, "");
        entry(
                "Tarrow tower",
                Directory.Role.TOWER,
                "+351 000 000 110",
                "118.250, Tarrow tower",
                "07:00 to 20:00 local",
                "circle 46.583, -17.925 radius 9 km",
                new Position(46.5838, -17.9262),
                "Ask for the duty controller.");
        entry(
                "Mid-ocean flight information",
                Directory.Role.FLIGHT_INFORMATION,
                "+351 000 000 100",
                "127.900",
                "day and night",
                "",
                null,
                "Say: unmanned aircraft out of control.");
        entry(
                "St Orrin infirmary",
                Directory.Role.HOSPITAL,
                "+351 000 000 120",
                "",
                "day and night",
                "",
                new Position(46.598, -17.872),
                "Pad desk on the same number.");
        entry(
                "Isles coast guard",
                Directory.Role.COASTGUARD,
                "+351 000 000 170",
                "channel 16",
                "day and night",
                "",
                new Position(46.592, -17.846),
                "");
        entry(
                "Isles fire service",
                Directory.Role.FIRE,
                "+351 000 000 180",
                "",
                "day and night",
                "",
                new Position(46.594, -17.866),
                "");
        entry(
                "Isles wardens",
                Directory.Role.LAND,
                "+351 000 000 130",
                "",
                "09:00 to 17:00 local",
                "",
                null,
                "Reserves and roosts.");
    }

    private void entry(
            String name,
            Directory.Role role,
            String phone,
            String radio,
            String hours,
            String area,
            Position place,
            String note) {
        directory.save(new Directory.Entry(
                null,
                -1,
                name,
                role,
                phone,
                radio,
                hours,
                area.isEmpty() ? null : ShapeText.area(area),
                place,
                today.minusDays(role == Directory.Role.TOWER ? 420 : 60),
                "Ailsa Fenwright",
                note));
    }

    /** A private pad that no published source holds. */
    private void ownZones() {
        airspace.saveOwn(
                new Zone(
                        "OWN-Brannoch farm strip",
                        "Brannoch farm strip",
                        ZoneKind.AERODROME,
                        Optional.empty(),
                        ZoneMet.Restriction.CONDITIONAL,
                        Area.circle(new Position(46.6335, -17.8895), 250),
                        HeightLimit.SURFACE,
                        HeightLimit.aboveGround(150),
                        Timetable.ALWAYS,
                        java.util.OptionalDouble.empty(),
                        "Unlisted grass strip, used by crop sprayers in spring. Ring the farm.",
                        "Brannoch farm",
                        "+351 000 000 190"),
                BY);
    }

    /** The simulated hours ahead at the site of the next job. */
    private void weatherAhead() {
        Instant hour = clock.instant().truncatedTo(java.time.temporal.ChronoUnit.HOURS);
        List<Observation> hours = new ArrayList<>();
        for (int h = -2; h <= 72; h++) {
            double wave = Math.sin(2 * Math.PI * h / 31.0);
            hours.add(new Observation(
                    hour.plusSeconds(3600L * h),
                    java.util.OptionalDouble.of(230 + ((int) (wave * 3)) * 10),
                    false,
                    java.util.OptionalDouble.empty(),
                    java.util.OptionalDouble.empty(),
                    java.util.OptionalDouble.of(Math.round((4 + wave * 1.4) * 10) / 10.0),
                    java.util.OptionalDouble.of(Math.round((6.2 + wave * 2) * 10) / 10.0),
                    10,
                    java.util.OptionalDouble.of(10_000),
                    List.of(),
                    List.of(new Observation.Layer("cloud", java.util.OptionalDouble.of(520 + ((int) (wave * 90))), "")),
                    false,
                    java.util.OptionalDouble.of(Math.round((11.5 + wave) * 10) / 10.0),
                    java.util.OptionalDouble.of(7.2),
                    java.util.OptionalDouble.empty(),
                    Optional.of(false),
                    List.of()));
        }
        weather.add(ids.get("Lowmere bog"), Report.Kind.FORECAST, "", hours, "simulated weather station", BY);
    }

    private void planJobs() {
        Map<String, FactValue> mast = Map.of(
                "structure.heightM", new FactValue.Quantity(112, 0),
                "structure.distanceM", new FactValue.Quantity(40, 0),
                "structure.artificial", new FactValue.YesNo(true),
                "structure.requestedByOwner", new FactValue.YesNo(true));
        job(
                "Peat bog grid, north",
                "Lowmere bog",
                1,
                1,
                10,
                14,
                "A3",
                90.0,
                420.0,
                200.0,
                NONE,
                "Hanne Loxby",
                "Rufus Caldervane",
                "Bracken/standard",
                6.0,
                11.0,
                Boolean.TRUE);
        job(
                "Harbour wall, winter state",
                "Harbour wall",
                2,
                3,
                9,
                12,
                "A2",
                40.0,
                250.0,
                32.0,
                NONE,
                "Ailsa Fenwright",
                "Merete Skaldane",
                "Bracken/over water",
                null,
                null,
                null);
        job(
                "Cliff faces, autumn count",
                "Skarn cliffs",
                4,
                6,
                11,
                15,
                "A1",
                75.0,
                380.0,
                120.0,
                NONE,
                "Ailsa Fenwright",
                "Hanne Loxby",
                "Sorrel/light",
                null,
                null,
                null);
        job(
                "Mooring chains, east row",
                "Inner Sound moorings",
                5,
                5,
                10,
                13,
                "A2",
                50.0,
                480.0,
                60.0,
                NONE,
                "Idris Pennow",
                null,
                "Bracken/over water",
                null,
                null,
                null);
        job(
                "Mast inspection",
                "Beacon mast",
                8,
                8,
                10,
                12,
                "A3",
                125.0,
                160.0,
                150.0,
                mast,
                "Hanne Loxby",
                "Tomas Orrel",
                "Heath/standard",
                null,
                null,
                null);
        job(
                "Field edge drainage",
                "Field edge",
                9,
                9,
                13,
                15,
                "A3",
                60.0,
                300.0,
                160.0,
                NONE,
                "Rufus Caldervane",
                null,
                "Juniper/standard",
                null,
                null,
                null);
        job(
                "Roost watch at dusk",
                "Saltings shore",
                11,
                11,
                16,
                20,
                "A1",
                55.0,
                300.0,
                90.0,
                NONE,
                "Merete Skaldane",
                "Ailsa Fenwright",
                "Marram/night",
                null,
                null,
                null);
        job(
                "Bog gas survey",
                "Lowmere bog",
                14,
                18,
                9,
                15,
                "A2",
                70.0,
                450.0,
                80.0,
                NONE,
                "Tomas Orrel",
                "Hanne Loxby",
                "Teasel/thermal",
                null,
                null,
                null);
        job(
                "Regatta film, club race",
                "Inner Sound moorings",
                20,
                20,
                11,
                16,
                null,
                45.0,
                350.0,
                null,
                NONE,
                null,
                null,
                null,
                null,
                null,
                null);
        job(
                "Harbour wall, monthly",
                "Harbour wall",
                -9,
                -9,
                10,
                12,
                "A2",
                40.0,
                250.0,
                45.0,
                NONE,
                "Ailsa Fenwright",
                "Hanne Loxby",
                "Bracken/over water",
                5.0,
                12.0,
                Boolean.TRUE);
        job(
                "Peat bog grid, south",
                "Lowmere bog",
                -4,
                -4,
                10,
                14,
                "A3",
                110.0,
                450.0,
                200.0,
                NONE,
                "Hanne Loxby",
                null,
                "Bracken/standard",
                6.0,
                10.0,
                Boolean.TRUE);
        job(
                "Cliff faces, trial",
                "Skarn cliffs",
                -2,
                -2,
                11,
                14,
                "A1",
                80.0,
                400.0,
                100.0,
                NONE,
                "Ailsa Fenwright",
                "Hanne Loxby",
                "Sorrel/light",
                6.0,
                9.0,
                Boolean.TRUE);
        jobs.setState(ids.get("Harbour wall, monthly"), "FLOWN");
        approval(
                "Harbour wall, monthly",
                "POR-118",
                "Port Tarrow harbour office",
                -12,
                -8,
                "Keep off berthed ships.",
                "POR-HAR");
        approval(
                "Field edge drainage",
                "TAR-2211",
                "Tarrow Field tower",
                7,
                12,
                "Call the tower before take-off and after landing.",
                "TAR-AD");
    }

    // --- approvals ---------------------------------------------------------------------------------------------------

    /** A job of three days in the surroundings of an aerodrome, its chain half gone through, and one of last spring. */
    private void chains() throws BrokenFileException {
        kinds.savePlans(
                Map.of(
                        "normal",
                        "Brief the crew: who flies, who watches, who speaks to passers-by.\nWalk the launch point, look at wind and people again.\nTake off, hold at 3 m, check control and picture, then fly the plan.",
                        "emergency",
                        "Land at once at the nearest clear place.\nAnybody hurt: first aid, then the emergency number.\nNote time, position, height; keep the log as it is.",
                        "lostLink",
                        "The aircraft climbs to its return height and comes home; the observer calls where it is.\nNo return within one minute: act as for a fly-away.",
                        "flyAway",
                        "Call the tower by the number on the emergency card: position, heading, height, minutes left, description.\nKeep watching; keep trying; tell when it is down."),
                List.of(
                        new Kinds.Risk(
                                "Aircraft falls",
                                "walkers on the track",
                                "track watched by the observer, flight held while anybody is within 30 m",
                                "a fall between two looks"),
                        new Kinds.Risk(
                                "Link is lost",
                                "people at the field",
                                "return height above every obstacle, home point checked",
                                "wind above the maker's limit on the way"),
                        new Kinds.Risk(
                                "Light aircraft low over the field",
                                "crew of that aircraft",
                                "call with the tower before each flight, observer looks out, descend at once",
                                "an aircraft without radio")));
        // decided requests of last spring: how long the tower takes
        job(
                "Field edge, spring levels",
                "Field edge",
                -160,
                -157,
                10,
                13,
                "A3",
                60.0,
                300.0,
                160.0,
                NONE,
                "Hanne Loxby",
                "Ailsa Fenwright",
                "Bracken/standard",
                5.0,
                12.0,
                Boolean.TRUE);
        jobs.setState(ids.get("Field edge, spring levels"), "FLOWN");
        Jobs.JobView spring = jobs.jobUnchecked(ids.get("Field edge, spring levels"));
        int[] took = {4, 6, 5, 9};
        for (int i = 0; i < took.length; i++) {
            UUID a = chains.begin(spring, "zoneEU@TAR-AD#" + (i + 1), BY);
            approvals.move(a, ApprovalState.SENT, at(-180 + i), "", BY);
            approvals.grant(
                    a,
                    new Approvals.Grant(
                            "TAR-19" + (10 + i), approvals.approval(a).request(), "", ZONE),
                    at(-180 + i + took[i]),
                    BY);
        }
        job(
                "Field edge, drainage levels",
                "Field edge",
                33,
                35,
                10,
                13,
                "A3",
                60.0,
                300.0,
                160.0,
                NONE,
                "Hanne Loxby",
                "Ailsa Fenwright",
                "Bracken/standard",
                5.0,
                9.0,
                Boolean.TRUE);
        Jobs.JobView levels = jobs.jobUnchecked(ids.get("Field edge, drainage levels"));
        UUID first = chains.begin(levels, "zoneEU@TAR-AD#1", BY);
        approvals.spend(first, 1.5, BY);
        approvals.keep(
                first,
                Approvals.LetterKind.LETTER_OUT,
                at(-9),
                "To the tower of Tarrow Field: three mornings of levels along the drain east of the runway, 60 m above ground at most. Map and corners attached.",
                "",
                null,
                BY);
        approvals.move(first, ApprovalState.SENT, at(-9), "", BY);
        Area wide = levels.site().area();
        Terms asked = approvals.approval(first).request();
        Terms narrower = new Terms(
                asked.from(),
                asked.to(),
                ShapeText.write(Area.circle(wide.middle(), 0.42 * wide.figures().extentM())),
                50.0,
                "50 m above ground",
                asked.aircraft(),
                asked.pilots(),
                asked.purpose(),
                asked.quotes(),
                Set.of());
        approvals.grant(
                first,
                new Approvals.Grant(
                        "TAR-2290",
                        narrower,
                        "Call the tower 15 minutes before take-off and after landing.\nDescend at once when told.",
                        ZONE),
                at(-3),
                BY);
        UUID second = chains.begin(levels, "zoneEU@TAR-AD#2", BY);
        approvals.move(second, ApprovalState.SENT, at(-8), "", BY);
        chains.begin(levels, "zoneEU@TAR-AD#3", BY);
        chains.begin(levels, "unlock#1", BY);
    }

    private Instant at(int days) {
        return today.plusDays(days).atTime(10, 30).atZone(ZONE).toInstant();
    }

    private void approval(
            String job, String number, String issuer, int fromDays, int toDays, String conditions, String lifts) {
        papers.save(
                null,
                -1,
                new Papers.Entry(
                        "approval",
                        null,
                        number,
                        issuer,
                        "EU",
                        "job",
                        ids.get(job),
                        today.minusDays(15),
                        today.plusDays(fromDays),
                        today.plusDays(toDays),
                        true,
                        ZONE,
                        3,
                        conditions,
                        "by telephone",
                        null,
                        lifts,
                        Papers.Terms.NONE),
                BY);
    }

    private void job(
            String name,
            String site,
            int firstDay,
            int lastDay,
            int fromHour,
            int toHour,
            String subcategory,
            Double height,
            Double distance,
            Double people,
            Map<String, FactValue> structure,
            String pilot,
            String observer,
            String build,
            Double wind,
            Double temperature,
            Boolean fit) {
        Map<String, FactValue> said = new TreeMap<>(structure);
        put(said, "purpose", "work");
        put(said, "category", "open");
        put(said, "subcategory", subcategory);
        put(said, "pilotDistanceM", distance);
        put(said, "peopleDistanceM", people);
        put(said, "lowSpeedMode", "no");
        put(said, "groundSpeedMps", 8);
        put(said, "weather.windMps", wind);
        put(said, "weather.temperatureC", temperature);
        put(said, "pilot.fit", fit == null ? null : fit ? "yes" : "no");
        put(said, "pilot.hoursSinceAlcohol", fit == null ? null : 14);
        if (subcategory != null) {
            put(said, "overPeople", "none");
            put(said, "assembly", "no");
            put(said, "sight", "VLOS");
            put(said, "emergency.ongoing", "no");
            put(said, "dangerousGoodsOrDropping", "no");
            put(said, "autoModesAmongObstacles", "no");
        }
        ids.put(
                name,
                jobs.save(
                        null,
                        -1,
                        new JobDraft(
                                name,
                                ids.get(site),
                                today.plusDays(firstDay),
                                today.plusDays(lastDay),
                                LocalTime.of(fromHour, 0),
                                LocalTime.of(toHour, 0),
                                height,
                                HeightReference.TAKEOFF,
                                pilot == null ? null : ids.get(pilot),
                                observer == null ? null : ids.get(observer),
                                build == null ? null : ids.get(build),
                                said)));
    }

    private static void put(Map<String, FactValue> said, String fact, Object value) {
        if (value != null) {
            said.put(fact, FactValue.of(Vocabulary.define(fact), value.toString()));
        }
    }

    // --- flights -----------------------------------------------------------------------------------------------------

    private void fly() throws BrokenFileException {
        Position bog = new Position(46.6080, -17.9020);
        Position wall = new Position(46.5936, -17.8462);
        Position cliff = new Position(46.6505, -17.8370);
        for (int i = 0; i < 8; i++) {
            flight(
                    i,
                    "Peat bog grid, south",
                    bog,
                    at(-4, 10, 5 + i * 24),
                    "Bracken",
                    "V" + String.format("%02d", 1 + i % 6),
                    "Hanne Loxby",
                    5000,
                    4,
                    98 - i,
                    6,
                    grid(60 + 45 * (i % 4), 260 + i * 12, i == 3 ? 128 : 88),
                    i % 4 != 3);
        }
        for (int i = 0; i < 6; i++) {
            flight(
                    20 + i,
                    "Harbour wall, monthly",
                    wall,
                    at(-9, 10, 8 + i * 17),
                    "Bracken",
                    "V" + String.format("%02d", 7 + i),
                    "Ailsa Fenwright",
                    5000,
                    4,
                    97,
                    5,
                    line(210 + i * 8, 80, 38),
                    true);
        }
        for (int i = 0; i < 7; i++) {
            flight(
                    40 + i,
                    "Cliff faces, trial",
                    cliff,
                    at(-2, 11, 10 + i * 22),
                    "Sorrel",
                    "P" + String.format("%02d", 1 + i),
                    "Ailsa Fenwright",
                    2250,
                    2,
                    96,
                    i == 5 ? 9 : 6,
                    line(150 + i * 20, 60 + (i == 6 ? 520 : 0), 70 + i * 3),
                    i % 2 == 0);
        }
        for (int i = 0; i < 9; i++) {
            boolean strayed = i == 4;
            flight(
                    60 + i,
                    null,
                    new Position(46.6010 + i * 0.0012, -17.9010 - i * 0.001),
                    at(-30 - i * 6, 13, 15 + i),
                    i % 2 == 0 ? "Marram" : "Thrift",
                    i % 2 == 0 ? "V13" : "P09",
                    i % 3 == 0 ? "Merete Skaldane" : i % 3 == 1 ? "Rufus Caldervane" : "Tomas Orrel",
                    i % 2 == 0 ? 5000 : 2250,
                    i % 2 == 0 ? 4 : 2,
                    95,
                    4,
                    strayed ? line(-640, -900, 60) : grid(40, 160, 45 + i * 5),
                    i % 3 != 2);
        }
        for (Flights.Row f : flights.newest(manager(), 0, 100)) {
            if (f.takeoff().isBefore(at(-3, 0, 0)) && f.breached() == 0) {
                flights.lookedAt(f.id());
            }
        }
    }

    private Instant at(int days, int hour, int minute) {
        return today.plusDays(days).atTime(hour, 0).atZone(ZONE).toInstant().plusSeconds(minute * 60L);
    }

    private void flight(
            long seed,
            String job,
            Position launch,
            Instant start,
            String aircraft,
            String pack,
            String pilot,
            double mah,
            int cells,
            double pct,
            double wind,
            List<FlightSimulator.Leg> legs,
            boolean csv)
            throws BrokenFileException {
        List<FlightSimulator.Sample> samples = new FlightSimulator(seed, launch, mah, cells, pct, wind, 8).fly(legs);
        byte[] log = csv ? FlightSimulator.csv(start, samples) : FlightSimulator.gpx(start, samples, 40);
        Flights.Attribution to = new Flights.Attribution(
                ids.get(aircraft), ids.get(pack), ids.get(pilot), job == null ? null : ids.get(job));
        logs.bringInDirectly("simulated-" + seed + (csv ? ".csv" : ".gpx"), log, Optional.empty(), to, BY);
    }

    private static List<FlightSimulator.Leg> grid(double spacing, double length, double height) {
        List<FlightSimulator.Leg> legs = new ArrayList<>();
        legs.add(new FlightSimulator.Leg(0, 0, height, 2));
        for (int i = 0; i < 4; i++) {
            double x = -spacing * 1.5 + spacing * i;
            legs.add(new FlightSimulator.Leg(x, i % 2 == 0 ? 20 : length, height, 0));
            legs.add(new FlightSimulator.Leg(x, i % 2 == 0 ? length : 20, height, 0));
        }
        return legs;
    }

    private static List<FlightSimulator.Leg> line(double east, double north, double height) {
        return List.of(
                new FlightSimulator.Leg(0, 0, height, 3),
                new FlightSimulator.Leg(east, north * 0.2, height, 6),
                new FlightSimulator.Leg(east, north, height * 0.8, 8),
                new FlightSimulator.Leg(east * 0.4, north, height, 4));
    }

    private Viewer manager() {
        return new Viewer(new UUID(0, 0), "manager", BY, "", Viewer.Role.MANAGER, null, true);
    }

    private void openIncident() {
        for (Flights.Row f : flights.newest(manager(), 0, 100)) {
            Flights.FlightView view = flights.flight(f.id(), manager());
            for (FindingRow x : view.assessment().with(Verdict.BREACHED.name())) {
                if (x.ruleId().startsWith("EU-HEIGHT") && !x.intervals().isEmpty()) {
                    Incidents.View v = incidents.fromBreach(f.id(), x.ruleId(), 0, manager());
                    incidents.save(
                            new Incidents.View(
                                    null,
                                    -1,
                                    v.kind(),
                                    "Height set above take-off instead of above ground on the last grid; noticed when the log was brought in.",
                                    v.happenedAt(),
                                    v.lat(),
                                    v.lon(),
                                    v.flightId(),
                                    v.ruleId(),
                                    v.breach(),
                                    "none",
                                    "OPEN",
                                    null,
                                    null,
                                    v.about()),
                            manager());
                    return;
                }
            }
        }
    }
}
