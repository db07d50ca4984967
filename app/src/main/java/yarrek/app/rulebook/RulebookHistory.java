package yarrek.app.rulebook;

import java.util.Map;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import yarrek.app.history.Recorded;

/** What of this module has its history shown. */
@Configuration
class RulebookHistory {
    @Bean
    Recorded<OwnRuleEntity> ownRuleRecorded(Rulebook rulebook) {
        return Recorded.of(
                        "rule",
                        "own rule",
                        OwnRuleEntity.class,
                        r -> r.ruleId,
                        r -> "/rulebook/own/" + r.id,
                        rulebook::restored)
                .labelled(Map.of("yaml", "Text", "boundTo", "Holds for", "boundId", "Which"));
    }

    @Bean
    Recorded<WaiverEntity> departureRecorded(Rulebook rulebook) {
        return Recorded.of(
                "departure",
                "departure",
                WaiverEntity.class,
                w -> "departure from " + w.ruleId,
                w -> "/jobs/" + w.jobId,
                rulebook::restored);
    }
}
