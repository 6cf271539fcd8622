package yalos.web.kit;

import java.util.List;
import java.util.Optional;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import yalos.core.camera.Camera;
import yalos.core.kit.Aircraft;
import yalos.core.kit.AircraftKind;
import yalos.core.kit.Battery;
import yalos.core.kit.Head;
import yalos.core.kit.Kit;
import yalos.core.kit.Payload;
import yalos.core.kit.Positioning;
import yalos.core.kit.Scanner;
import yalos.web.shell.FirstData;
import yalos.web.store.CameraMapper;
import yalos.web.store.PreferenceMapper;

/** Generic entries of the catalogue, by class; figures typical of it (common practice). Written once; deleted ones stay away. */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
class GenericGear implements FirstData {
    private static final String SHIPPED = "generic-gear";
    private static final long FOUR_THIRDS = 1;
    private static final long FULL_FRAME = 5;
    private static final long MULTISPECTRAL = 6;

    private final Catalogue catalogue;
    private final CameraMapper cameras;
    private final PreferenceMapper preferences;

    GenericGear(Catalogue catalogue, CameraMapper cameras, PreferenceMapper preferences) {
        this.catalogue = catalogue;
        this.cameras = cameras;
        this.preferences = preferences;
    }

    @Override
    @Transactional
    public void write() {
        if (preferences.get(SHIPPED).isPresent()) {
            return;
        }
        Aircraft small = Aircraft.smallMultirotor();
        Aircraft heavy = new Aircraft(
                "large multirotor",
                AircraftKind.MULTIROTOR,
                15,
                17,
                17,
                0,
                2,
                1.5,
                Math.toRadians(25),
                5,
                4,
                12,
                "IP45",
                Positioning.RTK_BASE,
                new Battery(42, Optional.of(40.0), 4, 0.25, 1, Optional.empty()));
        Aircraft wing = Aircraft.smallWing();
        Aircraft upright = new Aircraft(
                "vertical take-off wing",
                AircraftKind.VERTICAL_TAKE_OFF_WING,
                20,
                20,
                20,
                15,
                2,
                15,
                Math.toRadians(30),
                4,
                3,
                12,
                "",
                Positioning.PPK,
                new Battery(80, Optional.empty(), 2, 0.3, 1, Optional.empty()));
        for (Aircraft aircraft : List.of(small, heavy, wing, upright)) {
            catalogue.keep(GearKind.AIRCRAFT, 0, aircraft.name(), aircraft);
        }
        Scanner scanner = new Scanner("light scanner, 70°", Math.toRadians(70), 240_000, 0.6, 190);
        catalogue.keep(GearKind.SCANNER, 0, scanner.name(), scanner);
        camera(FOUR_THIRDS).ifPresent(camera -> {
            keep(Kit.of(small, camera).named("small multirotor, 20 MP"));
            Payload lidar = new Payload(List.of(Head.of(camera)), Optional.of(scanner));
            keep(Kit.of(heavy, camera).named("large multirotor, lidar").with(lidar));
        });
        camera(FULL_FRAME).ifPresent(camera -> {
            keep(Kit.of(heavy, camera).named("large multirotor, 45 MP full frame"));
            keep(Kit.of(upright, camera).named("vertical take-off wing, 45 MP full frame"));
        });
        camera(MULTISPECTRAL)
                .ifPresent(camera -> keep(Kit.of(small, camera)
                        .named("small multirotor, multispectral")
                        .with(Payload.ofBands(camera, 35, List.of("green", "red", "red edge", "near infrared")))));
        preferences.put(SHIPPED, "1");
    }

    private void keep(Kit kit) {
        catalogue.keep(GearKind.KIT, 0, kit.name(), kit);
    }

    private Optional<Camera> camera(long id) {
        return cameras.byId(id).map(row -> row.camera());
    }
}
