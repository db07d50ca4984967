package yarrek.app.papers;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.math.BigDecimal;
import org.hibernate.envers.Audited;
import yarrek.core.rulebook.PaperKind;

/** A kind of paper. Invariant: the code never changes, since rules and papers name it. */
@Audited
@Entity
@Table(name = "paper_kind")
class PaperKindEntity {
    @Id
    String code;

    @Version
    long version;

    String words;
    String holder;
    String levels;
    int leadDays;
    Integer renewEarlyDays;
    BigDecimal cost;

    @jakarta.persistence.Column(columnDefinition = "char(3)")
    String currency;

    String needs;
    String insures;
    String settles;
    boolean noneIsNo;
    boolean alsoForJob;

    @Enumerated(EnumType.STRING)
    PaperKind.Home home;

    boolean opensCategory;
    String answers;
    boolean shownToOfficials;
    int sortOrder;

    protected PaperKindEntity() {} // for JPA only

    PaperKindEntity(String code) {
        this.code = code;
    }
}
