package yarrek.app.rulebook;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import java.time.Instant;
import java.util.UUID;
import org.hibernate.envers.Audited;
import yarrek.core.rulebook.Layer;

/** A rule that the operator entered: of the house, a maker, a by-law, a landowner or an approval. Its text reads as a rule. */
@Audited
@Entity
@Table(name = "own_rule")
class OwnRuleEntity {
    @Id
    UUID id;

    @Version
    long version;

    String ruleId;

    @Enumerated(EnumType.STRING)
    Layer layer;

    @Enumerated(EnumType.STRING)
    OwnRules.BoundTo boundTo;

    UUID boundId;
    String yaml;
    boolean active;
    String madeBy;
    Instant madeAt;

    protected OwnRuleEntity() {} // for JPA only

    OwnRuleEntity(UUID id) {
        this.id = id;
    }
}
