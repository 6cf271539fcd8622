package yalos.core.kit;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import yalos.core.camera.Camera;
import yalos.core.fault.InputFault;

/**
 * What an aircraft carries: camera heads that are released together, and perhaps a scanner. The first head leads: its
 * footprint spaces the strips. Where a scanner is carried it leads instead, and the camera rides along.
 *
 * @param heads at least one
 * @param scanner empty for cameras alone
 */
public record Payload(List<Head> heads, Optional<Scanner> scanner) {
    private static final int MOST_HEADS = 12;

    public Payload {
        heads = List.copyOf(heads);
        if (heads.isEmpty() || heads.size() > MOST_HEADS) {
            throw new InputFault("heads", heads.size(), "A payload has 1 to %d camera heads.".formatted(MOST_HEADS));
        }
    }

    /** One camera and nothing else. */
    public static Payload of(Camera camera) {
        return new Payload(List.of(Head.of(camera)), Optional.empty());
    }

    /** Heads of one camera, one for each band of light; below the least height their pictures no longer register. */
    public static Payload ofBands(Camera camera, double leastHeightM, List<String> bands) {
        return new Payload(
                bands.stream()
                        .map(band -> new Head(band, camera, 1, leastHeightM))
                        .toList(),
                Optional.empty());
    }

    /** The head whose footprint spaces the strips. */
    public Head leading() {
        return heads.get(0);
    }

    /** The payload with another camera in its leading head. */
    public Payload withLeading(Camera camera) {
        List<Head> changed = new ArrayList<>(heads);
        changed.set(
                0,
                new Head(
                        leading().name(),
                        camera,
                        leading().filesPerCapture(),
                        leading().leastHeightM()));
        return new Payload(changed, scanner);
    }

    /** Time until all heads can be released again, in seconds: that of the slowest. */
    public double slowestIntervalS() {
        return heads.stream()
                .mapToDouble(head -> head.camera().minIntervalS())
                .max()
                .orElse(0);
    }

    /** Whether the heads differ in how soon they can be released again. */
    public boolean intervalsDiffer() {
        return heads.stream()
                        .mapToDouble(head -> head.camera().minIntervalS())
                        .distinct()
                        .count()
                > 1;
    }

    /** Files written at each release. */
    public int filesPerCapture() {
        return heads.stream().mapToInt(Head::filesPerCapture).sum();
    }

    /** Bytes written at each release. */
    public double bytesPerCapture() {
        return heads.stream()
                .mapToDouble(head -> head.camera().storage().bytesPerPhoto())
                .sum();
    }

    /** Height below which some head no longer serves, in metres; 0 for none. */
    public double leastHeightM() {
        return heads.stream().mapToDouble(Head::leastHeightM).max().orElse(0);
    }

    /** Whether the scanner decides strip spacing and speed. */
    public boolean scannerLeads() {
        return scanner.isPresent();
    }
}
