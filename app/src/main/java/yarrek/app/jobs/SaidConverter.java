package yarrek.app.jobs;

import jakarta.persistence.AttributeConverter;
import jakarta.persistence.Converter;
import java.util.Map;
import java.util.TreeMap;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** What a plan says, as an object of JSON: fact to stored value. */
@Converter
class SaidConverter implements AttributeConverter<Map<String, String>, String> {
    private static final JsonMapper JSON = JsonMapper.shared();

    @Override
    public String convertToDatabaseColumn(Map<String, String> said) {
        return JSON.writeValueAsString(said == null ? Map.of() : said);
    }

    @Override
    public Map<String, String> convertToEntityAttribute(String text) {
        return text == null ? new TreeMap<>() : JSON.readValue(text, new TypeReference<TreeMap<String, String>>() {});
    }
}
