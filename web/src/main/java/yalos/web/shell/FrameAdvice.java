package yalos.web.shell;

import jakarta.servlet.http.HttpServletRequest;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.bind.annotation.ModelAttribute;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;
import yalos.web.store.Disk;

/** What the frame of every page shows. */
@ControllerAdvice
class FrameAdvice {
    private final Preferences preferences;

    private final Disk disk;

    FrameAdvice(Preferences preferences, Disk disk) {
        this.disk = disk;
        this.preferences = preferences;
    }

    /**
     * @param look key of the look
     * @param units short name of the units in use
     * @param unitsSent the same in full, as forms send them along
     * @param path of the page with what was asked of it, to come back to
     * @param person who is signed in; empty where nobody needs to
     * @param trouble why nothing can be changed now; empty where all is well
     */
    record Frame(String look, String units, String unitsSent, String path, String person, String trouble) {
        Frame(String look, String units, String unitsSent, String path, String trouble) {
            this(look, units, unitsSent, path, Person.present(), trouble);
        }
    }

    @ModelAttribute("frame")
    Frame frame(HttpServletRequest request) {
        UnitChoice units = preferences.units();
        String named = units.unit(UnitKind.HEIGHT).symbol() + ", "
                + units.unit(UnitKind.SPEED).symbol();
        return new Frame(Look.of(request).key(), named, Preferences.text(units), Here.of(request), disk.trouble(0));
    }
}
