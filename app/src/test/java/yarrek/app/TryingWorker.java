package yarrek.app;

import java.util.List;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.springframework.boot.test.context.TestComponent;
import yarrek.app.work.Worker;

/** Remembers what it did, cannot do some things, and waits where it is told to. */
@TestComponent
class TryingWorker implements Worker {
    static final Set<UUID> DONE = ConcurrentHashMap.newKeySet();
    static final Set<UUID> BAD = ConcurrentHashMap.newKeySet();
    /** Causes somebody is at. */
    static final Set<String> BUSY = ConcurrentHashMap.newKeySet();

    static volatile CountDownLatch gate = new CountDownLatch(0);

    @Override
    public String kind() {
        return "try";
    }

    @Override
    public String words() {
        return "Trying";
    }

    @Override
    public int chunk() {
        return 10;
    }

    @Override
    public void run(List<UUID> subjects, String cause) {
        try {
            BUSY.add(cause);
            if (!gate.await(60, TimeUnit.SECONDS)) {
                throw new IllegalStateException("nobody let it go on");
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
        if (subjects.stream().anyMatch(BAD::contains)) {
            throw new IllegalArgumentException("this one cannot be done");
        }
        DONE.addAll(subjects);
    }
}
