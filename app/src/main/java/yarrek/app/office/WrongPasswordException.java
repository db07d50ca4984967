package yarrek.app.office;

/** The present password was typed wrong. */
class WrongPasswordException extends IllegalArgumentException {
    private static final long serialVersionUID = 1;

    WrongPasswordException() {
        super("the present password is not this one");
    }
}
