package yarrek.app.airspace;

import jakarta.persistence.EntityManager;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.forms.Form;
import yarrek.app.forms.LostUpdateException;
import yarrek.app.page.NotFoundException;
import yarrek.core.geo.Area;
import yarrek.core.geo.Geodesy;
import yarrek.core.geo.Position;
import yarrek.core.geo.PositionText;
import yarrek.core.geo.ShapeText;

/** Whom to call, by area: flight information, towers, pads, rescue, parks. */
@Service
public class Directory {
    /** What somebody is called for; in the order of an emergency card. */
    public enum Role {
        EMERGENCY("emergency number", "somebody is hurt or in danger, or something burns"),
        FLIGHT_INFORMATION("flight information", "it flies away, climbs, or can meet crewed aircraft"),
        TOWER("tower or approach", "it goes towards their aerodrome or airspace"),
        HELIPORT("heliport or pad", "it goes towards their pad"),
        COASTGUARD("coast guard", "somebody or the aircraft is in the water"),
        POLICE("police", "it came down among people, on a road, or where it cannot be fetched"),
        FIRE("fire service", "fire, or a pack that smokes"),
        HOSPITAL("hospital", "somebody is hurt"),
        LAND("landowner, park or harbour", ""),
        MAKER("maker's support", ""),
        OTHER("other", "");

        private final String words;
        private final String forWhat;

        Role(String words, String forWhat) {
            this.words = words;
            this.forWhat = forWhat;
        }

        public String words() {
            return words;
        }

        /** Belongs on an emergency card. */
        public boolean isUrgent() {
            return !forWhat.isEmpty();
        }

        /** When they are the ones to call; empty when they are not called in a hurry. */
        public String forWhat() {
            return forWhat;
        }
    }

    /**
     * @param area where they are the ones to call; null for everywhere
     * @param place where they are, for "nearest help"; null when it does not matter
     * @param confirmedOn when the entry was last found right; null for never
     */
    public record Entry(
            UUID id,
            long version,
            String name,
            Role role,
            String phone,
            String radio,
            String hours,
            Area area,
            Position place,
            LocalDate confirmedOn,
            String confirmedBy,
            String note) {

        /** The shape of how sure it is, as {@code bits :: status} draws it: never confirmed, long ago, lately. */
        public String shape(LocalDate old) {
            return confirmedOn == null ? "dots" : confirmedOn.isBefore(old) ? "cut" : "full";
        }
    }

    /**
     * An entry seen from a site.
     *
     * @param distanceM to their place; null when it is not on file
     */
    public record Nearby(Entry entry, Double distanceM, Double bearingDeg) {}

    private final EntityManager em;

    Directory(EntityManager em) {
        this.em = em;
    }

    @Transactional(readOnly = true)
    public List<Entry> all() {
        return em.createQuery("from DirectoryEntity d order by d.name", DirectoryEntity.class)
                .getResultStream()
                .map(Directory::view)
                .sorted(Comparator.comparing(Entry::role))
                .toList();
    }

    @Transactional(readOnly = true)
    public Entry entry(UUID id) {
        return view(entity(id));
    }

    /** Whom to call for an area: those whose own area meets it, or who are for everywhere; the smallest area first. */
    @Transactional(readOnly = true)
    public List<Nearby> forArea(Area area, Position launch) {
        return all().stream()
                .filter(e -> e.area() == null || e.area().meets(area))
                .sorted(Comparator.comparing(Entry::role)
                        .thenComparing(e ->
                                e.area() == null ? Double.MAX_VALUE : e.area().areaM2())
                        .thenComparing(
                                e -> e.place() == null ? Double.MAX_VALUE : Geodesy.distanceM(launch, e.place())))
                .map(e -> e.place() == null
                        ? new Nearby(e, null, null)
                        : new Nearby(e, Geodesy.distanceM(launch, e.place()), Geodesy.bearingDeg(launch, e.place())))
                .toList();
    }

