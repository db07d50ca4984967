package yarrek.app.papers;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/** Kinds of paper known so far, and who holds them. */
public enum PaperKind {
    OPERATOR_REGISTRATION("operatorRegistration", "operator registration", "operator"),
    LIABILITY_INSURANCE("liabilityInsurance", "liability insurance", "operator"),
    OPERATIONAL_AUTHORISATION("operationalAuthorisation", "operational authorisation", "operator"),
    PILOT_CERTIFICATE("pilotCertificate", "certificate", "pilot", "A1/A3", "A2", "STS"),
    FIRST_AID("firstAid", "first-aid course", "pilot"),
    MARK_ON_AIRCRAFT("markOnAircraft", "mark", "aircraft"),
    HULL_INSURANCE("hullInsurance", "hull cover", "aircraft"),
    MAINTENANCE_RELEASE("maintenanceRelease", "maintenance release", "aircraft"),
    APPROVAL("approval", "approval", "job");

    private final String code;
    private final String words;
    private final String holder;
    private final String levels;

    PaperKind(String code, String words, String holder, String... levels) {
        this.code = code;
        this.words = words;
        this.holder = holder;
        this.levels = String.join(" ", levels);
    }

    public String code() {
        return code;
    }

    public String words() {
        return words;
    }

    public String holder() {
        return holder;
    }

    public List<String> levels() {
        return levels.isEmpty() ? List.of() : List.of(levels.split(" "));
    }

    public static Optional<PaperKind> of(String code) {
        return Arrays.stream(values()).filter(k -> k.code.equals(code)).findFirst();
    }

    public static List<PaperKind> heldBy(String holder) {
        return Arrays.stream(values()).filter(k -> k.holder.equals(holder)).toList();
    }

    static String words(String code) {
        return of(code).map(PaperKind::words).orElse(code);
    }
}
