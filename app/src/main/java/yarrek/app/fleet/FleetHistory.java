package yarrek.app.fleet;

import java.util.Map;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import yarrek.app.history.Recorded;

/** What of this module has its history shown. */
@Configuration
class FleetHistory {
    @Bean
    Recorded<AircraftEntity> aircraftRecorded(Fleet fleet) {
        return Recorded.of(
                        "aircraft",
                        "aircraft",
                        AircraftEntity.class,
                        a -> a.name,
                        a -> "/fleet/aircraft/" + a.id,
                        fleet::restored)
                .labelled(Map.of("weighedG", "Weighed, g", "weighedResolutionG", "Resolution of the scale, g"));
    }

    @Bean
    Recorded<BuildEntity> buildRecorded(Fleet fleet) {
        return Recorded.of(
                "build", "build", BuildEntity.class, b -> b.name, b -> "/fleet/builds/" + b.id, fleet::restored);
    }

    @Bean
    Recorded<AircraftModel> modelRecorded(Fleet fleet) {
        return Recorded.of(
                "model",
                "model",
                AircraftModel.class,
                m -> m.maker + " " + m.name,
                m -> "/fleet/models/" + m.id,
                fleet::restored);
    }

    @Bean
    Recorded<Accessory> accessoryRecorded(Fleet fleet) {
        return Recorded.of(
                "accessory", "part", Accessory.class, a -> a.name, a -> "/fleet/accessories/" + a.id, fleet::restored);
    }

    @Bean
    Recorded<PackEntity> packRecorded() {
        return Recorded.of("pack", "pack", PackEntity.class, p -> p.label, p -> "/fleet", p -> {});
    }

    @Bean
    Recorded<PackModel> packModelRecorded() {
        return Recorded.of("pack-model", "model of pack", PackModel.class, p -> p.name, p -> "/fleet", p -> {});
    }
}
