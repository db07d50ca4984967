package yarrek.app.field;

import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.web.csrf.CsrfToken;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.util.MultiValueMap;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseBody;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;
import yarrek.app.airspace.Sites;
import yarrek.app.fleet.Fleet;
import yarrek.app.forms.LostUpdateException;
import yarrek.app.forms.TypedInput;
import yarrek.app.jobs.JobLists;
import yarrek.app.jobs.Jobs;
import yarrek.app.office.Office;
import yarrek.app.page.OpenTo;
import yarrek.app.page.Viewer;
import yarrek.app.print.Pdf;
import yarrek.core.airspace.SurveyHeading;
import yarrek.core.geo.PositionText;

/** Pages of a place: the site, the job at it, the day by the hour, the survey and the emergency card. */
@Controller
class OnSiteController {
    private static final Set<String> HOW_KNOWN = Set.of("SEEN", "TOLD", "ASSUMED");

    private final Lookout lookout;
    private final SiteDrawing drawing;
    private final Surveys surveys;
    private final Emergency emergency;
    private final Sites sites;
    private final Jobs jobs;
    private final JobLists jobLists;
    private final Fleet fleet;
    private final Office office;
    private final Pdf pdf;
    private final Clock clock;

    OnSiteController(
            Lookout lookout,
            SiteDrawing drawing,
            Surveys surveys,
            Emergency emergency,
            Sites sites,
            Jobs jobs,
            JobLists jobLists,
            Fleet fleet,
            Office office,
            Pdf pdf,
            Clock clock) {
        this.lookout = lookout;
        this.drawing = drawing;
        this.surveys = surveys;
        this.emergency = emergency;
        this.sites = sites;
        this.jobs = jobs;
        this.jobLists = jobLists;
        this.fleet = fleet;
        this.office = office;
        this.pdf = pdf;
        this.clock = clock;
    }

    // --- site --------------------------------------------------------------------------------------------------------

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/airspace/sites/{id}")
    String site(
            @PathVariable("id") UUID id,
            @RequestParam(value = "build", defaultValue = "") String build,
            @RequestParam(value = "height", defaultValue = "") String height,
            @RequestParam(value = "day", defaultValue = "") String day,
            Model model) {
        Sites.SiteView site = sites.site(id);
        LocalDate today = LocalDate.now(clock.withZone(site.zone()));
        Double heightM = 100.0;
        LocalDate asked = today;
        UUID buildId = null;
        try {
            heightM = height.isBlank() ? heightM : Double.valueOf(TypedInput.metres(height));
            asked = day.isBlank() ? today : TypedInput.date(day, today);
            buildId = build.isBlank() ? null : UUID.fromString(build);
        } catch (IllegalArgumentException e) {
            model.addAttribute("problem", e.getMessage());
        }
        Lookout.Subject s = lookout.ofSite(id, buildId, heightM, asked);
        model.addAttribute("site", site);
        model.addAttribute("drawn", drawing.draw(site, 640, 400));
        model.addAttribute("zones", lookout.zones(s));
        model.addAttribute("heights", lookout.heights(s));
        model.addAttribute("strip", lookout.strip(s, asked));
        model.addAttribute("surveys", surveys.of(id));
        model.addAttribute("jobsHere", visible(jobLists.atSite(id)));
        model.addAttribute("builds", fleet.builds());
        model.addAttribute("build", build);
        model.addAttribute("heightM", heightM);
        model.addAttribute("day", asked);
        model.addAttribute("today", today);
        model.addAttribute("stripBack", "/airspace/sites/" + id);
        model.addAttribute(
                "written",
                java.util.Arrays.stream(PositionText.Notation.values())
                        .map(n -> PositionText.format(site.launch(), n))
                        .toList());
        return "field/site";
    }

    private static List<Jobs.Row> visible(List<Jobs.Row> rows) {
        Viewer v = Viewer.current();
        return rows.stream().filter(j -> j.seenBy(v)).toList();
    }

    // --- job ---------------------------------------------------------------------------------------------------------

