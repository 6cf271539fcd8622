package yalos.web.objects;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import yalos.core.proof.FaceProof;
import yalos.core.proof.Shares;
import yalos.core.proof.StructureProof;
import yalos.core.units.RoundFigures;
import yalos.core.units.Unit;
import yalos.core.units.UnitChoice;
import yalos.core.units.UnitKind;

/**
 * The faces of all objects unrolled side by side, to one scale: along from left to right as seen from outside, up as they stand.
 *
 * @param faces where each lies, in pixels
 * @param ticks of the height axis, of the first line
 * @param widthPx of all
 * @param heightPx of all
 * @param scale how long a round length is
 */
record ElevationView(List<Placed> faces, List<Tick> ticks, double widthPx, double heightPx, Scale scale) {
    private static final double GAP_PX = 14;
    private static final double OBJECT_GAP_PX = 34;
    private static final double AXIS_PX = 44;
    private static final double HEAD_PX = 30;
    private static final double FOOT_PX = 30;
    private static final double LEAST_LABEL_PX = 64;

    /**
     * A face on the view.
     *
     * @param x of its left edge
     * @param y of its upper edge
     * @param object its name where the object begins here, else empty
     * @param spots weak ones, by their number in the list
     */
    record Placed(
            int number,
            String key,
            double x,
            double y,
            double wide,
            double high,
            String label,
            String share,
            String object,
            List<Mark> spots) {}

    record Mark(int number, double x, double y) {}

    record Tick(double y, String label) {}

    record Scale(double px, String label) {}

    /**
     * @param heightPx for the tallest face
     * @param wrapPx width beyond which the next object begins below; infinite for one band
     */
    static ElevationView of(
            StructureProof proof, List<StructureProof.Spot> spots, double heightPx, double wrapPx, UnitChoice units) {
        double most = proof.faces().stream()
                .mapToDouble(face -> face.face().highM())
                .max()
                .orElse(1);
        double widest = proof.faces().stream()
                .mapToDouble(face -> face.face().wideM())
                .max()
                .orElse(1);
        double perM = Math.min(heightPx / most, Math.min(wrapPx, 1400) * 0.9 / widest);
        List<Placed> placed = new ArrayList<>();
        double x = AXIS_PX;
        double top = HEAD_PX;
        double firstFoot = 0;
        double tallest = wrapPx == Double.POSITIVE_INFINITY ? heightPx : 0;
        List<Placed> row = new ArrayList<>();
        double wide = 0;
        String object = "";
        for (FaceProof face : proof.faces()) {
            double w = face.face().wideM() * perM;
            double h = face.face().highM() * perM;
            String name = face.built().object().name();
            boolean begins = !name.equals(object);
            if (!object.isEmpty() && begins) {
                x += OBJECT_GAP_PX;
            }
            object = name;
            if (x + w > wrapPx && x > AXIS_PX) {
                stand(row, top + tallest, placed);
                firstFoot = firstFoot == 0 ? top + tallest : firstFoot;
                x = AXIS_PX;
                top += tallest + HEAD_PX + FOOT_PX;
                tallest = 0;
            }
            tallest = Math.max(tallest, h);
            row.add(new Placed(
                    face.number(),
                    face.key(),
                    round(x),
                    0,
                    round(w),
                    round(h),
                    face.words(),
                    face.cells() == 0 ? "not to be seen" : Shares.percent(face.share()),
                    begins ? name : "",
                    marks(face, spots, x, perM)));
            x += Math.max(w, LEAST_LABEL_PX) + GAP_PX;
            wide = Math.max(wide, x);
        }
        stand(row, top + tallest, placed);
        return new ElevationView(
                placed,
                ticks(most, perM, firstFoot == 0 ? top + tallest : firstFoot, units),
                round(wide),
                round(top + tallest + FOOT_PX),
                scale(perM, units));
    }

    /** Faces of a row stand on one line. */
    private static void stand(List<Placed> row, double footPx, List<Placed> placed) {
        for (Placed one : row) {
            double y = round(footPx - one.high());
            placed.add(new Placed(
                    one.number(),
                    one.key(),
                    one.x(),
                    y,
                    one.wide(),
                    one.high(),
                    one.label(),
                    one.share(),
                    one.object(),
                    one.spots().stream()
                            .map(mark -> new Mark(mark.number(), mark.x(), round(mark.y() + y)))
                            .toList()));
        }
        row.clear();
    }

    private static List<Mark> marks(FaceProof face, List<StructureProof.Spot> spots, double x, double perM) {
        List<Mark> marks = new ArrayList<>();
        for (int i = 0; i < spots.size(); i++) {
            StructureProof.Spot spot = spots.get(i);
            if (spot.face().number() == face.number()) {
                marks.add(new Mark(i + 1, round(x + spot.alongM() * perM), round(spot.downM() * perM)));
            }
        }
        return marks;
    }

    private static List<Tick> ticks(double most, double perM, double footPx, UnitChoice units) {
        Unit unit = units.unit(UnitKind.HEIGHT);
        double step = RoundFigures.upTo(unit.ofSi(most) / 3);
        List<Tick> ticks = new ArrayList<>();
        for (double at = 0; at <= unit.ofSi(most) + 1e-9; at += step) {
            ticks.add(new Tick(
                    round(footPx - unit.toSi(at) * perM), String.format(Locale.ROOT, step < 1 ? "%.1f" : "%.0f", at)));
        }
        return ticks;
    }

    private static Scale scale(double perM, UnitChoice units) {
        Unit unit = units.unit(UnitKind.DISTANCE);
        double step = RoundFigures.upTo(unit.ofSi(80 / perM));
        return new Scale(
                round(unit.toSi(step) * perM),
                String.format(Locale.ROOT, step < 1 ? "%.1f %s" : "%.0f %s", step, unit.symbol()));
    }

    private static double round(double px) {
        return Math.round(px * 10) / 10.0;
    }
}
