package yarrek.app;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;

/** The way to a server, that can be cut and mended: what goes in comes out, does not come out, or has nowhere to go. */
final class Wire implements AutoCloseable {
    private final int to;
    private final int port;
    private final Set<Socket> ends = ConcurrentHashMap.newKeySet();
    private final Object mended = new Object();
    private volatile ServerSocket door;
    private volatile boolean stalled;

    Wire(int to) throws IOException {
        this.to = to;
        this.door = new ServerSocket(0, 50, InetAddress.getLoopbackAddress());
        this.port = door.getLocalPort();
        listen();
    }

    int port() {
        return port;
    }

    private void listen() {
        ServerSocket open = door;
        thread(() -> {
            while (true) {
                Socket here = open.accept();
                Socket there = new Socket(InetAddress.getLoopbackAddress(), to);
                ends.add(here);
                ends.add(there);
                thread(() -> pump(here, there));
                thread(() -> pump(there, here));
            }
        });
    }

    private interface Work {
        void run() throws IOException, InterruptedException;
    }

    private static void thread(Work work) {
        Thread t = new Thread(() -> {
            try {
                work.run();
            } catch (IOException | InterruptedException e) {
                // an end was closed: that is what this is for
                return;
            }
        });
        t.setDaemon(true);
        t.start();
    }

    private void pump(Socket from, Socket into) throws IOException, InterruptedException {
        byte[] some = new byte[8192];
        try (from;
                into) {
            InputStream in = from.getInputStream();
            OutputStream out = into.getOutputStream();
            for (int n = in.read(some); n >= 0; n = in.read(some)) {
                synchronized (mended) {
                    while (stalled) {
                        mended.wait();
                    }
                }
                out.write(some, 0, n);
                out.flush();
            }
        } finally {
            ends.remove(from);
            ends.remove(into);
        }
    }

    /** The server is there and says nothing. */
    void stall() {
        stalled = true;
    }

    /** The server is gone. */
    void cut() throws IOException {
        door.close();
        for (Socket s : ends) {
            s.close();
        }
    }

    void mend() throws IOException {
        synchronized (mended) {
            stalled = false;
            mended.notifyAll();
        }
        if (door.isClosed()) {
            door = new ServerSocket(port, 50, InetAddress.getLoopbackAddress());
            listen();
        }
    }

    @Override
    public void close() throws IOException {
        cut();
    }
}
