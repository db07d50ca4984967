package yarrek.core.rulebook;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

class SpineTest {
    private record Said(String phase, Verdict verdict, boolean departed) implements Spine.Phased {
        @Override
        public Severity severity() {
            return Severity.STOP;
        }

        @Override
        public boolean law() {
            return true;
        }

        @Override
        public boolean beaten() {
            return false;
        }

        @Override
        public boolean onTheDay() {
            return false;
        }
    }

    private static Said said(String phase, Verdict verdict) {
        return new Said(phase, verdict, false);
    }

    private static Spine.Vertebra of(Spine.Part part, Said... all) {
        return Spine.of(List.of(all)).stream()
                .filter(v -> v.part() == part)
                .findFirst()
                .orElseThrow();
    }

    @Test
    void everyPartStandsInTheOrderOfTheWork() {
        assertThat(Spine.of(List.<Said>of())).extracting(Spine.Vertebra::part).containsExactly(Spine.Part.values());
        assertThat(of(Spine.Part.SITE).shape()).isEqualTo("dots");
        assertThat(of(Spine.Part.SITE).says()).isEqualTo("no rule speaks of it");
    }

    @Test
    void theWorstOfAPartGivesItsShapeAndAllAreCounted() {
        Spine.Vertebra site = of(
                Spine.Part.SITE,
                said("place", Verdict.MET),
                said("airspace", Verdict.NOT_KNOWN),
                said("airspace", Verdict.BREACHED),
                said("place", Verdict.NOT_KNOWN),
                said("place", Verdict.NOT_APPLICABLE),
                said("people", Verdict.BREACHED));
        assertThat(site.shape()).isEqualTo("notch");
        assertThat(site.says()).isEqualTo("1 breached, 2 not known");
        assertThat(site.rules()).isEqualTo(4);
    }

    @Test
    void whatIsMetOrDepartedFromLeavesNothingOpen() {
        Spine.Vertebra crew =
                of(Spine.Part.PEOPLE, said("people", Verdict.MET), new Said("people", Verdict.BREACHED, true));
        assertThat(crew.shape()).isEqualTo("full");
        assertThat(crew.says()).isEqualTo("nothing open");
    }

    @Test
    void aPhaseThatNoPartNamesIsNotLost() {
        assertThat(of(Spine.Part.PLAN, said("something new", Verdict.BREACHED)).says())
                .isEqualTo("1 breached");
    }

    /** Nothing that stands open is in no part or in two. */
    @Test
    void openFindingsAreCountedOnce() {
        Random random = new Random(5);
        List<String> phases = List.of("place", "airspace", "people", "papers", "weather", "time", "odd", "equipment");
        for (int n = 0; n < 100; n++) {
            List<Said> all = new ArrayList<>();
            for (int i = 0; i < random.nextInt(30); i++) {
                List<Verdict> verdicts = List.of(Verdict.values());
                all.add(said(phases.get(random.nextInt(phases.size())), verdicts.get(random.nextInt(verdicts.size()))));
            }
            int applying = (int) all.stream()
                    .filter(f -> f.verdict() != Verdict.NOT_APPLICABLE)
                    .count();
            assertThat(Spine.of(all).stream().mapToInt(Spine.Vertebra::rules).sum())
                    .isEqualTo(applying);
        }
    }
}
