package yarrek.app.chains;

import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.function.Function;
import yarrek.app.page.Show;
import yarrek.core.approval.Cover;
import yarrek.core.approval.Terms;

/**
 * A line of what was asked for beside what was granted.
 *
 * @param granted empty while nothing is
 * @param differs whether what was granted is another thing than, or does not hold all of, what was asked for
 */
public record TermsShown(String name, String asked, String granted, boolean differs) {
    private static final String NOT_SAID = "not said";

    /** @param held whether anything is granted */
    static List<TermsShown> of(String number, Terms asked, Terms granted, boolean held, ZoneId zone, Show show) {
        Lines l = new Lines(asked, granted, held);
        return List.of(
                new TermsShown("Number", "", number, false),
                l.line("From", Cover.Dimension.TIME, "any time", t -> moment(t.from(), zone, show)),
                l.line("To", Cover.Dimension.TIME, "any time", t -> moment(t.to(), zone, show)),
                l.line(
                        "Hours of the week",
                        Cover.Dimension.TIME,
                        "any time",
                        t -> t.weekly().isBlank() ? "all hours" : t.weekly()),
                l.line(
                        "Area",
                        Cover.Dimension.AREA,
                        "left open",
                        t -> t.drawnArea()
                                .map(a -> show.far(a.figures().extentM()) + " across")
                                .orElse(NOT_SAID)),
                l.line("Ceiling", Cover.Dimension.CEILING, "left open", t -> said(t.ceilingAsWritten())),
                l.named("Aircraft", Cover.Dimension.AIRCRAFT, Terms::aircraft),
                l.named("Pilots", Cover.Dimension.PILOTS, Terms::pilots),
                l.line("Purpose", Cover.Dimension.PURPOSE, "any", t -> said(t.purpose())),
                new TermsShown(
                        "Quotes",
                        String.join(", ", asked.quotes()),
                        held ? String.join(", ", granted.quotes()) : "",
                        false));
    }

    private record Lines(Terms asked, Terms granted, boolean held) {
        TermsShown line(String name, Cover.Dimension d, String open, Function<Terms, String> says) {
            if (!held) {
                return new TermsShown(name, says.apply(asked), "", false);
            }
            boolean leftOpen = granted.leavesOpen(d);
            String is = leftOpen ? open : says.apply(granted);
            // the same extent may be another place
            boolean same = d == Cover.Dimension.AREA
                    ? asked.area().equals(granted.area())
                    : says.apply(asked).equals(is);
            return new TermsShown(name, says.apply(asked), is, !leftOpen && !same);
        }

        TermsShown named(String name, Cover.Dimension d, Function<Terms, List<String>> who) {
            TermsShown line = line(name, d, "any", t -> said(String.join(", ", who.apply(t))));
            boolean missing = !who.apply(granted).containsAll(who.apply(asked));
            return new TermsShown(name, line.asked(), line.granted(), line.differs() && missing);
        }
    }

    private static String said(String text) {
        return text.isEmpty() ? NOT_SAID : text;
    }

    private static String moment(Instant at, ZoneId zone, Show show) {
        return at == null ? NOT_SAID : show.moment(at, zone);
    }
}
