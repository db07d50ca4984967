package yarrek.formats.logs;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Optional;
import yarrek.formats.dataflash.DataflashReader;
import yarrek.formats.gpx.GpxReader;
import yarrek.formats.log.BrokenFileException;
import yarrek.formats.log.LogReading;
import yarrek.formats.tracks.GeoJsonTrackReader;
import yarrek.formats.tracks.KmlTrackReader;
import yarrek.formats.ulog.UlogReader;

/**
 * A format whose files say themselves what they hold. A further one is its reader and an entry here; text in columns is no such
 * format, for its columns have to be matched.
 */
public enum LogFormat {
    GPX("GPX 1.1") {
        @Override
        boolean begins(byte[] content) {
            return beginsAsXml(content) && !KmlTrackReader.begins(head(content));
        }

        @Override
        public LogReading read(byte[] content) throws BrokenFileException {
            return GpxReader.read(content);
        }
    },
    ULOG("ULog") {
        @Override
        boolean begins(byte[] content) {
            return UlogReader.begins(content);
        }

        @Override
        public LogReading read(byte[] content) throws BrokenFileException {
            return UlogReader.read(content);
        }
    },
    DATAFLASH("DataFlash") {
        @Override
        boolean begins(byte[] content) {
            return DataflashReader.beginsBinary(content);
        }

        @Override
        public LogReading read(byte[] content) throws BrokenFileException {
            return DataflashReader.readBinary(content);
        }
    },
    DATAFLASH_TEXT("DataFlash as text") {
        @Override
        boolean begins(byte[] content) {
            return DataflashReader.beginsText(content);
        }

        @Override
        public LogReading read(byte[] content) throws BrokenFileException {
            return DataflashReader.readText(content);
        }
    },
    KML("KML with a track") {
        @Override
        boolean begins(byte[] content) {
            return beginsAsXml(content) && KmlTrackReader.begins(head(content));
        }

        @Override
        public LogReading read(byte[] content) throws BrokenFileException {
            return KmlTrackReader.read(content);
        }
    },
    GEOJSON("GeoJSON with times") {
        @Override
        boolean begins(byte[] content) {
            return GeoJsonTrackReader.begins(head(content));
        }

        @Override
        public LogReading read(byte[] content) throws BrokenFileException {
            return GeoJsonTrackReader.read(content);
        }
    };

    private static final int HEAD = 400;

    private final String words;

    LogFormat(String words) {
        this.words = words;
    }

    /** Name and version, for people. */
    public String words() {
        return words;
    }

    /** Whether a file begins as one of this format. */
    abstract boolean begins(byte[] content);

    /** @throws BrokenFileException when the file is not of the format after all, or holds nothing that can be read */
    public abstract LogReading read(byte[] content) throws BrokenFileException;

    /** The format that a file begins as; empty for text in columns and for what is no log. */
    public static Optional<LogFormat> of(byte[] content) {
        return Arrays.stream(values()).filter(f -> f.begins(content)).findFirst();
    }

    /** How it begins, without white space and byte order marks. */
    private static String head(byte[] content) {
        String head =
                new String(content, 0, Math.min(content.length, HEAD), StandardCharsets.ISO_8859_1).replace("\0", "");
        int from = 0;
        while (from < head.length() && (Character.isWhitespace(head.charAt(from)) || head.charAt(from) > 0x7F)) {
            from++;
        }
        return head.substring(from);
    }

    private static boolean beginsAsXml(byte[] content) {
        return head(content).startsWith("<");
    }
}
