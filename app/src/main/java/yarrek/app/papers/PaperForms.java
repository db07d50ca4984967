package yarrek.app.papers;

import java.math.BigDecimal;
import java.time.Clock;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.UUID;
import java.util.function.Supplier;
import org.springframework.stereotype.Component;
import yarrek.app.airspace.Airspace;
import yarrek.app.forms.Form;
import yarrek.app.office.Office;
import yarrek.app.page.Viewer;
import yarrek.app.rulebook.Rulebook;
import yarrek.core.rulebook.Vocabulary;

/** A paper as a form. */
@Component
public class PaperForms {
    private final Papers papers;
    private final Office office;
    private final Clock clock;
    private final Rulebook rulebook;
    private final Airspace airspace;

    PaperForms(Papers papers, Office office, Clock clock, Rulebook rulebook, Airspace airspace) {
        this.papers = papers;
        this.office = office;
        this.clock = clock;
        this.rulebook = rulebook;
        this.airspace = airspace;
    }

    /** @param holderKind whose papers; empty for the fields of all */
    public void fields(Form form, String holderKind) {
        List<Form.Option> kinds = new ArrayList<>();
        List<Form.Option> levels = new ArrayList<>(List.of(new Form.Option("", "none")));
        // an authorisation may be granted for one job alone
        for (Papers.Kind k : papers.kinds().stream()
                .filter(k -> holderKind.isEmpty()
                        || k.holder().equals(holderKind)
                        || (holderKind.equals("job") && k.meaning().alsoForJob()))
                .toList()) {
            kinds.add(new Form.Option(k.code(), k.words()));
            k.levels().forEach(l -> levels.add(new Form.Option(l, k.words() + ": " + l)));
        }
        form.group("The paper")
                .select("kind", "Kind", "", kinds)
                .select("level", "Level", "for kinds that have some", levels)
                .text("number", "Number", "as printed")
                .text("issuer", "Issued by", "")
                .group("Validity")
                .text("issuedOn", "Issued on", "a date such as 14 Mar 2026")
                .text("validFrom", "Valid from", "first day; empty when it always held")
                .text("validTo", "Valid to", "last day, to its end; empty when open")
                .select(
                        "endKnown",
                        "With no end date",
                        "what an empty “valid to” means",
                        List.of(
                                new Form.Option("yes", "it does not run out"),
                                new Form.Option("no", "the end is not known")))
                .text("zone", "Issuer's time zone", "decides when a day ends")
                .text("jurisdiction", "Counts in", "codes such as EU or EU GB; empty: everywhere")
                .group("Renewal")
                .text("leadDays", "Lead time", "days from asking for a renewal to holding it")
                .text("renewEarly", "May be renewed", "days before its end at the earliest")
                .text("cost", "Cost", "such as 31.50")
                .text("currency", "Currency", "such as EUR")
                .text("needs", "Needs", "what must be at hand for a renewal")
                .group("Checked")
                .text("verifiedBy", "Verified by", "")
                .text("verifiedOn", "On", "a date")
                .text("verifiedWhere", "Where and how", "such as the authority's register");
        if (holderKind.isEmpty() || holderKind.equals("operator") || holderKind.equals("aircraft")) {
            form.group("Insurance, when it is one")
                    .text("amount", "Sum insured", "as the policy says")
                    .text("amountCurrency", "Currency", "such as EUR");
        }
        if (holderKind.isEmpty() || holderKind.equals("operator")) {
            form.text("amountSdr", "Cover per accident", "SDR at the rate of the policy's date");
        }
        form.group("Details");
        if (holderKind.isEmpty() || holderKind.equals("job")) {
            form.text("lifts", "Lifts", "rule or zone ids it covers, with spaces between");
        }
        form.area("conditions", "Conditions", "in the issuer's words");
    }

    public void fill(Form form, Papers.Entry e, long version) {
        form.set("kind", e.kind())
                .set("level", e.level())
                .set("number", e.number())
                .set("issuer", e.issuer())
                .set("issuedOn", e.issuedOn())
                .set("validFrom", e.validFrom())
                .set("validTo", e.validTo())
                .set("endKnown", e.endKnown() ? "yes" : "no")
                .set("zone", e.zone().getId())
                .set("leadDays", e.leadDays())
                .set("conditions", e.conditions())
                .set("verifiedWhere", e.verifiedWhere())
                .set("amountSdr", e.amountSdr() == null ? "" : yarrek.core.units.Finite.format(e.amountSdr()))
                .set("lifts", e.lifts())
                .set("jurisdiction", e.jurisdiction())
                .set("renewEarly", e.terms().renewEarlyDays())
                .set("cost", e.terms().cost())
                .set("currency", e.terms().currency())
                .set("needs", e.terms().needs())
                .set("verifiedBy", e.terms().verifiedBy())
                .set("verifiedOn", e.terms().verifiedOn())
                .set("amount", e.terms().amount())
                .set("amountCurrency", e.terms().amountCurrency())
                .version(version);
    }

