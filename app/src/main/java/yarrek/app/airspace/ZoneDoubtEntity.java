package yarrek.app.airspace;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.Instant;
import java.util.UUID;

/** A notice that was not understood whole, and what was decided about it. */
@Entity
@Table(name = "zone_doubt")
class ZoneDoubtEntity {
    @Id
    UUID id;

    @Version
    long version;

    UUID sourceId;
    String zoneId;

    @Column(columnDefinition = "mediumtext")
    String text;

    String why;

    /** The zone as the reader took it, so that a decision can be taken back. */
    @Column(columnDefinition = "mediumtext")
    String taken;

    @Enumerated(EnumType.STRING)
    @Column(columnDefinition = "varchar(12)")
    Doubts.Decision decision;

    @Column(columnDefinition = "mediumtext")
    String area;

    String reason;
    String decidedBy;
    Instant decidedAt;

    protected ZoneDoubtEntity() {} // for JPA only

    ZoneDoubtEntity(UUID id, UUID sourceId, String zoneId) {
        this.id = id;
        this.sourceId = sourceId;
        this.zoneId = zoneId;
        this.reason = "";
    }
}
