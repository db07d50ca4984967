package yarrek.app.approvals;

import java.util.Map;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import yarrek.app.history.Recorded;

/** What of this module has its history shown. */
@Configuration
class ApprovalsHistory {
    @Bean
    Recorded<KindEntity> approvalKindRecorded(Kinds kinds) {
        return new Recorded<>(
                "approval-kind",
                "kind of approval",
                KindEntity.class,
                code -> code,
                k -> k.code,
                k -> "/approvals/kinds/" + k.code,
                Map.of("yaml", "Text"),
                Recorded.BOOKS,
                true,
                false,
                k -> kinds.restored());
    }

    @Bean
    Recorded<GranterEntity> granterRecorded(Granters granters) {
        return Recorded.of(
                "granter",
                "granter",
                GranterEntity.class,
                g -> g.name,
                g -> "/approvals/granters/" + g.id,
                g -> granters.changed());
    }

    /** Its steps are taken back by further steps, each of them said to the granter: the history only shows them. */
    @Bean
    Recorded<ApprovalEntity> approvalRecorded() {
        return Recorded.shown("approval", "approval", ApprovalEntity.class, a -> a.title, a -> "/approvals/" + a.id);
    }
}
