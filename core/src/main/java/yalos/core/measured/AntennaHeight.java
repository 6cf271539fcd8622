package yalos.core.measured;

import static yalos.core.fault.InputFault.within;

import yalos.core.fault.InputFault;

/** Heights of antennas over their marks, in metres. */
public final class AntennaHeight {
    private AntennaHeight() {}

    /**
     * Vertical height of the reference point from a slant measured to the antenna's rim.
     *
     * @param slantM from the mark to the rim
     * @param radiusM from the antenna's axis to the rim
     * @param rimBelowM how far the rim lies above the reference point; negative below it
     * @throws InputFault for a slant no longer than the radius
     */
    public static double ofSlant(double slantM, double radiusM, double rimBelowM) {
        within("slant", slantM, 0.05, 20, "m");
        within("radius", radiusM, 0, 1, "m");
        within("rim", rimBelowM, -1, 1, "m");
        if (slantM <= radiusM) {
            throw new InputFault("slant", slantM, "A slant is longer than the antenna's radius.");
        }
        return Math.sqrt(slantM * slantM - radiusM * radiusM) - rimBelowM;
    }

    /** Height of the mark under an antenna: that of its reference point less the pole. */
    public static double groundM(double referenceM, double poleM) {
        within("pole", poleM, 0, 20, "m");
        return referenceM - poleM;
    }
}
