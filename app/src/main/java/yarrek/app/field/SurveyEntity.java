package yarrek.app.field;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.Instant;
import java.time.LocalDate;
import java.util.UUID;
import org.hibernate.envers.Audited;

/** A survey of a site. Once signed it is never changed; another is begun from it. */
@Audited
@Entity
@Table(name = "site_survey")
class SurveyEntity {
    @Id
    UUID id;

    @Version
    long version;

    UUID siteId;
    UUID jobId;
    String jurisdiction;
    LocalDate visitedOn;
    String madeBy;
    Instant madeAt;

    @Column(columnDefinition = "mediumtext")
    String answers;

    @Column(columnDefinition = "mediumtext")
    String seenThen;

    UUID copiedFrom;
    String signedBy;
    Instant signedAt;

    @Column(columnDefinition = "mediumtext")
    String signedContent;

    protected SurveyEntity() {} // for JPA only

    SurveyEntity(UUID id) {
        this.id = id;
    }
}
