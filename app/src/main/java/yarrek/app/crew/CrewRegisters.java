package yarrek.app.crew;

import java.time.Clock;
import java.time.LocalDate;
import java.util.List;
import java.util.UUID;
import java.util.function.Supplier;
import org.springframework.stereotype.Component;
import yarrek.app.forms.Form;
import yarrek.app.forms.Register;
import yarrek.app.office.Office;

/** The register of the crew as forms. */
@Component
public class CrewRegisters {
    private final Crew crew;
    private final Office office;
    private final Clock clock;

    CrewRegisters(Crew crew, Office office, Clock clock) {
        this.crew = crew;
        this.office = office;
        this.clock = clock;
    }

    public Register<Crew.PersonView> people() {
        return new Register<>(
                "crew",
                "crew",
                List.of(List.of("name")),
                List.of("name"),
                crew::all,
                Crew.PersonView::id,
                CrewRegisters::fields,
                CrewRegisters::fill,
                this::read);
    }

    private static void fields(Form form) {
        form.text("name", "Name", "")
                .text("bornOn", "Born on", "a date; decides the age")
                .text("phone", "Telephone", "in international form");
    }

    private static void fill(Form form, Crew.PersonView p) {
        form.set("name", p.name())
                .set("bornOn", p.bornOn())
                .set("phone", p.phone())
                .version(p.version());
    }

    private Supplier<UUID> read(Form form, UUID id) {
        LocalDate today = LocalDate.now(clock.withZone(office.operator().zone()));
        String name = form.requiredText("name", 120);
        LocalDate born = form.date("bornOn", false, today);
        if (born != null && born.isAfter(today)) {
            form.error("bornOn", "that day is still to come");
        }
        String phone = form.optionalText("phone", 40);
        return () -> crew.save(id, form.getVersion(), name, born, phone);
    }
}
