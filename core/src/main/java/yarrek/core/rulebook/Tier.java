package yarrek.core.rulebook;

/** What a breach is: of something binding, or of the house's, the maker's or a guide's good practice. */
public enum Tier {
    LAW("breach of law or of a binding condition"),
    DEPARTURE("departure from house, maker or guidance");

    private final String words;

    Tier(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
