package yarrek.app.papers;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Optional;

/** What a scan may be, told by its first bytes and never by its name. */
enum ScanType {
    PDF("application/pdf", "%PDF-", ""),
    JPEG("image/jpeg", "\u00ff\u00d8\u00ff", ""),
    PNG("image/png", "\u0089PNG\r\n\u001a\n", ""),
    WEBP("image/webp", "RIFF", "WEBP");

    private static final int SECOND_AT = 8;

    private final String mime;
    private final String start;
    private final String second;

    ScanType(String mime, String start, String second) {
        this.mime = mime;
        this.start = start;
        this.second = second;
    }

    String mime() {
        return mime;
    }

    static Optional<ScanType> of(byte[] content) {
        String head = new String(content, 0, Math.min(content.length, 16), StandardCharsets.ISO_8859_1);
        return Arrays.stream(values())
                .filter(t -> head.startsWith(t.start) && head.startsWith(t.second, t.second.isEmpty() ? 0 : SECOND_AT))
                .findFirst();
    }
}
