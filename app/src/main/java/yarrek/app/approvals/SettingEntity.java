package yarrek.app.approvals;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import org.hibernate.envers.Audited;

/** How the operator plans chains; there is one. */
@Audited
@Entity
@Table(name = "approval_setting")
class SettingEntity {
    @Id
    int id;

    @Version
    long version;

    @Column(name = "hours_a_day")
    double hoursADay;

    int marginDays;
    int toleranceDays;

    @Column(name = "tolerance_m")
    double toleranceM;

    int rehearsalDays;
    int nudgeDays;
    double confirmMinutes;

    @Column(columnDefinition = "mediumtext")
    String holidays;

    @Column(columnDefinition = "mediumtext")
    String procedures;

    @Column(columnDefinition = "mediumtext")
    String risks;

    protected SettingEntity() {} // for JPA only
}
