package yarrek.app.jobs;

import java.time.LocalDate;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import yarrek.app.airspace.Sites;
import yarrek.app.crew.Crew;
import yarrek.app.fleet.Fleet;
import yarrek.app.web.Form;

/** The form of a job: what is asked, and how it is read. */
final class JobForm {
    private JobForm() {}

    static Form of(
            String title,
            String action,
            String back,
            List<Sites.SiteView> sites,
            List<Crew.PersonView> crew,
            List<Fleet.BuildView> builds) {
        return new Form(title, action, back)
                .group("What, where and when")
                .text("name", "Name", "")
                .select(
                        "siteId",
                        "Site",
                        "",
                        options(
                                "choose",
                                sites.stream()
                                        .map(s -> new Form.Option(s.id().toString(), s.name()))
                                        .toList()))
                .select(
                        "purpose",
                        "Purpose",
                        "paid or part of work, or for its own sake",
                        Form.words("not known", "work", "recreation"))
                .text("firstDay", "First day", "a date such as 14 Mar 2027 or tomorrow")
                .text("lastDay", "Last day", "empty: the same day")
                .text("from", "From", "local time, such as 9:30")
                .text("to", "To", "local time; before “from” means past midnight")
                .group("Crew and build")
                .select(
                        "pilotId",
                        "Pilot in command",
                        "",
                        options(
                                "not yet",
                                crew.stream()
                                        .map(p -> new Form.Option(p.id().toString(), p.name()))
                                        .toList()))
                .select(
                        "observerId",
                        "Observer",
                        "beside the pilot; whether there is none is asked where a rule turns on it",
                        options(
                                "nobody named",
                                crew.stream()
                                        .map(p -> new Form.Option(p.id().toString(), p.name()))
                                        .toList()))
                .select(
                        "buildId",
                        "Build",
                        "",
                        options(
                                "not yet",
                                builds.stream()
                                        .map(b -> new Form.Option(
                                                b.id().toString(),
                                                b.aircraft().name() + ", " + b.name() + " ("
                                                        + b.mass().mass() + ")"))
                                        .toList()))
                .group("How it is flown")
                .select("category", "Category", "", Form.words("not known", "open", "specific"))
                .select("subcategory", "Subcategory", "in the open category", Form.words("not known", "A1", "A2", "A3"))
                .text("height", "Greatest height", "such as 90 m or 300 ft")
                .select(
                        "heightReference",
                        "Height counts from",
                        "",
                        List.of(new Form.Option("GROUND", "the ground below"), new Form.Option("TAKEOFF", "take-off")))
                .text("pilotDistance", "Greatest distance from the pilot", "such as 350 m")
                .select(
                        "sight",
                        "Sight",
                        "how it is kept in sight",
                        Form.words(
                                "not known", "VLOS", "withObserver", "EVLOS", "sheltered", "followMe", "FPV", "BVLOS"))
                .text("speed", "Greatest ground speed", "such as 8 m/s")
                .select("lowSpeed", "Low-speed mode", "the certified one, at most 3 m/s", Form.yesNo())
                .select("autoModes", "Automated modes among obstacles", "", Form.yesNo())
                .group("People and surroundings")
                .text("peopleDistance", "Nearest uninvolved people", "horizontal, such as 40 m")
                .select(
                        "overPeople",
                        "Over uninvolved people",
                        "",
                        Form.words("not known", "none", "unexpected", "expected", "sustained"))
                .select("assembly", "Over an assembly", "people so dense that they cannot move away", Form.yesNo())
                .select("emergency", "Emergency response at or near the site", "", Form.yesNo())
                .select("dangerous", "Dangerous goods, or dropping", "", Form.yesNo())
                .group("A tall structure, when there is one")
                .select("structureArtificial", "Artificial structure flown at", "", Form.yesNo())
                .text("structureHeight", "Its height", "such as 110 m")
                .text("structureDistance", "Distance kept to it", "greatest, such as 40 m")
                .select("structureRequested", "Asked for by its owner", "in writing", Form.yesNo())
                .group("On the day")
                .text("wind", "Wind at flight height", "such as 7 m/s; empty until forecast")
                .text("temperature", "Air temperature", "°C")
                .select("pilotFit", "Pilot fit to fly", "as they say on the day", Form.yesNo())
                .text("alcohol", "Hours since alcohol", "as they say on the day");
    }

