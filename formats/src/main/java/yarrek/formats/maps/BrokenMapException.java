package yarrek.formats.maps;

import java.util.List;
import yarrek.formats.log.BrokenFileException;

/** A map or zone file with faults; every one is told, up to a limit, and nothing of the file is taken. */
public final class BrokenMapException extends BrokenFileException {
    /** More faults than these are only counted. */
    public static final int MOST_TOLD = 50;

    private final List<String> problems;

    /** @param problems one sentence each: which feature, which property, what was found, what is accepted */
    public BrokenMapException(String code, List<String> problems) {
        super(code, problems.get(0) + (problems.size() > 1 ? " (and " + (problems.size() - 1) + " more)" : ""));
        this.problems = List.copyOf(problems);
    }

    public List<String> problems() {
        return problems.size() <= MOST_TOLD ? problems : problems.subList(0, MOST_TOLD);
    }
}
