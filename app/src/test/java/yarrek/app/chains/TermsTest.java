package yarrek.app.chains;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import tools.jackson.databind.json.JsonMapper;
import yarrek.core.approval.Cover;
import yarrek.core.approval.Terms;

/** Terms as they are stored. */
class TermsTest {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private static Terms terms(Set<Cover.Dimension> open) {
        return new Terms(
                Instant.parse("2027-06-12T08:00:00Z"),
                Instant.parse("2027-06-12T18:00:00Z"),
                "46.592500, -17.909500; 46.592500, -17.903000; 46.588500, -17.903000",
                90.0,
                "300 ft above ground",
                List.of("S-1", "S-2"),
                List.of("Ailsa Fenwright"),
                "work",
                List.of("SP-12"),
                open);
    }

    @ParameterizedTest
    @EnumSource(Cover.Dimension.class)
    void whatIsStoredComesBackTheSame(Cover.Dimension open) {
        Terms t = terms(Set.of(open));
        assertThat(JSON.readValue(JSON.writeValueAsString(t), Terms.class)).isEqualTo(t);
        assertThat(JSON.readValue(JSON.writeValueAsString(Terms.NONE), Terms.class))
                .isEqualTo(Terms.NONE);
    }

    @Test
    void asAPaperItSaysWhatItSays() {
        Cover.Granted g = terms(Set.of()).plain("A-1");
        assertThat(g.reference()).isEqualTo("A-1");
        assertThat(g.window()).isPresent();
        assertThat(g.area().orElseThrow().corners()).hasSize(3);
        assertThat(g.ceilingM()).hasValue(90);
        assertThat(g.aircraft()).containsExactlyInAnyOrder("S-1", "S-2");
        assertThat(g.quotes()).containsExactly("SP-12");
        assertThat(Terms.NONE.plain("A-2").window()).isEmpty();
        assertThat(Terms.NONE.plain("A-2").purpose()).isEmpty();
    }

    @ParameterizedTest
    @EnumSource(UnlockHours.class)
    void hoursAreSaidInWords(UnlockHours h) {
        assertThat(Covers.words(h.hour)).isEqualTo(h.words);
    }

    enum UnlockHours {
        BEFORE(yarrek.core.approval.UnlockLife.Hour.NOT_YET, "not yet valid"),
        WITHIN(yarrek.core.approval.UnlockLife.Hour.VALID, "valid"),
        AFTER(yarrek.core.approval.UnlockLife.Hour.OVER, "over");

        private final yarrek.core.approval.UnlockLife.Hour hour;
        private final String words;

        UnlockHours(yarrek.core.approval.UnlockLife.Hour hour, String words) {
            this.hour = hour;
            this.words = words;
        }
    }
}
