package yarrek.core.approval;

import java.time.Instant;
import java.time.ZoneId;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import yarrek.core.geo.Area;
import yarrek.core.geo.ShapeText;
import yarrek.core.time.TimeWindow;
import yarrek.core.time.WeeklyHours;

/**
 * What is asked for, or what was granted. A null, or an empty list, is not said; a dimension that the paper expressly
 * leaves open stands in {@code open}.
 *
 * @param area as {@link ShapeText} reads it
 * @param ceilingM above ground
 * @param ceilingAsWritten as the paper has it, with its reference
 * @param aircraft serial numbers
 * @param pilots names
 * @param quotes numbers of other approvals that it names
 * @param allows what it allows beyond the ordinary, in the words of the fact authorisation.allows; null when it is not said
 * @param sections of the law that it waives
 * @param weekly hours of the week within its days, as {@link WeeklyHours} reads them; empty for all
 */
public record Terms(
        Instant from,
        Instant to,
        String area,
        Double ceilingM,
        String ceilingAsWritten,
        List<String> aircraft,
        List<String> pilots,
        String purpose,
        List<String> quotes,
        Set<Cover.Dimension> open,
        Set<String> allows,
        List<String> sections,
        String weekly) {
    public static final Terms NONE =
            new Terms(null, null, "", null, "", List.of(), List.of(), "", List.of(), Set.of(), null, List.of(), "");

    public Terms {
        aircraft = List.copyOf(aircraft);
        pilots = List.copyOf(pilots);
        quotes = List.copyOf(quotes);
        open = Set.copyOf(open);
        allows = allows == null ? null : Set.copyOf(allows);
        sections = sections == null ? List.of() : List.copyOf(sections);
        weekly = weekly == null ? "" : weekly;
    }

    /** Terms of which nobody has said what they allow beyond the ordinary. */
    public Terms(
            Instant from,
            Instant to,
            String area,
            Double ceilingM,
            String ceilingAsWritten,
            List<String> aircraft,
            List<String> pilots,
            String purpose,
            List<String> quotes,
            Set<Cover.Dimension> open) {
        this(from, to, area, ceilingM, ceilingAsWritten, aircraft, pilots, purpose, quotes, open, null, List.of(), "");
    }

    public Optional<TimeWindow> window() {
        return from == null || to == null ? Optional.empty() : Optional.of(new TimeWindow(from, to));
    }

    public Optional<Area> drawnArea() {
        return area.isBlank() ? Optional.empty() : Optional.of(ShapeText.area(area));
    }

    /** Minutes of these hours that its hours of the week leave out; zero when it names none. */
    public double outsideWeek(TimeWindow w, ZoneId place) {
        return weekly.isBlank() ? 0 : WeeklyHours.parse(weekly).minutesOutside(w, place);
    }

    public boolean leavesOpen(Cover.Dimension d) {
        return open.contains(d);
    }

    /** As a paper for the cover check; what it leaves open is taken from the need, and its area was read before. */
    public Cover.Granted granted(String reference, Cover.Need need, Optional<Area> drawn) {
        Set<String> craft = new HashSet<>(aircraft);
        if (leavesOpen(Cover.Dimension.AIRCRAFT)) {
            craft.add(need.aircraft());
        }
        Set<String> people = new HashSet<>(pilots);
        if (leavesOpen(Cover.Dimension.PILOTS)) {
            people.addAll(need.pilots());
            people.add("anybody");
        }
        OptionalDouble ceiling = ceilingM == null ? OptionalDouble.empty() : OptionalDouble.of(ceilingM.doubleValue());
        return new Cover.Granted(
                reference,
                leavesOpen(Cover.Dimension.TIME) ? Optional.of(need.window()) : window(),
                leavesOpen(Cover.Dimension.AREA) ? Optional.of(need.area()) : drawn,
                leavesOpen(Cover.Dimension.CEILING) && need.heightM().isPresent() ? need.heightM() : ceiling,
                craft,
                people,
                leavesOpen(Cover.Dimension.PURPOSE)
                        ? need.purpose().or(() -> Optional.of("any"))
                        : purpose.isBlank() ? Optional.empty() : Optional.of(purpose),
                new HashSet<>(quotes));
    }

    /** How it stands to a day in every dimension, its hours of the week with its days. */
    public List<Cover.Finding> cover(
            String reference, Cover.Need need, Optional<Area> drawn, Cover.Overhangs overhangs, ZoneId place) {
        List<Cover.Finding> found = Cover.of(need, granted(reference, need, drawn), overhangs);
        double outside = outsideWeek(need.window(), place);
        return outside == 0
                ? found
                : found.stream()
                        .map(f -> f.dimension() == Cover.Dimension.TIME
                                ? new Cover.Finding(
                                        Cover.Dimension.TIME,
                                        Cover.State.MISSING,
                                        "flown for " + yarrek.core.units.Finite.format(outside)
                                                + " min outside its hours of the week, " + weekly)
                                : f)
                        .toList();
    }

    /** As it stands, for comparing a request with an approval. */
    public Cover.Granted plain(String reference) {
        return new Cover.Granted(
                reference,
                window(),
                drawnArea(),
                ceilingM == null ? OptionalDouble.empty() : OptionalDouble.of(ceilingM.doubleValue()),
                Set.copyOf(new HashSet<>(aircraft)),
                Set.copyOf(new HashSet<>(pilots)),
                purpose.isBlank() ? Optional.empty() : Optional.of(purpose),
                Set.copyOf(new HashSet<>(quotes)));
    }
}
