package yarrek.app.airspace;

import java.nio.charset.StandardCharsets;
import java.util.Optional;
import org.springframework.stereotype.Service;
import yarrek.app.outside.Outside;
import yarrek.core.airspace.ZoneKind;
import yarrek.core.rulebook.ZoneMet;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.zones.ZoneFiles;

/** The feed of notices to airmen. The one that ships is simulated, and every notice of it says so. */
@Service
public class NoticeFeed {
    static final String SOURCE = "notices (simulated feed)";
    private final Outside outside;
    private final Airspace airspace;

    NoticeFeed(Outside outside, Airspace airspace) {
        this.outside = outside;
        this.airspace = airspace;
    }

    /**
     * @throws IllegalStateException when the feed cannot be reached, with what to do
     * @throws BrokenFileException when what it gives cannot be read; then nothing is changed
     */
    public Airspace.SourceView fetch(String by) throws BrokenFileException {
        String text = outside.get("/stand-ins/notices");
        return airspace.bringIn(
                text.getBytes(StandardCharsets.UTF_8),
                "feed",
                new Airspace.SourceDraft(SOURCE, "simulated feed that ships with Yarrek", null, 1, false),
                new ZoneFiles.Settings(ZoneKind.TEMPORARY, Optional.of(ZoneMet.Restriction.NEEDS_AUTHORISATION), false),
                by);
    }
}
