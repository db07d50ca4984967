package yarrek.app.jobs;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import yarrek.app.forms.Form;
import yarrek.core.judging.Shot;
import yarrek.core.judging.Shots;
import yarrek.core.units.Finite;

/** The form of the shots of a job: a row each, and empty ones for more; a row left empty is no shot. */
final class ShotsForm {
    /** Empty rows offered below those filled in. */
    static final int SPARE = 4;

    private static final double MOST_MINUTES = 600;
    private static final double MOST_FRAMES = 2000;

    private static final List<String> COLUMNS =
            List.of("what", "kind", "minutes", "height", "distance", "resolution", "frames", "filter", "notes");

    private ShotsForm() {}

    static Form form(Jobs.JobView job, int rows) {
        Form form = new Form(
                "Shots: " + job.draft().name(), "/jobs/" + job.id() + "/shots/edit", "/jobs/" + job.id() + "/shots");
        for (int i = 0; i < rows; i++) {
            form.group("Shot " + (i + 1))
                    .text("what" + i, "What", "")
                    .select("kind" + i, "Seen", "", kinds())
                    .text("minutes" + i, "Minutes in the air", "")
                    .text("height" + i, "Height above ground", "such as 30 m")
                    .text("distance" + i, "Distance from the pilot", "such as 120 m")
                    .text("resolution" + i, "Resolution", "such as 3840 × 2160")
                    .text("frames" + i, "Frames per second", "0 for a still")
                    .text("filter" + i, "Filter", "")
                    .text("notes" + i, "Notes", "");
        }
        return form;
    }

    private static List<Form.Option> kinds() {
        return Stream.concat(
                        Stream.of(new Form.Option("", "not said")),
                        Stream.of(Shot.Kind.values()).map(k -> new Form.Option(k.name(), k.words())))
                .toList();
    }

    static void fill(Form form, List<Shot> shots) {
        for (int i = 0; i < shots.size(); i++) {
            Shot s = shots.get(i);
            form.set("what" + i, s.what())
                    .set("kind" + i, s.kind() == null ? "" : s.kind().name())
                    .set("minutes" + i, figure(s.minutes(), ""))
                    .set("height" + i, figure(s.heightM(), " m"))
                    .set("distance" + i, figure(s.distanceM(), " m"))
                    .set("resolution" + i, s.resolution())
                    .set("frames" + i, figure(s.framesPerS(), ""))
                    .set("filter" + i, s.filter())
                    .set("notes" + i, s.notes());
        }
    }

    private static String figure(Double d, String unit) {
        return d == null ? "" : Finite.format(d) + unit;
    }

    /** How many rows of those that were sent are filled in. */
    static int rows(Map<String, String> typed) {
        int last = -1;
        for (int i = 0; typed.containsKey("what" + i); i++) {
            if (isFilled(i, typed)) {
                last = i;
            }
        }
        return last + 1;
    }

    private static boolean isFilled(int row, Map<String, String> typed) {
        return COLUMNS.stream().anyMatch(c -> !typed.getOrDefault(c + row, "").isBlank());
    }

    /** The shots as typed, in their order; what is wrong is told beside its field. */
    static List<Shot> read(Form form, Map<String, String> typed, int rows) {
        List<Shot> shots = new ArrayList<>();
        for (int i = 0; i < rows; i++) {
            if (isFilled(i, typed)) {
                String kind = form.choice("kind" + i, false);
                shots.add(new Shot(
                        kind == null ? null : Shot.Kind.valueOf(kind),
                        form.optionalText("what" + i, 200),
                        form.metres("height" + i, 0, 10_000),
                        form.metres("distance" + i, 0, 200_000),
                        form.number("minutes" + i, "min", 0.1, MOST_MINUTES, false),
                        form.optionalText("resolution" + i, 40),
                        form.number("frames" + i, "", 0, MOST_FRAMES, false),
                        form.optionalText("filter" + i, 40),
                        form.optionalText("notes" + i, 400)));
            }
        }
        if (shots.size() > Shots.MOST) {
            form.error("what" + (rows - 1), "at most " + Shots.MOST + " shots; plan the rest as another job");
        }
        return shots;
    }
}
