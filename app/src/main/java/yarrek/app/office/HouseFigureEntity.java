package yarrek.app.office;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import org.hibernate.envers.Audited;

/** A figure that the house has chosen for itself. */
@Audited
@Entity
@Table(name = "house_figure")
class HouseFigureEntity {
    @Id
    String code;

    @Version
    long version;

    @Column(name = "amount")
    double amount;

    protected HouseFigureEntity() {} // for JPA only

    HouseFigureEntity(String code) {
        this.code = code;
    }
}
