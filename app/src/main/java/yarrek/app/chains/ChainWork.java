package yarrek.app.chains;

import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Component;
import yarrek.app.work.Worker;

/** Plans the chains of jobs anew after many were judged again. */
@Component
class ChainWork implements Worker {
    static final String KIND = "chain";

    private final Chains chains;

    ChainWork(Chains chains) {
        this.chains = chains;
    }

    @Override
    public String kind() {
        return KIND;
    }

    @Override
    public String words() {
        return "Planning what jobs have to send";
    }

    @Override
    public int chunk() {
        return 250;
    }

    @Override
    public void run(List<UUID> subjects, String cause) {
        chains.store(subjects);
    }
}
