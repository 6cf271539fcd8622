package yalos.core.flight;

/**
 * How quickly a straight way is flown from one speed at its start to another at its end: a trapezium of speed over time, or a
 * triangle when the way is too short for the full speed. Where it is too short even to change from the one end speed to the
 * other, the speed is taken to change evenly.
 *
 * @param lengthM of the way
 * @param accelerationMps2 speeding up and braking alike
 * @param startMps no more than {@code speedMps}
 * @param speedMps the most; 0 where the way cannot be flown at all
 * @param endMps no more than {@code speedMps}
 */
record SpeedProfile(double lengthM, double accelerationMps2, double startMps, double speedMps, double endMps) {
    SpeedProfile {
        startMps = Math.min(startMps, speedMps);
        endMps = Math.min(endMps, speedMps);
    }

    /** Whole time in seconds; infinite where the way cannot be flown. */
    double seconds() {
        if (lengthM <= 0) {
            return 0;
        }
        if (!(speedMps > 0)) {
            return Double.POSITIVE_INFINITY;
        }
        double peak = peakMps();
        if (uneven(peak)) {
            return 2 * lengthM / (startMps + endMps);
        }
        return (2 * peak - startMps - endMps) / accelerationMps2 + cruiseM(peak) / peak;
    }

    /** Length over which the speed is held. */
    private double cruiseM(double peak) {
        return Math.max(0, lengthM - ramp(startMps, peak) - ramp(endMps, peak));
    }

    private double ramp(double from, double to) {
        return (to * to - from * from) / (2 * accelerationMps2);
    }

    private double peakMps() {
        if (lengthM >= ramp(startMps, speedMps) + ramp(endMps, speedMps)) {
            return speedMps;
        }
        return Math.sqrt((startMps * startMps + endMps * endMps) / 2 + accelerationMps2 * lengthM);
    }

    /** Whether the way is too short for any peak above both ends. */
    private boolean uneven(double peak) {
        return peak < Math.max(startMps, endMps) - 1e-12;
    }

    /** When speeding up, holding and braking end. */
    double[] cornersS() {
        double whole = seconds();
        double peak = peakMps();
        if (lengthM <= 0 || !Double.isFinite(whole) || uneven(peak)) {
            return new double[] {whole};
        }
        return new double[] {(peak - startMps) / accelerationMps2, whole - (peak - endMps) / accelerationMps2, whole};
    }

    /** Seconds from the start until so far along. */
    double secondsAt(double alongM) {
        double along = Math.max(0, Math.min(lengthM, alongM));
        double peak = peakMps();
        if (along <= 0 || !(speedMps > 0)) {
            return 0;
        }
        if (uneven(peak)) {
            double slope = (endMps * endMps - startMps * startMps) / (2 * lengthM);
            return 2 * along / (startMps + Math.sqrt(Math.max(0, startMps * startMps + 2 * slope * along)));
        }
        double up = ramp(startMps, peak);
        double down = ramp(endMps, peak);
        if (along <= up) {
            return (Math.sqrt(startMps * startMps + 2 * accelerationMps2 * along) - startMps) / accelerationMps2;
        }
        if (along <= lengthM - down) {
            return (peak - startMps) / accelerationMps2 + (along - up) / peak;
        }
        double left = lengthM - along;
        return seconds() - (Math.sqrt(endMps * endMps + 2 * accelerationMps2 * left) - endMps) / accelerationMps2;
    }

    /** How far along after so many seconds. */
    double metresAt(double seconds) {
        double whole = seconds();
        double t = Math.max(0, Math.min(whole, seconds));
        double peak = peakMps();
        if (lengthM <= 0 || !Double.isFinite(whole)) {
            return 0;
        }
        if (uneven(peak)) {
            return startMps * t + (endMps - startMps) * t * t / (2 * whole);
        }
        double speedingUp = (peak - startMps) / accelerationMps2;
        double braking = (peak - endMps) / accelerationMps2;
        if (t <= speedingUp) {
            return startMps * t + accelerationMps2 * t * t / 2;
        }
        if (t <= whole - braking) {
            return ramp(startMps, peak) + peak * (t - speedingUp);
        }
        double left = whole - t;
        return lengthM - endMps * left - accelerationMps2 * left * left / 2;
    }

    /** Speed after so many seconds, in metres a second. */
    double speedAt(double seconds) {
        double whole = seconds();
        double t = Math.max(0, Math.min(whole, seconds));
        double peak = peakMps();
        if (lengthM <= 0 || !Double.isFinite(whole)) {
            return 0;
        }
        if (uneven(peak)) {
            return startMps + (endMps - startMps) * t / whole;
        }
        return Math.min(peak, Math.min(startMps + accelerationMps2 * t, endMps + accelerationMps2 * (whole - t)));
    }
}
