package yarrek.app.papers;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Transient;
import jakarta.persistence.Version;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Optional;
import java.util.UUID;
import org.hibernate.envers.Audited;
import yarrek.core.paper.Paper;
import yarrek.core.rulebook.PaperHeld;
import yarrek.core.time.Validity;

/** A paper. Invariant: the end is not before the start; the lead time is zero or more. */
@Audited
@Entity
@Table(name = "paper")
class PaperEntity {
    @Id
    UUID id;

    @Version
    long version;

    String kind;
    String level;
    String number;
    String issuer;
    String jurisdiction;
    String holderKind;
    UUID holderId;
    LocalDate issuedOn;
    LocalDate validFrom;
    LocalDate validTo;
    boolean endKnown;
    String zone;
    int leadDays;
    String conditions;
    String verifiedWhere;

    @Column(name = "amount_sdr")
    Double amountSdr;

    String lifts;
    java.math.BigDecimal cost;

    @Column(columnDefinition = "char(3)")
    String currency;

    Integer renewEarlyDays;
    String needs;
    String verifiedBy;
    LocalDate verifiedOn;
    java.math.BigDecimal amount;

    @Column(columnDefinition = "char(3)")
    String amountCurrency;

    String enteredBy;
    Instant enteredAt;

    /** Of a copy, which nobody changes; else null. */
    @Transient
    private Paper made;

    protected PaperEntity() {} // for JPA only

    PaperEntity(UUID id) {
        this.id = id;
    }

    /** The same, of no session: for holding in memory, where nobody changes it. */
    PaperEntity copy() {
        PaperEntity c = new PaperEntity(id);
        c.version = version;
        c.kind = kind;
        c.level = level;
        c.number = number;
        c.issuer = issuer;
        c.jurisdiction = jurisdiction;
        c.holderKind = holderKind;
        c.holderId = holderId;
        c.issuedOn = issuedOn;
        c.validFrom = validFrom;
        c.validTo = validTo;
        c.endKnown = endKnown;
        c.zone = zone;
        c.leadDays = leadDays;
        c.conditions = conditions;
        c.verifiedWhere = verifiedWhere;
        c.amountSdr = amountSdr;
        c.lifts = lifts;
        c.cost = cost;
        c.currency = currency;
        c.renewEarlyDays = renewEarlyDays;
        c.needs = needs;
        c.verifiedBy = verifiedBy;
        c.verifiedOn = verifiedOn;
        c.amount = amount;
        c.amountCurrency = amountCurrency;
        c.enteredBy = enteredBy;
        c.enteredAt = enteredAt;
        c.made = c.paper();
        return c;
    }

    Paper paper() {
        if (made != null) {
            return made;
        }
        return new Paper(
                id.toString(),
                kind,
                Optional.ofNullable(level),
                number,
                holderKind,
                holderId.toString(),
                new Validity(Optional.ofNullable(validFrom), Optional.ofNullable(validTo), ZoneId.of(zone)),
                endKnown,
                leadDays);
    }

    /** As a fact, its holder under a role. */
    PaperHeld held(String role) {
        Paper paper = paper();
        return new PaperHeld(kind, paper.level(), role, number, jurisdiction, paper.validity(), endKnown);
    }
}
