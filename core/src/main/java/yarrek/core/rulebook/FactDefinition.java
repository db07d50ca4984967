package yarrek.core.rulebook;

import java.util.Set;

/**
 * A word of the vocabulary.
 *
 * @param name as in packs, API and code
 * @param type kind of value
 * @param unit of a quantity, as shown; empty otherwise
 * @param label as shown to people
 * @param question what to ask when it is not known
 * @param words the words it may take; empty when free or not a word
 * @param group the question's place: place, how, aircraft, people, time, airspace, weather, papers, day or occurrence
 */
public record FactDefinition(
        String name, FactType type, String unit, String label, String question, Set<String> words, String group) {}