    /** The job at its place, for the job's page. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/jobs/{id}/site")
    String jobAtSite(@PathVariable("id") UUID id, Model model) {
        Jobs.JobView job = jobs.job(id, Viewer.current());
        Lookout.Subject s = lookout.ofJob(job);
        model.addAttribute("job", job);
        model.addAttribute("site", job.site());
        model.addAttribute("drawn", drawing.draw(job.site(), 640, 400));
        model.addAttribute("zones", lookout.zones(s));
        model.addAttribute("heights", lookout.heights(s));
        model.addAttribute("surveys", surveys.of(job.site().id()));
        return "field/job-site";
    }

    /** Light and weather of a day of the job. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/jobs/{id}/strip")
    String strip(@PathVariable("id") UUID id, @RequestParam(value = "day", defaultValue = "") String day, Model model) {
        Jobs.JobView job = jobs.job(id, Viewer.current());
        Lookout.Subject s = lookout.ofJob(job);
        List<LocalDate> days = lookout.days(s);
        LocalDate asked =
                days.stream().filter(d -> d.toString().equals(day)).findFirst().orElse(days.get(0));
        model.addAttribute("job", job);
        model.addAttribute("site", job.site());
        model.addAttribute("days", days);
        model.addAttribute("day", asked);
        model.addAttribute("today", LocalDate.now(clock.withZone(job.site().zone())));
        model.addAttribute("strip", lookout.strip(s, asked));
        model.addAttribute("stripBack", "/jobs/" + id);
        return "field/job-strip";
    }

    // --- survey ------------------------------------------------------------------------------------------------------

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/airspace/sites/{id}/surveys")
    String begin(@PathVariable("id") UUID id, @RequestParam(value = "job", required = false) UUID job) {
        return "redirect:/airspace/surveys/"
                + surveys.begin(id, job, Viewer.current().name());
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/airspace/surveys/{id}")
    String survey(@PathVariable("id") UUID id, Model model) {
        Surveys.SurveyView v = surveys.survey(id);
        model.addAttribute("survey", v);
        model.addAttribute("drawn", drawing.draw(v.site(), 640, 400));
        model.addAttribute("bases", Surveys.Basis.values());
        model.addAttribute("zone", office.operator().zone());
        return "field/survey";
    }

    /** The survey to be filled in on the spot, kept by the phone. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/field/survey/{id}")
    String surveyHere(@PathVariable("id") UUID id, Model model) {
        model.addAttribute("survey", surveys.survey(id));
        model.addAttribute("bases", Surveys.Basis.values());
        return "field/survey-here";
    }

    /** What a page that was kept needs to send what was typed on it. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/field/token")
    @ResponseBody
    Map<String, String> token(CsrfToken token) {
        return Map.of("token", token.getToken());
    }

    @OpenTo(OpenTo.Whom.MANAGER)
    @PostMapping("/airspace/surveys/{id}")
    String write(
            @PathVariable("id") UUID id,
            @RequestParam MultiValueMap<String, String> params,
            RedirectAttributes flash,
            Model model) {
        Surveys.SurveyView v = surveys.survey(id);
        HashMap<String, List<String>> typed = new HashMap<>();
        List<String> unsaid = new ArrayList<>();
        try {
            Map<String, Surveys.Answer> written = new LinkedHashMap<>();
            for (SurveyHeading h : SurveyHeading.of(v.jurisdiction())) {
                String text = String.valueOf(params.getOrDefault("t." + h.code(), List.of(""))
                                .get(0))
                        .strip();
                if (text.length() > 4000) {
                    text = text.substring(0, 4000);
                }
                String basis = params.getOrDefault("b." + h.code(), List.of("")).get(0);
                if (!text.isEmpty()) {
                    typed.put(h.code(), List.of(text, basis));
                }
                if (!text.isEmpty() && !HOW_KNOWN.contains(basis)) {
                    unsaid.add(h.heading());
                } else if (!text.isEmpty()) {
                    written.put(h.code(), new Surveys.Answer(text, Surveys.Basis.valueOf(basis)));
                }
            }
            if (!unsaid.isEmpty()) {
                throw new IllegalArgumentException(
                        "Nothing was stored yet; what you typed is still here. Say how it is known, "
                                + "seen, told or assumed: " + String.join("; ", unsaid));
            }
            String visited =
                    String.valueOf(params.getOrDefault("visitedOn", List.of("")).get(0));
            LocalDate today = LocalDate.now(clock.withZone(v.site().zone()));
            surveys.write(
                    id,
                    Long.parseLong(params.getOrDefault("version", List.of("-1")).get(0)),
                    visited.isBlank() ? null : TypedInput.date(visited, today),
                    written);
            if (params.containsKey("sign")) {
                surveys.sign(id, Viewer.current().name());
                flash.addFlashAttribute("told", "Signed. It stays as it is; another can be begun from it.");
            } else {
                flash.addFlashAttribute("told", "Kept.");
            }
            return "redirect:/airspace/surveys/" + id;
        } catch (LostUpdateException e) {
            model.addAttribute(
                    "problem",
                    "Somebody else saved this survey meanwhile; nothing of yours was stored. What you typed is still here, beside "
                            + "theirs where the two differ: keep it to put yours in the place of theirs.");
            model.addAttribute("typed", typed);
        } catch (IllegalArgumentException e) {
            model.addAttribute("problem", e.getMessage());
            model.addAttribute("typed", typed);
        }
        model.addAttribute("typedVisited", params.getFirst("visitedOn"));
        return survey(id, model);
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/airspace/surveys/{id}.pdf")
    ResponseEntity<byte[]> surveyPdf(
            @PathVariable("id") UUID id, @RequestParam(value = "sheet", defaultValue = "a4") String sheet) {
        Surveys.SurveyView v = surveys.survey(id);
        Map<String, Object> m = new LinkedHashMap<>();
        m.put("size", Pdf.Sheet.of(sheet).size());
        m.put("survey", v);
        m.put("drawn", drawing.draw(v.site(), 640, 400));
        m.put("operator", office.operator());
        m.put("zone", v.site().zone());
        m.put("asOf", clock.instant());
        return inline(pdf.render("field/survey-pdf", m), "survey.pdf");
    }

    private static ResponseEntity<byte[]> inline(byte[] content, String name) {
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_PDF)
                .header(HttpHeaders.CONTENT_DISPOSITION, "inline; filename=\"" + name + "\"")
                .body(content);
    }

    // --- emergency card ----------------------------------------------------------------------------------------------

    /** For everybody of the house: whoever holds the telephone at that moment has to reach it. */
    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/field/card/{job}")
    String card(
            @PathVariable("job") UUID jobId,
            @RequestParam(value = "heading", defaultValue = "") String heading,
            @RequestParam(value = "speed", defaultValue = "") String speed,
            @RequestParam(value = "height", defaultValue = "") String height,
            @RequestParam(value = "minutes", defaultValue = "") String minutes,
            @RequestParam(value = "from", defaultValue = "") String from,
            Model model) {
        Jobs.JobView job = jobs.jobUnchecked(jobId);
        Emergency.Given given = new Emergency.Given(null, null, null, null, null);
        try {
            Double degrees = heading.isBlank() ? null : Double.valueOf(TypedInput.plain(heading, "°"));
            Double left = minutes.isBlank() ? null : Double.valueOf(TypedInput.plain(minutes, "min"));
            if (degrees != null && !(degrees >= 0 && degrees <= 360)) {
                throw new IllegalArgumentException("the heading must be 0 to 360 degrees");
            }
            if (left != null && !(left >= 1 && left <= 120)) {
                throw new IllegalArgumentException("minutes left must be 1 to 120");
            }
            Double fast = speed.isBlank() ? null : Double.valueOf(TypedInput.metresPerSecond(speed));
            Double high = height.isBlank() ? null : Double.valueOf(TypedInput.metres(height));
            if (fast != null && !(fast >= 0 && fast <= 150)) {
                throw new IllegalArgumentException("the speed must be 0 to 150 m/s");
            }
            given = new Emergency.Given(
                    from.isBlank() ? null : PositionText.parse(from),
                    degrees,
                    fast,
                    high,
                    left == null ? null : Integer.valueOf(left.intValue()));
        } catch (IllegalArgumentException e) {
            model.addAttribute("problem", e.getMessage());
        }
        model.addAttribute("card", emergency.card(job, given));
        model.addAttribute("typedHeading", heading);
        model.addAttribute("typedSpeed", speed);
        model.addAttribute("typedHeight", height);
        model.addAttribute("typedMinutes", minutes);
        model.addAttribute("typedFrom", from);
        return "field/card";
    }

    @OpenTo(OpenTo.Whom.SIGNED_IN)
    @GetMapping("/field/card/{job}.pdf")
    ResponseEntity<byte[]> cardPdf(
            @PathVariable("job") UUID jobId, @RequestParam(value = "sheet", defaultValue = "a4") String sheet) {
        Jobs.JobView job = jobs.jobUnchecked(jobId);
        Map<String, Object> m = new LinkedHashMap<>();
        m.put("size", Pdf.Sheet.of(sheet).size());
        m.put("card", emergency.card(job, new Emergency.Given(null, null, null, null, null)));
        m.put("drawn", drawing.draw(job.site(), 640, 300));
        m.put("site", job.site());
        return inline(pdf.render("field/card-pdf", m), "emergency-card.pdf");
    }
}
