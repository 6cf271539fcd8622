package yalos.core.brief;

import static yalos.core.fault.InputFault.within;

import java.util.OptionalDouble;

/**
 * The crop, where one is surveyed.
 *
 * @param stage how far it has grown
 * @param plantM width of one plant seen from above, in metres
 * @param use what the result decides
 */
public record Crop(Stage stage, OptionalDouble plantM, Use use) {
    public static final Crop NONE = new Crop(Stage.NONE, OptionalDouble.empty(), Use.SCOUTING);

    public Crop {
        plantM.ifPresent(m -> within("plant", m, 0.002, 30, "m"));
    }

    /** How far a crop has grown, with the sensor class that serves (common practice). */
    public enum Stage {
        NONE("no crop", ""),
        EMERGING(
                "emerging, single plants",
                "colour camera with many pixels: plants are counted, soil shows between them"),
        ROWS("in rows", "multispectral camera; mask the soil between the rows, or it thins the index"),
        CLOSED("closed canopy", "multispectral camera with a red-edge band: red alone saturates over a closed canopy"),
        RIPENING("ripening", "multispectral camera; lodging and ripeness show in colour and height too");

        private final String words;
        private final String sensor;

        Stage(String words, String sensor) {
            this.words = words;
            this.sensor = sensor;
        }

        /** What it is called on the page. */
        public String words() {
            return words;
        }

        /** The class of sensor that serves at this stage. */
        public String sensor() {
            return sensor;
        }
    }

    /** What a crop survey decides, with the calibration it asks for (common practice). */
    public enum Use {
        SCOUTING("scouting", "no panel needed: differences within one flight are enough"),
        PRESCRIPTION(
                "prescription", "reflectance panel before and after each flight, and the light sensor if there is one"),
        TRIAL_SERIES(
                "trial series",
                "the same panel before and after each flight, the same sun and camera each time; never a flight without its panel");

        private final String words;
        private final String calibration;

        Use(String words, String calibration) {
            this.words = words;
            this.calibration = calibration;
        }

        /** What it is called on the page. */
        public String words() {
            return words;
        }

        /** The calibration it asks for. */
        public String calibration() {
            return calibration;
        }
    }
}
