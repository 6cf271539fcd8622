package yalos.web.work;

import jakarta.servlet.ServletException;
import jakarta.servlet.ServletRequest;
import java.io.IOException;
import org.apache.catalina.connector.Request;
import org.apache.catalina.connector.Response;
import org.apache.catalina.valves.ValveBase;
import org.apache.coyote.ActionCode;
import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.stereotype.Component;

/** Lets whoever works for a request see whether its client still waits: looks, without reading, for the end of the connection. */
@Component
public final class ClientWatch implements WebServerFactoryCustomizer<TomcatServletWebServerFactory> {
    private static final String WAITING = ClientWatch.class.getName();

    /** Whether the client of a request still waits; only to be asked once the body was read. */
    public static Work.Waiting of(ServletRequest request) {
        return request.getAttribute(WAITING) instanceof Work.Waiting client ? client : () -> true;
    }

    @Override
    public void customize(TomcatServletWebServerFactory factory) {
        factory.addEngineValves(new Watch());
    }

    private static final class Watch extends ValveBase {
        Watch() {
            super(true);
        }

        @Override
        public void invoke(Request request, Response response) throws IOException, ServletException {
            org.apache.coyote.Request raw = request.getCoyoteRequest();
            request.setAttribute(WAITING, (Work.Waiting) () -> {
                raw.action(ActionCode.AVAILABLE, Boolean.TRUE);
                // The end of the connection counts as one byte to be read; a further request is longer.
                return raw.getAvailable() != 1;
            });
            getNext().invoke(request, response);
        }
    }
}
