package yarrek.app.page;

import java.lang.annotation.Documented;
import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/** Who may ask a handler at all; of whose records is for it to say. A handler without it is closed to everybody. */
@Documented
@Retention(RetentionPolicy.RUNTIME)
@Target(ElementType.METHOD)
public @interface OpenTo {
    Whom value();

    /** Groups of roles as handlers are opened to them. */
    enum Whom {
        /** Signed in or not. */
        ANYBODY(false, false),
        SIGNED_IN(true, true),
        /** Who flies, and who plans it. */
        CREW(true, false),
        /** Who looks after the registers, and who reads them. */
        OFFICE(false, true),
        MANAGER(false, false);

        private final boolean pilots;
        private final boolean readers;

        Whom(boolean pilots, boolean readers) {
            this.pilots = pilots;
            this.readers = readers;
        }

        /** @param role as logins have it: MANAGER, PILOT or READER */
        public boolean includes(String role) {
            return switch (role) {
                case "MANAGER" -> true;
                case "PILOT" -> this == ANYBODY || pilots;
                case "READER" -> this == ANYBODY || readers;
                default -> this == ANYBODY;
            };
        }
    }
}
