package yarrek.app.chains;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import yarrek.app.airspace.Sites;
import yarrek.app.approvals.Approvals;
import yarrek.app.forms.Form;
import yarrek.app.forms.TypedInput;
import yarrek.core.approval.Cover;
import yarrek.core.approval.Terms;
import yarrek.core.geo.ShapeText;
import yarrek.core.rulebook.Vocabulary;
import yarrek.core.time.LocalClock;
import yarrek.core.time.WeeklyHours;
import yarrek.core.units.Finite;

/** The terms of a request or of a grant as a form. Times are typed in local time of the place, or in UTC when they say so. */
final class TermsForm {
    private static final Map<Cover.Dimension, String> OPEN = Map.of(
            Cover.Dimension.TIME, "any time",
            Cover.Dimension.AREA, "the whole zone, or any area",
            Cover.Dimension.CEILING, "any height",
            Cover.Dimension.AIRCRAFT, "any aircraft of the operator",
            Cover.Dimension.PILOTS, "any pilot of the operator",
            Cover.Dimension.PURPOSE, "any purpose");

    private static final Map<String, String> ALLOWED = Map.of(
            "BVLOS", "beyond sight",
            "EVLOS", "extended sight",
            "overPeople", "over people",
            "assembly", "over assemblies",
            "nearPeople", "near people",
            "event", "an event");

    private TermsForm() {}

    /**
     * @param granted whether it is what was granted, with its number and conditions
     * @param besides other requests that the letter may answer as well, in words by id
     */
    static Form of(
            String title,
            String action,
            String back,
            boolean granted,
            Map<String, String> craft,
            List<String> people,
            Map<String, String> besides) {
        Form form = new Form(title, action, back);
        if (granted) {
            form.group("The paper")
                    .text("reference", "Number", "as printed")
                    .text("decidedOn", "Granted on", "a date; empty: today");
        } else {
            form.group("Whom to ask").text("granter", "Granter", "");
        }
        form.group("Time")
                .text("fromDay", "From", "first day")
                .text("fromTime", "at", "local time such as 8:00, or 8:00 UTC")
                .text("toDay", "To", "last day")
                .text("toTime", "until", "local time such as 18:00, or 18:00 UTC")
                .text("weekly", "Hours of the week", "such as mon-fri 08:00-18:00; sat 9:00-12:00; empty: all hours")
                .group("Place")
                .area(
                        "area",
                        "Area",
                        "corners in order with a semicolon or new line between, or “circle 46.61, -17.89 radius 200 m”")
                .text("ceiling", "Ceiling", "such as 90 m or 300 ft")
                .select(
                        "ceilingFrom",
                        "Ceiling counts from",
                        "",
                        List.of(new Form.Option("GROUND", "the ground below"), new Form.Option("SEA", "sea level")))
                .group("Who and what")
                .ticks(
                        "aircraft",
                        "Aircraft named",
                        "",
                        craft.entrySet().stream()
                                .map(e -> new Form.Option(e.getKey(), e.getValue()))
                                .toList())
                .ticks(
                        "pilots",
                        "Pilots named",
                        "",
                        people.stream().map(p -> new Form.Option(p, p)).toList())
                .select("purpose", "Purpose", "", Form.words("not said", "work", "recreation"))
                .text("quotes", "Numbers it quotes", "of other approvals, with commas between");
        if (granted) {
            form.group("What it says besides")
                    .ticks(
                            "open",
                            "Expressly leaves open",
                            "",
                            Arrays.stream(Cover.Dimension.values())
                                    .filter(OPEN::containsKey)
                                    .map(d -> new Form.Option(d.name(), OPEN.get(d)))
                                    .toList())
                    .select(
                            "saysAllowed",
                            "What it allows is read",
                            "whether the ticks below are all that it allows beyond the ordinary",
                            Form.words("not yet", "yes"))
                    .ticks(
                            "allows",
                            "Allows",
                            "",
                            Vocabulary.define("authorisation.allows").words().stream()
                                    .map(w -> new Form.Option(w, ALLOWED.getOrDefault(w, w)))
                                    .toList())
                    .text("sections", "Waives sections", "such as 107.31, 107.39")
                    .area(
                            "conditions",
                            "Conditions",
                            "one on a line, in the granter's words; each becomes a rule of the job");
        }
        if (!besides.isEmpty()) {
            form.group("The same letter answers also")
                    .ticks(
                            "also",
                            "Requests",
                            "of other days, aircraft and jobs; each gets these terms, and is covered as far as they reach",
                            besides.entrySet().stream()
                                    .map(e -> new Form.Option(e.getKey(), e.getValue()))
                                    .toList());
        }
        return form;
    }

    static Form fill(Form form, Terms t, ZoneId zone) {
        time(form, "from", t.from(), zone);
        time(form, "to", t.to(), zone);
        String written = t.ceilingAsWritten();
        boolean sea = written.endsWith("above sea level");
        return form.set("area", t.area())
                .set("ceiling", written.replaceFirst(" above .*", ""))
                .set("ceilingFrom", sea ? "SEA" : "GROUND")
                .setAll("aircraft", t.aircraft())
                .setAll("pilots", t.pilots())
                .set("purpose", t.purpose())
                .set("quotes", String.join(", ", t.quotes()))
                .set("weekly", t.weekly())
                .set("saysAllowed", t.allows() == null ? "" : "yes")
                .setAll("allows", t.allows() == null ? List.of() : List.copyOf(t.allows()))
                .set("sections", String.join(", ", t.sections()))
                .setAll("open", t.open().stream().map(Enum::name).toList());
    }

