package yarrek.app.history;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import org.hibernate.envers.RevisionEntity;
import org.hibernate.envers.RevisionListener;
import org.hibernate.envers.RevisionNumber;
import org.hibernate.envers.RevisionTimestamp;
import yarrek.app.page.Viewer;

/** One transaction that changed records, with who did it. */
@Entity
@Table(name = "revision")
@RevisionEntity(Revision.ByWhom.class)
class Revision {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    @RevisionNumber
    long id;

    @RevisionTimestamp
    Instant at;

    String who;

    /** Whether it is the first, in which everything stands that was there before there was a history. */
    boolean isBeginning() {
        return id == 1;
    }

    /** Takes down who is signed in; what happens by itself is the program's. */
    static final class ByWhom implements RevisionListener {
        @Override
        public void newRevision(Object revision) {
            ((Revision) revision).who = Viewer.found().map(Viewer::name).orElse("the program");
        }
    }
}
