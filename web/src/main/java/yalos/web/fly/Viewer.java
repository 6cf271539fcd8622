package yalos.web.fly;

import java.io.IOException;
import java.util.concurrent.atomic.AtomicBoolean;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import tools.jackson.databind.json.JsonMapper;
import yalos.core.units.UnitChoice;

/** Somebody who looks at a run: what they have seen of it, and the line to them. A slow one misses moments, never places or photos. */
final class Viewer {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private final SseEmitter line;
    private final UnitChoice units;
    private final AtomicBoolean busy = new AtomicBoolean();
    private int samples;
    private int shots;

    Viewer(SseEmitter line, UnitChoice units) {
        this.line = line;
        this.units = units;
    }

    SseEmitter line() {
        return line;
    }

    /** Whether the moment before has gone out; taken then. */
    boolean take() {
        return busy.compareAndSet(false, true);
    }

    /** Sends the moment a run has come to. Answers whether somebody still hears. */
    boolean send(LiveRun run) {
        try {
            FlyState state = run.state(units, samples, shots);
            samples = state.samples();
            shots = state.allShots();
            line.send(SseEmitter.event().id(String.valueOf(state.tick())).data(JSON.writeValueAsString(state)));
            return true;
        } catch (IOException | IllegalStateException gone) {
            return false;
        } finally {
            busy.set(false);
        }
    }
}
