package yalos.web.store;

import static yalos.web.store.Plain.or;
import static yalos.web.store.Plain.word;

import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import yalos.core.fault.InputFault;
import yalos.core.sortie.SortieSettings;

/** How a block is flown in sorties, as it is stored; places are pairs of longitude and latitude. */
record StoredSorties(
        List<StoredLaunch> launches,
        double[] pilot,
        Double eyeM,
        Double spanM,
        Double charge,
        Integer repeated,
        Double returnM,
        Double marginM,
        Double fenceM,
        String fence,
        String lostLink,
        Boolean satellites) {

    record StoredLaunch(String name, double[] place) {}

    /** Null for what is usual, so that nothing is written of it. */
    static StoredSorties of(SortieSettings one) {
        return one.equals(SortieSettings.USUAL)
                ? null
                : new StoredSorties(
                        one.launches().stream()
                                .map(launch -> new StoredLaunch(launch.name(), new double[] {
                                    launch.place().lonDeg(), launch.place().latDeg()
                                }))
                                .toList(),
                        one.pilot()
                                .map(at -> new double[] {at.lonDeg(), at.latDeg()})
                                .orElse(null),
                        one.eyeM(),
                        boxed(one.spanM()),
                        one.charge(),
                        one.repeated(),
                        boxed(one.returnM()),
                        one.marginM(),
                        one.fenceM(),
                        one.fence().name(),
                        one.lostLink().name(),
                        one.satellites());
    }

    static Double boxed(OptionalDouble figure) {
        return figure.isPresent() ? figure.getAsDouble() : null;
    }

    static OptionalDouble figure(Double boxed) {
        return boxed == null ? OptionalDouble.empty() : OptionalDouble.of(boxed);
    }

    /** What is missing or out of reason is read as what is usual. */
    SortieSettings settings() {
        SortieSettings usual = SortieSettings.USUAL;
        try {
            return new SortieSettings(
                    or(launches).stream()
                            .map(one -> new SortieSettings.Launch(one.name(), StoredPart.corner(one.place())))
                            .toList(),
                    Optional.ofNullable(pilot).filter(pair -> pair.length == 2).map(StoredPart::corner),
                    eyeM == null ? usual.eyeM() : eyeM,
                    figure(spanM),
                    charge == null ? usual.charge() : charge,
                    repeated == null ? usual.repeated() : repeated,
                    figure(returnM),
                    marginM == null ? usual.marginM() : marginM,
                    fenceM == null ? usual.fenceM() : fenceM,
                    word(fence, usual.fence()),
                    word(lostLink, usual.lostLink()),
                    satellites == null ? usual.satellites() : satellites);
        } catch (InputFault | IllegalArgumentException | NullPointerException outOfReason) {
            return usual;
        }
    }
}
