package yarrek.app.airspace;

import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.UUID;
import java.util.function.Supplier;
import org.springframework.stereotype.Component;
import yarrek.app.forms.Form;
import yarrek.app.forms.Register;
import yarrek.app.office.Office;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.units.Finite;

/** Sites, what stands on them, and whom to call, as registers. */
@Component
public class PlaceRegisters {
    /** A thing on a site, with the site it stands on. */
    public record Thing(Sites.SiteView site, Sites.Feature feature) {
        /** The same for the same thing of the same site: things have no number of their own. */
        UUID id() {
            String named = site.id() + "/" + feature.kind() + "/" + feature.name() + "/"
                    + (feature.name().isEmpty() ? feature.shape() : "");
            return UUID.nameUUIDFromBytes(named.getBytes(StandardCharsets.UTF_8));
        }
    }

    private final Sites sites;
    private final Directory directory;
    private final Rulebook rulebook;
    private final Office office;
    private final Clock clock;

    PlaceRegisters(Sites sites, Directory directory, Rulebook rulebook, Office office, Clock clock) {
        this.sites = sites;
        this.directory = directory;
        this.rulebook = rulebook;
        this.office = office;
        this.clock = clock;
    }

    private LocalDate today() {
        return LocalDate.now(clock.withZone(office.operator().zone()));
    }

    /** What stands on a site stays as it is; it has a register of its own. */
    public Register<Sites.SiteView> sites() {
        return new Register<>(
                "sites",
                "sites",
                List.of(List.of("name")),
                List.of("name"),
                sites::sites,
                Sites.SiteView::id,
                form -> SiteForm.fields(form, rulebook.places()),
                (form, s) -> {
                    SiteForm.values(s).forEach(form::set);
                    form.version(s.version()).history("site", s.id());
                },
                (form, id) -> {
                    List<SiteForm.Row> things = id == null
                            ? List.of()
                            : SiteForm.rows(sites.site(id).features());
                    Sites.SiteView s = SiteForm.read(form, things, id, today());
                    return () -> sites.save(s);
                });
    }

    public Register<Thing> things() {
        return new Register<>(
                "site-things",
                "things on sites",
                List.of(List.of("site", "kind", "name")),
                List.of(),
                () -> sites.sites().stream()
                        .flatMap(s -> s.features().stream().map(f -> new Thing(s, f)))
                        .toList(),
                Thing::id,
                this::thingFields,
                PlaceRegisters::fill,
                this::readThing);
    }

    private void thingFields(Form form) {
        List<Form.Option> places = new ArrayList<>(List.of(new Form.Option("", "choose")));
        sites.names().forEach((id, name) -> places.add(new Form.Option(id.toString(), name)));
        List<Form.Option> known = new ArrayList<>(List.of(new Form.Option("", "not said")));
        Arrays.stream(Sites.Known.values()).forEach(k -> known.add(new Form.Option(k.name(), k.words())));
        form.select("site", "Site", "", places)
                .select(
                        "kind",
                        "What it is",
                        "",
                        Arrays.stream(Sites.FeatureKind.values())
                                .map(k -> new Form.Option(k.name(), k.words()))
                                .toList())
                .text("sort", "Sort", "such as mast, line, tree, crane, building")
                .text("name", "Name", "")
                .text("height", "Height above ground", "of its top, such as 12 m")
                .text("shape", "Where", "a position, or positions with a semicolon between")
                .select("known", "How it is known", "", known)
                .text("note", "Note", "");
    }

    private static void fill(Form form, Thing t) {
        Sites.Feature f = t.feature();
        form.set("site", t.site().id())
                .set("kind", f.kind().name())
                .set("sort", f.sort())
                .set("name", f.name())
                .set("height", f.heightM() == null ? "" : Finite.format(f.heightM()) + " m")
                .set("shape", f.shape())
                .set("known", f.known() == null ? "" : f.known().name())
                .set("note", f.note());
    }

    private Supplier<UUID> readThing(Form form, UUID id) {
        UUID site = form.id("site", true);
        String kind = form.choice("kind", true);
        String known = form.choice("known", false);
        List<Sites.Feature> read = SiteForm.features(
                form,
                List.of(new SiteForm.Row(
                        kind == null ? "" : kind,
                        form.raw("sort").strip(),
                        form.raw("name").strip(),
                        form.raw("height").strip(),
                        form.raw("shape").strip(),
                        known == null ? "" : known,
                        form.raw("note").strip())));
        return () -> {
            Sites.SiteView now = sites.site(site);
            List<Sites.Feature> things = new ArrayList<>();
            now.features().stream()
                    .filter(f -> !new Thing(now, f).id().equals(id))
                    .forEach(things::add);
            things.addAll(read);
            sites.save(now.with(things));
            return new Thing(now, read.get(0)).id();
        };
    }

    public Register<Directory.Entry> directory() {
        return new Register<>(
                "directory",
                "whom to call",
                List.of(List.of("name")),
                List.of("name"),
                directory::all,
                Directory.Entry::id,
                Directory::fields,
                (form, e) -> {
                    Directory.values(e).forEach(form::set);
                    form.version(e.version());
                },
                (form, id) -> {
                    Directory.Entry e = Directory.read(form, id, today());
                    return () -> directory.save(e);
                });
    }
}
