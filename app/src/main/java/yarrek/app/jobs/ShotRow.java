package yarrek.app.jobs;

import jakarta.persistence.Column;
import jakarta.persistence.Embeddable;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import java.util.Objects;
import yarrek.core.judging.Shot;

/** A shot as it is stored with its job. */
@Embeddable
class ShotRow {
    @Enumerated(EnumType.STRING)
    Shot.Kind kind;

    String what;

    @Column(name = "height_m")
    Double heightM;

    @Column(name = "distance_m")
    Double distanceM;

    Double minutes;
    String resolution;

    @Column(name = "frames_per_s")
    Double framesPerS;

    String filter;
    String notes;

    protected ShotRow() {} // for JPA only

    ShotRow(Shot s) {
        kind = s.kind();
        what = s.what();
        heightM = s.heightM();
        distanceM = s.distanceM();
        minutes = s.minutes();
        resolution = s.resolution();
        framesPerS = s.framesPerS();
        filter = s.filter();
        notes = s.notes();
    }

    Shot shot() {
        return new Shot(kind, what, heightM, distanceM, minutes, resolution, framesPerS, filter, notes);
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof ShotRow row && shot().equals(row.shot());
    }

    @Override
    public int hashCode() {
        return Objects.hash(shot());
    }
}
