package yarrek.app.page;

import java.io.Serializable;
import java.util.Map;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/**
 * The way back from a step just done, offered on the page it leads to: a button that posts these fields.
 *
 * @param path where they are posted
 * @param words on the button
 */
public record Undo(String path, Map<String, String> fields, String words) implements Serializable {
    /** A step done, told on the next page with the way back. */
    public void tell(RedirectAttributes flash, String done) {
        flash.addFlashAttribute("told", done);
        flash.addFlashAttribute("undo", this);
    }
}
