package yarrek.formats.logs;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipInputStream;
import yarrek.core.time.Patience;
import yarrek.formats.log.BrokenFileException;

/** Several logs in one ZIP file. What it unfolds to is bounded, whatever it says of itself. */
public final class LogArchive {
    /** More files than these are brought in by several archives. */
    public static final int MOST_FILES = 500;

    private static final int CHUNK = 64 * 1024;

    private LogArchive() {}

    public static boolean begins(byte[] content) {
        return content.length > 4 && content[0] == 'P' && content[1] == 'K' && content[2] == 3 && content[3] == 4;
    }

    /**
     * The files in it by their path, in its order; folders and what a system hides beside them are left out.
     *
     * @param most bytes of all of them together
     * @throws BrokenFileException when it is damaged, holds an archive, or more than is allowed; nothing of it is taken then
     */
    public static Map<String, byte[]> files(byte[] content, long most) throws BrokenFileException {
        Map<String, byte[]> files = new LinkedHashMap<>();
        long all = 0;
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(content))) {
            for (ZipEntry e = zip.getNextEntry(); e != null; e = zip.getNextEntry()) {
                Patience.ask();
                if (e.isDirectory() || isHidden(e.getName())) {
                    continue;
                }
                if (files.size() >= MOST_FILES) {
                    throw new BrokenFileException(
                            "zip.files", "the archive holds more than " + MOST_FILES + " files; split it");
                }
                java.io.ByteArrayOutputStream out = new java.io.ByteArrayOutputStream();
                byte[] chunk = new byte[CHUNK];
                for (int n = zip.read(chunk); n >= 0; n = zip.read(chunk)) {
                    all += n;
                    if (all > most) {
                        throw new BrokenFileException(
                                "zip.size", "the archive unfolds to more than " + most / (1 << 20) + " MB; split it");
                    }
                    out.write(chunk, 0, n);
                }
                byte[] file = out.toByteArray();
                if (begins(file)) {
                    throw new BrokenFileException(
                            "zip.nested", e.getName() + " is an archive itself; unpack it and bring in what it holds");
                }
                files.put(e.getName(), file);
            }
        } catch (ZipException | IllegalArgumentException e) {
            throw new BrokenFileException("zip.damaged", "the archive is damaged: " + e.getMessage(), e);
        } catch (IOException e) {
            throw new BrokenFileException("zip.damaged", "the archive breaks off: " + e.getMessage(), e);
        }
        if (files.isEmpty()) {
            throw new BrokenFileException("zip.empty", "the archive holds no file");
        }
        return files;
    }

    private static boolean isHidden(String path) {
        String name = path.substring(path.lastIndexOf('/') + 1);
        return name.startsWith(".") || path.startsWith("__MACOSX/");
    }
}