    private static void time(Form form, String name, Instant at, ZoneId zone) {
        if (at != null) {
            LocalDateTime local = at.atZone(zone).toLocalDateTime();
            boolean twice = LocalClock.fault(local, zone).isPresent();
            LocalDateTime shown = twice ? LocalDateTime.ofInstant(at, ZoneOffset.UTC) : local;
            form.set(name + "Day", shown.toLocalDate()).set(name + "Time", shown.toLocalTime() + (twice ? " UTC" : ""));
        }
    }

    static Terms read(Form form, Sites.SiteView site, LocalDate today) {
        Instant from = instant(form, "from", site.zone(), today);
        Instant to = instant(form, "to", site.zone(), today);
        if (from != null && to != null && to.isBefore(from)) {
            form.error("toDay", "it ends before it begins; one of the two times is mistyped");
        }
        String area = form.optionalText("area", 500_000);
        if (!area.isEmpty()) {
            try {
                area = ShapeText.write(ShapeText.area(area));
            } catch (IllegalArgumentException e) {
                form.error("area", e.getMessage());
            }
        }
        String weekly = form.optionalText("weekly", 400);
        try {
            WeeklyHours.parse(weekly);
        } catch (IllegalArgumentException e) {
            form.error("weekly", e.getMessage());
        }
        Double typed = form.metres("ceiling", 0, 10_000);
        boolean sea = "SEA".equals(form.raw("ceilingFrom"));
        Set<Cover.Dimension> open = new HashSet<>();
        for (String o : form.all("open")) {
            for (Cover.Dimension d : OPEN.keySet()) {
                if (d.name().equals(o)) {
                    open.add(d);
                }
            }
        }
        List<String> quotes = new ArrayList<>();
        for (String q : form.optionalText("quotes", 400).split("[,;\\s]+")) {
            if (!q.isBlank()) {
                quotes.add(q);
            }
        }
        String purpose = form.choice("purpose", false);
        return new Terms(
                from,
                to,
                area,
                aboveGround(typed, sea, site),
                typed == null ? "" : Finite.format(typed) + " m above " + (sea ? "sea level" : "ground"),
                chosen(form, "aircraft"),
                chosen(form, "pilots"),
                purpose == null ? "" : purpose,
                quotes,
                open,
                form.raw("saysAllowed").equals("yes") ? new HashSet<>(chosen(form, "allows")) : null,
                java.util.Arrays.stream(form.raw("sections").split("[,;\\s]+"))
                        .filter(x -> !x.isBlank())
                        .toList(),
                weekly);
    }

    /** A ceiling above sea level leaves the less above ground the higher the ground; without the ground it is not known. */
    private static Double aboveGround(Double typed, boolean sea, Sites.SiteView site) {
        if (typed == null || !sea) {
            return typed;
        }
        if (site.elevationM() == null || site.reliefM() == null) {
            return null;
        }
        return Math.max(0, typed - site.elevationM() - site.reliefM());
    }

    private static List<String> chosen(Form form, String name) {
        Set<String> offered = new HashSet<>();
        form.fields().stream()
                .filter(f -> f.name().equals(name))
                .forEach(f -> f.options().forEach(o -> offered.add(o.value())));
        return form.all(name).stream().filter(offered::contains).toList();
    }

    /** Null when nothing was typed; a local time that the clocks skip or repeat has to be typed in UTC. */
    static Instant instant(Form form, String name, ZoneId zone, LocalDate today) {
        LocalDate day = form.date(name + "Day", false, today);
        String typed = form.raw(name + "Time").strip();
        if (day == null) {
            if (!typed.isEmpty()) {
                form.error(name + "Day", "a time without its day");
            }
            return null;
        }
        if (typed.isEmpty()) {
            form.error(name + "Time", "the time of day is needed too");
            return null;
        }
        boolean utc = typed.toUpperCase(Locale.ROOT).endsWith("UTC");
        LocalTime time;
        try {
            time = TypedInput.time(utc ? typed.substring(0, typed.length() - 3).strip() : typed);
        } catch (IllegalArgumentException e) {
            form.error(name + "Time", e.getMessage());
            return null;
        }
        LocalDateTime local = day.atTime(time);
        if (utc) {
            return local.toInstant(ZoneOffset.UTC);
        }
        Optional<String> fault = LocalClock.fault(local, zone);
        if (fault.isPresent()) {
            form.error(name + "Time", fault.get() + "; type it in UTC, such as 01:30 UTC");
            return null;
        }
        return local.atZone(zone).toInstant();
    }

    static Approvals.Grant grant(Form form, Sites.SiteView site, LocalDate today) {
        String reference = form.requiredText("reference", 80);
        Terms t = read(form, site, today);
        return new Approvals.Grant(reference, t, form.optionalText("conditions", 4000), site.zone());
    }
}
