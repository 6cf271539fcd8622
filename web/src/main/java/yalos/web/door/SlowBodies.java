package yalos.web.door;

import jakarta.servlet.ServletException;
import jakarta.servlet.ServletRequest;
import java.io.IOException;
import java.net.SocketTimeoutException;
import java.util.Optional;
import java.util.function.LongSupplier;
import org.apache.catalina.connector.Request;
import org.apache.catalina.connector.Response;
import org.apache.catalina.valves.ValveBase;
import org.apache.coyote.ActionCode;
import org.apache.coyote.InputBuffer;
import org.apache.tomcat.util.net.ApplicationBufferHandler;
import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.stereotype.Component;

/**
 * A body that drips in holds a thread: after some seconds of patience it must come at a pace that ends, or its connection is closed. One
 * that does not say in front how long it is ends where a small file would.
 */
@Component
final class SlowBodies implements WebServerFactoryCustomizer<TomcatServletWebServerFactory> {
    private static final long PATIENCE_NANOS = 20_000_000_000L;
    private static final String BODY = Body.class.getName();
    private static final long LEAST_BYTES_A_SECOND = 1000;

    /** What the door may know of a body, and do with it. */
    static final class Body {
        private final Paced paced;
        private final org.apache.coyote.Request raw;

        private Body(Paced paced, org.apache.coyote.Request raw) {
            this.paced = paced;
            this.raw = raw;
        }

        /** Whether it was cut off where a small file ends. */
        boolean tooMuch() {
            return paced.tooMuch;
        }

        /** Nothing more is read of it: the answer goes out, and the connection ends. */
        void leave() {
            raw.action(ActionCode.DISABLE_SWALLOW_INPUT, null);
        }
    }

    static Optional<Body> body(ServletRequest request) {
        return Optional.ofNullable((Body) request.getAttribute(BODY));
    }

    @Override
    public void customize(TomcatServletWebServerFactory factory) {
        factory.addEngineValves(new Pace());
        // Nobody is told to send on before the door has looked at size, sender and target.
        factory.addConnectorCustomizers(connector -> connector.setProperty("continueResponseTiming", "onRead"));
    }

    /** Whether so many bytes in so long are too few. */
    static boolean drips(long bytes, long nanos) {
        return nanos > PATIENCE_NANOS && bytes < nanos / 1e9 * LEAST_BYTES_A_SECOND;
    }

    private static final class Pace extends ValveBase {
        Pace() {
            super(true);
        }

        @Override
        public void invoke(Request request, Response response) throws IOException, ServletException {
            org.apache.coyote.Request raw = request.getCoyoteRequest();
            InputBuffer own = raw.getInputBuffer();
            Paced paced = new Paced(own, System::nanoTime, UploadLimits.mostBytes(request.getRequestURI()));
            raw.setInputBuffer(paced);
            request.setAttribute(BODY, new Body(paced, raw));
            try {
                getNext().invoke(request, response);
            } finally {
                raw.setInputBuffer(own);
            }
        }
    }

    /** Reads as the server does, and gives up on what drips. */
    static final class Paced implements InputBuffer {
        private final InputBuffer own;
        private final LongSupplier nanoClock;
        private final long begunAt;
        private final long most;
        private boolean tooMuch;
        private long bytes;

        Paced(InputBuffer own, LongSupplier nanoClock, long most) {
            this.own = own;
            this.most = most;
            this.nanoClock = nanoClock;
            this.begunAt = nanoClock.getAsLong();
        }

        @Override
        public int doRead(ApplicationBufferHandler handler) throws IOException {
            int read = own.doRead(handler);
            bytes += Math.max(0, read);
            if (bytes > most) {
                tooMuch = true;
                return -1;
            }
            if (read >= 0 && drips(bytes, nanoClock.getAsLong() - begunAt)) {
                throw new SocketTimeoutException("the body drips in at less than 1 kB/s");
            }
            return read;
        }

        @Override
        public int available() {
            return own.available();
        }
    }
}
