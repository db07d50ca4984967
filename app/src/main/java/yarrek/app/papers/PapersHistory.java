package yarrek.app.papers;

import java.util.Map;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import yarrek.app.history.Recorded;

/** What of this module has its history shown. */
@Configuration
class PapersHistory {
    @Bean
    Recorded<PaperEntity> paperRecorded(Papers papers) {
        return Recorded.of(
                        "paper", "paper", PaperEntity.class, papers::called, p -> "/papers/" + p.id, papers::restored)
                .labelled(
                        Map.of("amountSdr", "Cover per accident, SDR", "holderKind", "Held by", "holderId", "Holder"));
    }

    @Bean
    Recorded<ScanEntity> scanRecorded() {
        return Recorded.of(
                "scan", "scan of a paper", ScanEntity.class, s -> s.fileName, s -> "/papers/" + s.paperId, s -> {});
    }

    @Bean
    Recorded<PaperKindEntity> paperKindRecorded(Papers papers) {
        return new Recorded<>(
                "paper-kind",
                "kind of paper",
                PaperKindEntity.class,
                code -> code,
                k -> k.words,
                k -> "/papers/kinds/edit/" + k.code,
                Map.of("words", "Name"),
                Recorded.BOOKS,
                true,
                false,
                papers::restored);
    }
}
