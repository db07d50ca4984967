package yarrek.core.rulebook;

import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** The facts that rules may speak of. One name for one thing; the unit stands last in the name. */
public final class Vocabulary {
    private static final Map<String, FactDefinition> FACTS = new LinkedHashMap<>();

    static {
        word("jurisdiction", "Jurisdiction", "Which state's rules hold at the place?");
        word("category", "Category", "In which category is it flown?", "open", "specific", "certified");
        word("subcategory", "Subcategory", "Which subcategory: A1, A2 or A3?", "A1", "A2", "A3");
        word("purpose", "Purpose", "What is the flight for?", "recreation", "work");
        quantity("takeoffMassG", "g", "Take-off mass", "What does the build weigh as it takes off?");
        quantity(
                "maxTakeoffMassG",
                "g",
                "Declared greatest take-off mass",
                "What take-off mass does the maker declare?");
        word(
                "classMark",
                "Class mark",
                "Which class mark is on the aircraft?",
                "none",
                "C0",
                "C1",
                "C2",
                "C3",
                "C4",
                "C5",
                "C6");
        yesNo("privatelyBuilt", "Privately built", "Was it built for the builder's own use?");
        yesNo(
                "marketedBefore2024",
                "On the market before 1 January 2024",
                "Was this unit first placed on the market before 1 January 2024?");
        yesNo(
                "hasCamera",
                "Carries a camera or other personal-data sensor",
                "Can it take pictures, heat images or sound?");
        yesNo("isToy", "Toy by law", "Is it a toy within the toy-safety law?");
        quantity("maxLevelSpeedMps", "m/s", "Greatest level speed", "How fast is it in level flight?");
        quantity("dimensionM", "m", "Greatest dimension", "What is its greatest dimension?");
        yesNo("marked", "Registration mark in place", "Is the mark on the aircraft, with a photo?");
        word(
                "remoteId",
                "Remote identification",
                "Which remote identification is fitted?",
                "none",
                "module",
                "builtIn");
        yesNo(
                "remoteIdActive",
                "Remote identification active and loaded",
                "Is remote identification switched on and loaded with the operator's number?");
        yesNo("geoAwarenessCurrent", "Geo-awareness data current", "Is the zone data on the aircraft up to date?");
        words("lights", "Lights fitted", "Which lights are fitted?");
        quantity("pilot.ageYears", "years", "Pilot's age", "How old is the pilot on the day?");
        quantity("pilot.hoursSinceAlcohol", "h", "Hours since alcohol", "How many hours since the pilot last drank?");
        yesNo("pilot.fit", "Pilot fit to fly", "Does the pilot say they are fit on the day?");
        quantity(
                "pilot.aircraftAtOnce",
                "aircraft",
                "Aircraft per pilot at a time",
                "How many aircraft does the pilot fly at once?");
        word("observer", "Observer", "Is there an observer, and where?", "none", "besidePilot", "airspace");
        word(
                "sight",
                "Sight of the aircraft",
                "How is the aircraft kept in sight?",
                "VLOS",
                "withObserver",
                "EVLOS",
                "followMe",
                "FPV",
                "BVLOS");
        quantity("heightAboveGroundM", "m", "Height above ground", "How high above the ground below it?");
        quantity(
                "heightAboveSurfaceM",
                "m",
                "Height above the closest surface",
                "How far from the closest point of the surface?");
        quantity("heightAboveTakeoffM", "m", "Height above take-off", "How high above the take-off point?");
        quantity("structure.heightM", "m", "Height of the structure", "How tall is the structure flown at?");
        quantity("structure.distanceM", "m", "Distance to the structure", "How far from the structure does it stay?");
        yesNo("structure.artificial", "Artificial structure", "Is the structure made by people?");
        yesNo(
                "structure.requestedByOwner",
                "Asked for by the structure's owner",
                "Has the entity responsible asked for it?");
        quantity("peopleDistanceM", "m", "Distance to uninvolved people", "How near are uninvolved people?");
        word(
                "overPeople",
                "Flight over uninvolved people",
                "Will uninvolved people be overflown?",
                "none",
                "unexpected",
                "expected",
                "sustained");
        yesNo("assembly", "Over an assembly of people", "Are people packed so densely that they cannot move away?");
        quantity(
                "builtUpDistanceM",
                "m",
                "Distance to built-up or recreational area",
                "How far is the nearest residential, commercial, industrial or recreational area?");
        quantity("pilotDistanceM", "m", "Distance from the pilot", "How far from the pilot does it go?");
        quantity("groundSpeedMps", "m/s", "Ground speed", "How fast over the ground?");
        yesNo("lowSpeedMode", "Low-speed mode active", "Is the certified low-speed mode on?");
        word("light", "Light", "Day, civil twilight or night?", "day", "civilTwilight", "night");
        yesNo("zoneDataCurrent", "Zone data current", "Has the zone data of the place been refreshed?");
        yesNo(
                "cautionArea",
                "In a caution area or controlled airspace",
                "Does the area meet controlled airspace or a caution area?");
        yesNo(
                "emergency.ongoing",
                "Emergency response under way",
                "Is an emergency response under way at or near the site?");
        yesNo(
                "emergency.permission",
                "Permission of the emergency services",
                "Have the emergency services given permission?");
        yesNo(
                "dangerousGoodsOrDropping",
                "Dangerous goods or dropping",
                "Is anything dangerous carried, or anything dropped?");
        yesNo("overWater", "Over water", "Is any of the flight over water?");
        yesNo(
                "autoModesAmongObstacles",
                "Automated modes among obstacles",
                "Are automated modes used among obstacles?");
        quantity("weather.windMps", "m/s", "Wind at flight height", "What wind is expected at flight height?");
        quantity("weather.gustMps", "m/s", "Gusts at flight height", "What gusts are expected at flight height?");
        quantity("weather.temperatureC", "°C", "Air temperature", "What air temperature is expected?");
        quantity("maker.windMps", "m/s", "Maker's wind limit", "What wind does the maker allow?");
        quantity(
                "maker.temperatureMinC", "°C", "Maker's lowest temperature", "What is the maker's lowest temperature?");
        quantity(
                "maker.temperatureMaxC",
                "°C",
                "Maker's highest temperature",
                "What is the maker's highest temperature?");
        quantity("maker.heightM", "m", "Maker's greatest height", "What height above take-off does the maker allow?");
        quantity("batteryPct", "%", "Charge left", "What charge is left at landing?");
        yesNo(
                "procedures.onRecord",
                "Procedures on record",
                "Are the operator's procedures for this kind of work on record?");
        yesNo("involvedBriefed", "Involved people briefed and agreed", "Have involved people been briefed and agreed?");
        words("documentsCarried", "Documents carried", "Which documents does the pilot carry?");
        quantity(
                "insurance.amountSdr",
                "SDR",
                "Liability cover per accident",
                "How much does the liability insurance cover?");
        yesNo("thirdCountryOperator", "Operator based outside the Union", "Is the operator based outside the Union?");
    }

    private Vocabulary() {}

    /** @throws IllegalArgumentException if there is no such word */
    public static FactDefinition define(String name) {
        FactDefinition definition = FACTS.get(name);
        if (definition == null) {
            throw new IllegalArgumentException(
                    "no fact called '" + name + "'; the vocabulary is listed at /rulebook/words");
        }
        return definition;
    }

    public static boolean knows(String name) {
        return FACTS.containsKey(name);
    }

    public static Collection<FactDefinition> all() {
        return List.copyOf(FACTS.values());
    }

    private static void quantity(String name, String unit, String label, String question) {
        FACTS.put(name, new FactDefinition(name, FactType.QUANTITY, unit, label, question, Set.of()));
    }

    private static void yesNo(String name, String label, String question) {
        FACTS.put(name, new FactDefinition(name, FactType.YES_NO, "", label, question, Set.of()));
    }

    private static void word(String name, String label, String question, String... words) {
        FACTS.put(
                name,
                new FactDefinition(name, FactType.WORD, "", label, question, new LinkedHashSet<>(List.of(words))));
    }

    private static void words(String name, String label, String question) {
        FACTS.put(name, new FactDefinition(name, FactType.WORDS, "", label, question, Set.of()));
    }
}
