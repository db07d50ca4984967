package yarrek.app.jobs;

import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Stream;
import yarrek.app.forms.Form;
import yarrek.core.judging.FlightsPlanned;
import yarrek.core.judging.PlannedFlight;
import yarrek.core.rulebook.FactDefinition;
import yarrek.core.rulebook.Vocabulary;
import yarrek.core.time.Days;
import yarrek.core.time.LocalClock;
import yarrek.core.units.Finite;

/** The form of the flights planned of a job: a row each, and empty ones for more; a row left empty is no flight. */
final class FlightsForm {
    /** Empty rows offered below those filled in. */
    static final int SPARE = 3;

    private static final List<String> COLUMNS = List.of(
            "day",
            "startsAt",
            "minutes",
            "buildId",
            "pilotId",
            "supervisedId",
            "observerId",
            "height",
            "heightReference",
            "distance",
            "subcategory",
            "mode",
            "purpose",
            "alike");

    private FlightsForm() {}

    /** @param crew, builds what may be chosen: names by id */
    static Form form(Jobs.JobView job, int rows, Map<UUID, String> crew, Map<UUID, String> builds) {
        JobDraft d = job.draft();
        Form form = new Form("Flights planned: " + d.name(), "/jobs/" + job.id() + "/flights", "/jobs/" + job.id());
        boolean one = d.firstDay().equals(d.lastDay());
        String days = one ? "empty: the job's" : Days.stretch(d.firstDay(), d.lastDay(), " to ");
        for (int i = 0; i < rows; i++) {
            form.group("Flight " + (i + 1));
            fields(form, String.valueOf(i), days, crew, builds);
            form.text("alike" + i, "How many alike", "empty: one");
        }
        return form;
    }

    /** The questions of one flight; {@code row} ends their names. */
    static void fields(Form form, String row, String days, Map<UUID, String> crew, Map<UUID, String> builds) {
        form.text("day" + row, "Day", days)
                .text("startsAt" + row, "At", "empty: one after the other")
                .text("minutes" + row, "Minutes in the air", "")
                .select("buildId" + row, "Build", "", Form.choices("as the job", names(builds)))
                .select("pilotId" + row, "Pilot in command", "", Form.choices("as the job", names(crew)))
                .select("supervisedId" + row, "At the controls beside", "", Form.choices("nobody else", names(crew)))
                .select("observerId" + row, "Observer", "", Form.choices("as the job", names(crew)))
                .text("height" + row, "Greatest height", "empty: as the job")
                .select(
                        "heightReference" + row,
                        "Counts from",
                        "",
                        List.of(new Form.Option("GROUND", "the ground"), new Form.Option("TAKEOFF", "take-off")))
                .text("distance" + row, "Distance from the pilot", "empty: as the job")
                .select("subcategory" + row, "Flown as", "", subcategories())
                .select("mode" + row, "Mode", "", modes())
                .text("purpose" + row, "What for", "");
    }

    private static Map<String, String> names(Map<UUID, String> byId) {
        Map<String, String> names = new LinkedHashMap<>();
        byId.forEach((id, name) -> names.put(id.toString(), name));
        return names;
    }

    private static List<Form.Option> subcategories() {
        FactDefinition d = Vocabulary.define("subcategory");
        return Stream.concat(
                        Stream.of(new Form.Option("", "as the job")),
                        d.words().stream().map(w -> new Form.Option(w, w)))
                .toList();
    }

    private static List<Form.Option> modes() {
        return Stream.concat(
                        Stream.of(new Form.Option("", "not said")),
                        Stream.of(PlannedFlight.Mode.values()).map(m -> new Form.Option(m.name(), m.words())))
                .toList();
    }

    static void fill(Form form, JobDraft draft) {
        for (int i = 0; i < draft.flights().size(); i++) {
            fill(form, String.valueOf(i), draft.flights().get(i));
        }
    }