    private static List<Form.Option> options(String empty, List<Form.Option> rest) {
        List<Form.Option> all = new ArrayList<>();
        all.add(new Form.Option("", empty));
        all.addAll(rest);
        return all;
    }

    /** A draft as texts by field, for filling the form and for showing what is stored. */
    static Map<String, String> values(JobDraft d) {
        Map<String, String> v = new LinkedHashMap<>();
        v.put("name", d.name());
        v.put("siteId", text(d.siteId()));
        v.put("purpose", text(d.purpose()));
        v.put("firstDay", text(d.firstDay()));
        v.put("lastDay", text(d.lastDay()));
        v.put("from", text(d.from()));
        v.put("to", text(d.to()));
        v.put("pilotId", text(d.pilotId()));
        v.put("observerId", text(d.observerId()));
        v.put("buildId", text(d.buildId()));
        v.put("category", text(d.category()));
        v.put("subcategory", text(d.subcategory()));
        v.put("height", number(d.heightM(), "m"));
        v.put("heightReference", d.heightReference().name());
        v.put("pilotDistance", number(d.pilotDistanceM(), "m"));
        v.put("sight", text(d.sight()));
        v.put("speed", number(d.speedMps(), "m/s"));
        v.put("lowSpeed", yesNo(d.lowSpeed()));
        v.put("autoModes", yesNo(d.autoModes()));
        v.put("peopleDistance", number(d.peopleDistanceM(), "m"));
        v.put("overPeople", text(d.overPeople()));
        v.put("assembly", yesNo(d.assembly()));
        v.put("emergency", yesNo(d.emergency()));
        v.put("dangerous", yesNo(d.dangerous()));
        v.put("structureArtificial", yesNo(d.structure().artificial()));
        v.put("structureHeight", number(d.structure().heightM(), "m"));
        v.put("structureDistance", number(d.structure().distanceM(), "m"));
        v.put("structureRequested", yesNo(d.structure().requested()));
        v.put("wind", number(d.windMps(), "m/s"));
        v.put("temperature", number(d.temperatureC(), "°C"));
        v.put("pilotFit", yesNo(d.pilotFit()));
        v.put("alcohol", number(d.hoursSinceAlcohol(), "h"));
        return v;
    }

    /** The draft as typed; null when something is wrong, and then the form says what. */
    static JobDraft read(Form form, LocalDate today) {
        String name = form.requiredText("name", 120);
        UUID site = form.id("siteId", true);
        LocalDate first = form.date("firstDay", true, today);
        LocalDate last = form.date("lastDay", false, today);
        LocalTime from = form.time("from", true);
        LocalTime to = form.time("to", true);
        if (first != null && last != null && last.isBefore(first)) {
            form.error("lastDay", "the last day is before the first");
        }
        String reference = form.choice("heightReference", true);
        JobDraft d = new JobDraft(
                name,
                site,
                form.choice("purpose", false),
                form.choice("category", false),
                form.choice("subcategory", false),
                first,
                last == null ? first : last,
                from,
                to,
                form.metres("height", 0, 10_000),
                reference == null ? null : JobDraft.HeightReference.valueOf(reference),
                form.metres("pilotDistance", 0, 200_000),
                form.metres("peopleDistance", 0, 100_000),
                form.choice("overPeople", false),
                form.yesNo("assembly"),
                form.choice("sight", false),
                form.yesNo("lowSpeed"),
                form.speed("speed"),
                new JobDraft.Structure(
                        form.metres("structureHeight", 0, 2000),
                        form.metres("structureDistance", 0, 10_000),
                        form.yesNo("structureArtificial"),
                        form.yesNo("structureRequested")),
                form.yesNo("emergency"),
                form.yesNo("dangerous"),
                form.yesNo("autoModes"),
                form.speed("wind"),
                form.number("temperature", "°C", -60, 60, false),
                form.yesNo("pilotFit"),
                form.number("alcohol", "h", 0, 1000, false),
                form.id("pilotId", false),
                form.id("observerId", false),
                form.id("buildId", false));
        return form.hasErrors() ? null : d;
    }

    private static String text(Object o) {
        return o == null ? "" : o.toString();
    }

    private static String number(Double v, String unit) {
        return v == null ? "" : yarrek.core.units.Finite.format(v) + " " + unit;
    }

    private static String yesNo(Boolean b) {
        return b == null ? "" : b ? "yes" : "no";
    }
}
