package yalos.core.ledger;

import static yalos.core.pins.Quantity.TEMPERATURE;

import yalos.core.kit.Battery;
import yalos.core.pins.Defaults;
import yalos.core.plan.BlockPlan;
import yalos.core.reason.Reason;
import yalos.core.units.Unit;

/** Why a flight takes the time and the battery sets that it does. */
final class CostReasons {
    private CostReasons() {}

    /** Why so many battery sets. */
    static Reason batteries(BlockPlan plan) {
        Battery battery = plan.request().aircraft().battery();
        Reason.Builder reason = Reason.formula("each set flown until it must go home to be changed")
                .with("", "flight time", plan.flightTimeS(), Unit.MINUTE)
                .with("", "of it to change batteries", plan.batteries().tripsS(), Unit.MINUTE)
                .with("", "full to empty", battery.fullMinutes() * 60, Unit.MINUTE)
                .with("", "reserve", battery.reserve(), Unit.PERCENT)
                .with(
                        "",
                        "left by the cold",
                        Battery.capacity(plan.request().pins().siOr(TEMPERATURE, Defaults.TEMPERATURE_K)),
                        Unit.PERCENT)
                .with("", "usable", plan.usableMinutes() * 60, Unit.MINUTE)
                .with("", "left in the last set", plan.batteries().leftS(), Unit.MINUTE);
        return reason.source("the battery's figures, in the wind and cold to plan for");
    }

    /** Why so long. */
    static Reason time(BlockPlan plan) {
        var aircraft = plan.request().aircraft();
        Reason.Builder reason = Reason.formula("sum of speed profiles: speed up, hold, brake at each turn")
                .with("v", "ground speed", plan.design().speedMps(), Unit.METRE_PER_SECOND)
                .with("a", "acceleration", "%.1f m/s²".formatted(aircraft.accelerationMps2()));
        if (aircraft.kind().wing()) {
            reason.with(
                    "r",
                    "radius of turns, v² / (g tan(bank))",
                    aircraft.turnRadiusM(plan.design().speedMps()),
                    Unit.METRE);
        } else {
            reason.with("", "speed in turns", aircraft.turnSpeedMps(), Unit.METRE_PER_SECOND);
            if (plan.request().patterns().turns().rounded()) {
                reason.with("", "turns back", "in a bend, v² = r g tan(bank)");
            }
        }
        if (plan.request().launch().isPresent() && Double.isFinite(plan.flightTimeS())) {
            reason.with("", "climb and descent", plan.timeline().climbingS(), Unit.SECOND);
        }
        plan.wind().ifPresent(wind -> reason.with("", "in a wind of", wind.speedMps(), Unit.METRE_PER_SECOND));
        if (plan.batteries().tripsS() > 0) {
            reason.with("", "ways to change batteries", plan.batteries().tripsS(), Unit.SECOND);
        }
        return reason.with(
                        "",
                        "least possible, A / (S · v)",
                        plan.areaM2() / plan.design().spacingM() / plan.design().speedMps(),
                        Unit.MINUTE)
                .source("trapezoidal speed profiles; wings turn in arcs");
    }
}