    @Transactional
    public UUID save(Entry v) {
        DirectoryEntity d = v.id() == null ? new DirectoryEntity(UUID.randomUUID()) : entity(v.id());
        if (v.id() != null && v.version() != d.version) {
            throw new LostUpdateException(d.version);
        }
        d.name = v.name();
        d.role = v.role().name();
        d.phone = v.phone();
        d.radio = v.radio();
        d.hours = v.hours();
        d.area = v.area() == null ? "" : ShapeText.write(v.area());
        d.placeLat = v.place() == null ? null : v.place().latitudeDeg();
        d.placeLon = v.place() == null ? null : v.place().longitudeDeg();
        d.confirmedOn = v.confirmedOn();
        d.confirmedBy = v.confirmedBy();
        d.note = v.note();
        if (v.id() == null) {
            em.persist(d);
        }
        em.flush();
        return d.id;
    }

    @Transactional
    public void remove(UUID id) {
        em.remove(entity(id));
    }

    private DirectoryEntity entity(UUID id) {
        DirectoryEntity d = em.find(DirectoryEntity.class, id);
        if (d == null) {
            throw new NotFoundException("directory entry");
        }
        return d;
    }

    private static Entry view(DirectoryEntity d) {
        return new Entry(
                d.id,
                d.version,
                d.name,
                Role.valueOf(d.role),
                d.phone,
                d.radio,
                d.hours,
                d.area.isEmpty() ? null : ShapeText.area(d.area),
                d.placeLat == null || d.placeLon == null ? null : new Position(d.placeLat, d.placeLon),
                d.confirmedOn,
                d.confirmedBy,
                d.note);
    }

    // --- form --------------------------------------------------------------------------------------------------------

    static Form form(String title, String action) {
        Form form = new Form(title, action, "/airspace/directory");
        fields(form);
        return form;
    }

    static void fields(Form form) {
        form.text("name", "Name", "such as Tarrow tower")
                .select(
                        "role",
                        "Called for",
                        "",
                        Arrays.stream(Role.values())
                                .map(r -> new Form.Option(r.name(), r.words()))
                                .toList())
                .text("phone", "Telephone", "")
                .text("radio", "Radio", "channel or frequency, call sign")
                .text("hours", "Hours", "such as 07:00 to 19:00 local; empty: not known")
                .text("place", "Where they are", "a position; empty when it does not matter")
                .text("confirmedOn", "Last confirmed on", "a date")
                .text("confirmedBy", "By", "")
                .area("area", "For which area", "corners, or “circle 46.6, -17.9 radius 20 km”; empty: everywhere")
                .area("note", "Note", "");
    }

    static Map<String, String> values(Entry e) {
        Map<String, String> v = new java.util.LinkedHashMap<>();
        v.put("name", e.name());
        v.put("role", e.role().name());
        v.put("phone", e.phone());
        v.put("radio", e.radio());
        v.put("hours", e.hours());
        v.put("place", e.place() == null ? "" : e.place().toString());
        v.put("confirmedOn", e.confirmedOn() == null ? "" : e.confirmedOn().toString());
        v.put("confirmedBy", e.confirmedBy());
        v.put("area", e.area() == null ? "" : ShapeText.write(e.area()));
        v.put("note", e.note());
        return v;
    }

    /** Null when something is wrong, and then the form says what. */
    static Entry read(Form f, UUID id, LocalDate today) {
        String name = f.requiredText("name", 120);
        String role = f.choice("role", true);
        String phone = f.optionalText("phone", 60);
        String radio = f.optionalText("radio", 60);
        if (phone.isEmpty() && radio.isEmpty()) {
            f.error("phone", "a telephone number or a radio channel is needed");
        }
        List<Object> read = new ArrayList<>();
        for (String field : List.of("place", "area")) {
            String typed = f.optionalText(field, 8000);
            try {
                read.add(
                        typed.isEmpty()
                                ? java.util.Optional.empty()
                                : field.equals("place") ? PositionText.parse(typed) : ShapeText.area(typed));
            } catch (IllegalArgumentException e) {
                f.error(field, e.getMessage());
                read.add(java.util.Optional.empty());
            }
        }
        Entry e = new Entry(
                id,
                f.getVersion(),
                name,
                role == null ? Role.OTHER : Role.valueOf(role),
                phone,
                radio,
                f.optionalText("hours", 120),
                read.get(1) instanceof Area a ? a : null,
                read.get(0) instanceof Position p ? p : null,
                f.date("confirmedOn", false, today),
                f.optionalText("confirmedBy", 120),
                f.optionalText("note", 1000));
        return f.hasErrors() ? null : e;
    }
}