    static void fill(Form form, String row, PlannedFlight f) {
        form.set("day" + row, f.day())
                .set("startsAt" + row, text(f.startsAt()))
                .set("minutes" + row, f.minutes() == null ? "" : Finite.format(f.minutes()))
                .set("buildId" + row, text(f.buildId()))
                .set("pilotId" + row, text(f.pilotId()))
                .set("supervisedId" + row, text(f.supervisedId()))
                .set("observerId" + row, text(f.observerId()))
                .set("height" + row, metres(f.heightM()))
                .set("heightReference" + row, Boolean.TRUE.equals(f.aboveTakeoff()) ? "TAKEOFF" : "GROUND")
                .set("distance" + row, metres(f.distanceM()))
                .set("subcategory" + row, text(f.subcategory()))
                .set("mode" + row, f.mode() == null ? "" : f.mode().name())
                .set("purpose" + row, f.purpose());
    }

    private static String text(Object o) {
        return o == null ? "" : o.toString();
    }

    private static String metres(Double m) {
        return m == null ? "" : Finite.format(m) + " m";
    }

    /** How many rows of those that were sent are filled in. */
    static int rows(Map<String, String> typed) {
        int last = -1;
        for (int i = 0; typed.containsKey("day" + i); i++) {
            if (isFilled(i, typed)) {
                last = i;
            }
        }
        return last + 1;
    }

    private static boolean isFilled(int row, Map<String, String> typed) {
        return COLUMNS.stream()
                .filter(c -> !c.equals("heightReference"))
                .anyMatch(c -> !typed.getOrDefault(c + row, "").isBlank());
    }

    /** A flight as typed; what is wrong is told beside its field. */
    static PlannedFlight one(Form form, String row, JobDraft job, LocalDate today, ZoneId zone) {
        LocalDate day = form.date("day" + row, !job.firstDay().equals(job.lastDay()), today);
        LocalTime at = form.time("startsAt" + row, false);
        Double height = form.metres("height" + row, 0, 10_000);
        String mode = form.choice("mode" + row, false);
        PlannedFlight f = new PlannedFlight(
                day == null ? job.firstDay() : day,
                at,
                form.id("buildId" + row, false),
                form.id("pilotId" + row, false),
                form.id("supervisedId" + row, false),
                form.id("observerId" + row, false),
                height,
                height == null ? null : Boolean.valueOf("TAKEOFF".equals(form.raw("heightReference" + row))),
                form.metres("distance" + row, 0, 200_000),
                form.choice("subcategory" + row, false),
                form.number("minutes" + row, "min", 0, FlightsPlanned.MOST_MINUTES, false),
                mode == null ? null : PlannedFlight.Mode.valueOf(mode),
                form.optionalText("purpose" + row, 200));
        if (at != null && LocalClock.isSkipped(f.day().atTime(at), zone)) {
            form.error("startsAt" + row, "the clocks change then: that hour does not exist there");
        }
        return f;
    }

    /** The flights as typed, those of earlier days first; what is wrong is told beside its field. */
    static List<PlannedFlight> read(
            Form form, Map<String, String> typed, int rows, JobDraft job, LocalDate today, ZoneId zone) {
        List<PlannedFlight> flights = new ArrayList<>();
        List<Integer> rowOf = new ArrayList<>();
        for (int i = 0; i < rows; i++) {
            if (!isFilled(i, typed)) {
                continue;
            }
            PlannedFlight f = one(form, String.valueOf(i), job, today, zone);
            Integer alike = form.whole("alike" + i, 1, FlightsPlanned.MOST, false);
            if (f.startsAt() != null && alike != null && alike > 1) {
                form.error("alike" + i, "several alike cannot all begin at one hour; leave the hour empty");
            }
            flights.addAll(Collections.nCopies(alike == null ? 1 : alike, f));
            rowOf.addAll(Collections.nCopies(alike == null ? 1 : alike, i));
        }
        if (!form.hasErrors()) {
            new FlightsPlanned(flights, job.planned().job())
                    .faults()
                    .forEach(f -> form.error(f.field() + rowOf.get(Math.min(f.number(), rowOf.size()) - 1), f.words()));
        }
        return flights.stream().sorted(Comparator.comparing(PlannedFlight::day)).toList();
    }
}
