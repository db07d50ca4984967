package yarrek.core.rulebook;

/** Who set a rule. */
public enum Layer {
    LAW("law"),
    BY_LAW("by-law"),
    LANDOWNER("landowner"),
    APPROVAL("approval"),
    MAKER("maker"),
    HOUSE("house");

    private final String words;

    Layer(String words) {
        this.words = words;
    }

    /** Whether it binds from outside: nothing of it can be waived by the operator. */
    public boolean isBinding() {
        return this != MAKER && this != HOUSE;
    }

    public String words() {
        return words;
    }
}
