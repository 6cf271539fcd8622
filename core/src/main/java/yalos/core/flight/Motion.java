package yalos.core.flight;

/** How one leg, or a run of them, is gone through. */
sealed interface Motion {
    double seconds();

    record Still(double seconds) implements Motion {}

    record Straight(SpeedProfile profile) implements Motion {
        @Override
        public double seconds() {
            return profile.seconds();
        }
    }

    record Round(Arc arc, double[] doneS) implements Motion {
        @Override
        public double seconds() {
            return doneS[doneS.length - 1];
        }

        double alongM(double seconds) {
            double piece = arc.lengthM() / doneS.length;
            double before = 0;
            for (int i = 0; i < doneS.length; i++) {
                if (seconds < doneS[i]) {
                    return piece * (i + (seconds - before) / (doneS[i] - before));
                }
                before = doneS[i];
            }
            return arc.lengthM();
        }

        double groundMps(double seconds) {
            double before = 0;
            for (double done : doneS) {
                if (seconds < done) {
                    return arc.lengthM() / doneS.length / (done - before);
                }
                before = done;
            }
            return arc.lengthM() / doneS.length / (before - doneS[doneS.length - 2]);
        }
    }
}