    /** The lead time of its kind for a paper that says none. */
    public void fillLead(Form form) {
        papers.kinds().stream()
                .filter(k -> k.code().equals(form.raw("kind"))
                        && form.raw("leadDays").isBlank())
                .findFirst()
                .ifPresent(k -> form.set("leadDays", k.leadDays()));
    }

    /**
     * Fills what was left empty of a new paper and is known: the lead time of its kind, and who issues such papers, when all
     * on file are issued by one.
     *
     * @return what was filled in that nobody typed, in words; empty for nothing
     */
    public String fillIn(Form form) {
        fillLead(form);
        if (!form.raw("issuer").isBlank()) {
            return "";
        }
        Optional<String> issuer = papers.onlyIssuer(form.raw("kind"), form.raw("level"));
        issuer.ifPresent(i -> form.set("issuer", i));
        return issuer.map(i -> "Issued by “" + i + "”, as every other paper of this kind; change it if it is not so.")
                .orElse("");
    }

    /** Reads a form, records its errors in it, and answers what would store it. */
    public Supplier<UUID> read(Form form, UUID id, String holderKind, UUID holderId) {
        LocalDate today = LocalDate.now(clock.withZone(office.operator().zone()));
        String kind = form.choice("kind", true);
        String level = form.choice("level", false);
        String number = form.requiredText("number", 80);
        String issuer = form.requiredText("issuer", 160);
        LocalDate issued = form.date("issuedOn", false, today);
        LocalDate from = form.date("validFrom", false, today);
        LocalDate to = form.date("validTo", false, today);
        if (from != null && to != null && to.isBefore(from)) {
            form.error(
                    "validTo", "valid to (" + to + ") is before valid from (" + from + "); one of the two is mistyped");
        }
        String zone = form.requiredText("zone", 64);
        if (!zone.isEmpty() && !ZoneId.getAvailableZoneIds().contains(zone)) {
            form.error("zone", "there is no such time zone; type one such as Atlantic/Azores");
        }
        Integer lead = form.whole("leadDays", 0, 1000, true);
        Double amount = form.holds("amountSdr") ? form.number("amountSdr", "SDR", 0, 1e12, false) : null;
        String conditions = form.optionalText("conditions", 2000);
        String verified = form.optionalText("verifiedWhere", 200);
        String lifts = form.holds("lifts") ? form.optionalText("lifts", 1000) : "";
        for (String lifted : lifts.split("[ ,]+")) {
            whyNotLifted(lifted).ifPresent(why -> form.error("lifts", why));
        }
        String counts = form.optionalText("jurisdiction", 40).toUpperCase(Locale.ROOT);
        if (!counts.matches("[A-Z]{2}(-[A-Z]{2})?( [A-Z]{2}(-[A-Z]{2})?)*|")) {
            form.error("jurisdiction", "type codes such as EU or EU GB; empty when it counts everywhere");
        }
        Papers.Terms terms = terms(form, today);
        return () -> papers.save(
                id,
                form.getVersion(),
                new Papers.Entry(
                        kind,
                        level,
                        number,
                        issuer,
                        counts,
                        holderKind,
                        holderId,
                        issued,
                        from,
                        to,
                        form.raw("endKnown").equals("yes"),
                        ZoneId.of(zone),
                        lead,
                        conditions,
                        verified,
                        amount,
                        lifts,
                        terms),
                Viewer.current().name());
    }

    /** A zone on file, a rule that an approval may lift, or a fact that is settled so. */
    private Optional<String> whyNotLifted(String id) {
        int at = id.indexOf('=');
        if (id.isBlank()
                || (at > 0 && Vocabulary.knows(id.substring(0, at)))
                || airspace.zone(id).isPresent()) {
            return Optional.empty();
        }
        return at > 0 ? Optional.of("there is no fact called " + id.substring(0, at)) : rulebook.whyNotLifted(id);
    }

    private static Papers.Terms terms(Form form, LocalDate today) {
        BigDecimal cost = decimal(form.number("cost", "", 0, 1e9, false));
        String currency = currency(form, "currency", cost != null);
        BigDecimal insured = form.holds("amount") ? decimal(form.number("amount", "", 0, 1e12, false)) : null;
        String insuredCurrency = form.holds("amount") ? currency(form, "amountCurrency", insured != null) : null;
        return new Papers.Terms(
                cost,
                currency,
                form.whole("renewEarly", 0, 3650, false),
                form.optionalText("needs", 400),
                form.optionalText("verifiedBy", 120),
                form.date("verifiedOn", false, today),
                insured,
                insuredCurrency);
    }

    private static BigDecimal decimal(Double d) {
        return d == null ? null : BigDecimal.valueOf(d).setScale(2, java.math.RoundingMode.HALF_UP);
    }

    private static String currency(Form form, String name, boolean needed) {
        String s = form.optionalText(name, 3).toUpperCase(Locale.ROOT);
        if (needed && !s.matches("[A-Z]{3}")) {
            form.error(name, "three letters such as EUR");
        }
        return s.isEmpty() ? null : s;
    }
}
