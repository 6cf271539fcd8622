package yalos.web.shell;

import org.springframework.web.context.request.RequestAttributes;
import org.springframework.web.context.request.RequestContextHolder;

/** Who is signed in while a request is answered. */
public final class Person {
    /** Where the door leaves the name. */
    public static final String ATTRIBUTE = Person.class.getName();

    private Person() {}

    /** Name of whoever signed in; empty where nobody needs to. */
    public static String present() {
        RequestAttributes request = RequestContextHolder.getRequestAttributes();
        Object name = request == null ? null : request.getAttribute(ATTRIBUTE, RequestAttributes.SCOPE_REQUEST);
        return name == null ? "" : name.toString();
    }
}
