package yarrek.app.page;

/** There is no such record, or it is not the viewer's to know of. */
public class NotFoundException extends RuntimeException {
    public NotFoundException(String what) {
        super("there is no such " + what + "; it may have been removed");
    }
}
