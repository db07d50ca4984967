package yarrek.app.answers;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.IdClass;
import jakarta.persistence.Table;
import java.io.Serializable;
import java.time.Instant;
import java.util.UUID;
import org.hibernate.envers.Audited;

/** One fact said of one thing. Invariant: the value reads as the fact's type. */
@Audited
@Entity
@Table(name = "answer")
@IdClass(AnswerEntity.Key.class)
class AnswerEntity {
    /** What was said of what. */
    record Key(Answers.About about, UUID aboutId, String fact) implements Serializable {}

    @Id
    @Enumerated(EnumType.STRING)
    Answers.About about;

    @Id
    UUID aboutId;

    @Id
    String fact;

    String value;
    String saidBy;
    Instant saidAt;

    protected AnswerEntity() {} // for JPA only

    AnswerEntity(Answers.About about, UUID aboutId, String fact) {
        this.about = about;
        this.aboutId = aboutId;
        this.fact = fact;
    }
}
