package yarrek.core.rulebook;

import java.util.List;
import java.util.Optional;

/** Kinds of paper that mean something, as a fresh house has them. */
public final class SomePapers {
    public static final PaperKinds KINDS = new PaperKinds(List.of(
            PaperKind.of("markOnAircraft", "mark", "aircraft").settling("marked", true),
            PaperKind.of("airworthinessCertificate", "certificate of airworthiness", "aircraft")
                    .settling("airworthinessCertificate", false),
            PaperKind.of("modelDeclaration", "model declaration", "aircraft").settling("modelDeclarations", false),
            new PaperKind(
                    "operationalAuthorisation",
                    "operational authorisation",
                    "operator",
                    Optional.empty(),
                    false,
                    true,
                    Optional.empty(),
                    true,
                    Optional.of("registration"),
                    Optional.empty()),
            home("pilotCertificate", "pilot", PaperKind.Home.CERTIFICATE),
            home("aircraftRegistration", "aircraft", PaperKind.Home.REGISTRATION),
            home("operatorRegistration", "operator", PaperKind.Home.REGISTRATION)));

    private SomePapers() {}

    private static PaperKind home(String code, String holder, PaperKind.Home home) {
        return new PaperKind(
                code,
                code,
                holder,
                Optional.empty(),
                false,
                false,
                Optional.of(home),
                false,
                Optional.empty(),
                Optional.empty());
    }
}
