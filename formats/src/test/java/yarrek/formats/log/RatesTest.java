package yarrek.formats.log;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import org.junit.jupiter.api.Test;
import yarrek.core.trace.Channel;
import yarrek.core.trace.Trace;

class RatesTest {
    private static final long START = Instant.parse("2024-05-14T09:12:30Z").getEpochSecond() * 1_000_000L;

    private static LogReading read(Rates r) throws BrokenFileException {
        TraceBuilder b = new TraceBuilder();
        r.pour(b, START);
        return b.build(false);
    }

    private static void place(Rates r, long micros) {
        r.at(micros);
        r.put(Channel.LATITUDE_DEG, 46.6 + micros * 1e-12);
        r.put(Channel.LONGITUDE_DEG, -17.88);
    }

    @Test
    void whatLiesTogetherIsOneRowAtTheMomentOfItsPlace() throws Exception {
        Rates r = new Rates();
        for (int i = 0; i < 20; i++) {
            r.at(i * 100_000L);
            r.put(Channel.VOLTAGE_V, 12);
            place(r, i * 100_000L + 15_000);
        }
        Trace t = read(r).trace();
        assertThat(t.size()).isEqualTo(20);
        assertThat(t.start()).isEqualTo(Instant.parse("2024-05-14T09:12:30.015Z"));
        assertThat(t.at(Channel.VOLTAGE_V, 0)).isEqualTo(12);
    }

    @Test
    void furtherApartIsARowOfItsOwn() throws Exception {
        Rates r = new Rates();
        for (int i = 0; i < 20; i++) {
            place(r, i * 100_000L);
            r.at(i * 100_000L + 20_001);
            r.put(Channel.VOLTAGE_V, 12);
        }
        Trace t = read(r).trace();
        assertThat(t.size()).isEqualTo(40);
        assertThat(t.at(Channel.VOLTAGE_V, 0)).isNaN();
        assertThat(t.at(Channel.LATITUDE_DEG, 1)).isNaN();
    }

    @Test
    void aQuantityStandsInARowOnce() throws Exception {
        Rates r = new Rates();
        for (int i = 0; i < 20; i++) {
            place(r, i * 5_000L);
        }
        assertThat(read(r).trace().size()).isEqualTo(20);
    }

    @Test
    void theOrderIsThatOfTheClockAndNotOfTheFile() throws Exception {
        Rates r = new Rates();
        for (int i = 0; i < 20; i++) {
            place(r, i * 100_000L);
        }
        r.at(350_000);
        r.put(Channel.VOLTAGE_V, 11);
        Trace t = read(r).trace();
        assertThat(t.at(Channel.VOLTAGE_V, 4)).isEqualTo(11);
        assertThat(t.seconds()[4]).isCloseTo(0.35, within(1e-9));
    }

    @Test
    void aMomentFarFromBothItsNeighboursIsDamage() throws Exception {
        Rates r = new Rates();
        for (int i = 0; i < 20; i++) {
            place(r, i * 100_000L);
            if (i == 7) {
                place(r, 900_000_000L);
            }
        }
        place(r, 5_000_000_000L);
        LogReading read = read(r);
        assertThat(read.problems().get(0).sentence()).contains("2 records have a time far from those beside it");
        assertThat(read.trace().seconds()[read.trace().size() - 1]).isCloseTo(1.9, within(0.001));
    }

    @Test
    void aHoleAfterWhichItGoesOnIsNoDamage() throws Exception {
        Rates r = new Rates();
        for (int i = 0; i < 40; i++) {
            place(r, i * 100_000L + (i < 20 ? 0 : 60_000_000L));
        }
        LogReading read = read(r);
        assertThat(read.problemCount()).isZero();
        assertThat(read.trace().size()).isEqualTo(40);
        assertThat(read.notes()).anyMatch(n -> n.contains("no rows for 60"));
    }

    @Test
    void wordsStandAtTheirMoment() throws Exception {
        Rates r = new Rates();
        for (int i = 0; i < 20; i++) {
            place(r, i * 100_000L);
        }
        r.message(550_000, "warning", "high wind");
        r.mode(300_000, "LAND");
        Trace t = read(r).trace();
        assertThat(t.messages().get(0).atS()).isCloseTo(0.55, within(1e-9));
        assertThat(t.modes().get(0).atS()).isCloseTo(0.3, within(1e-9));
    }

    @Test
    void whatIsNoFigureIsNotKept() throws Exception {
        Rates r = new Rates();
        assertThat(r.isEmpty()).isTrue();
        for (int i = 0; i < 3; i++) {
            place(r, i * 100_000L);
            r.put(Channel.VOLTAGE_V, Double.NaN);
            r.put(Channel.CURRENT_A, Double.POSITIVE_INFINITY);
        }
        assertThat(r.isEmpty()).isFalse();
        Trace t = read(r).trace();
        assertThat(t.has(Channel.VOLTAGE_V)).isFalse();
        assertThat(t.has(Channel.CURRENT_A)).isFalse();
    }
}
