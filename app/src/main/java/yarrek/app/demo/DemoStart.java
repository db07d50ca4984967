package yarrek.app.demo;

import java.io.IOException;
import java.time.Clock;
import java.time.LocalDate;
import java.util.List;
import java.util.UUID;
import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.context.annotation.Profile;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import yarrek.app.office.Office;
import yarrek.app.page.Viewer;
import yarrek.formats.log.BrokenFileException;

/** Fills an empty demo database with the sample world when it is first started. */
@Component
@Profile("demo")
class DemoStart implements ApplicationRunner {
    private final Office office;
    private final DemoWorld world;
    private final Clock clock;

    DemoStart(Office office, DemoWorld world, Clock clock) {
        this.office = office;
        this.world = world;
        this.clock = clock;
    }

    /** All or nothing: a start that is broken off leaves an empty database behind. */
    @Override
    @Transactional(rollbackFor = Exception.class)
    public void run(ApplicationArguments args) throws IOException, BrokenFileException {
        if (!office.isEmpty()) {
            return;
        }
        Viewer viewer = new Viewer(new UUID(0, 0), "manager", DemoWorld.BY, "", Viewer.Role.MANAGER, null, true, 0);
        SecurityContextHolder.getContext()
                .setAuthentication(UsernamePasswordAuthenticationToken.authenticated(viewer, null, List.of()));
        try {
            world.fill(LocalDate.now(clock.withZone(DemoWorld.ZONE)), viewer);
        } finally {
            SecurityContextHolder.clearContext();
        }
    }
}
