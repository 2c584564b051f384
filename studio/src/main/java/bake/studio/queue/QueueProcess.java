package bake.studio.queue;

import bake.studio.estimate.WorkLog;
import bake.studio.user.UserFolders;
import java.io.File;
import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;

/** Works a queue in a process of its own, which goes on when whoever started it ends. */
public final class QueueProcess {
    private QueueProcess() {}

    /**
     * Starts it where nobody works the queue yet.
     *
     * @return false where somebody does
     */
    public static boolean start(Path queue) throws IOException {
        if (QueueStatus.read(queue) != null) return false;
        Files.createDirectories(queue);
        List<String> c = new ArrayList<>();
        // A session of its own outlives the terminal that it was started from.
        if (Files.isExecutable(Path.of("/usr/bin/setsid"))) c.add("/usr/bin/setsid");
        c.add(ProcessHandle.current().info().command().orElse("java"));
        for (String a : ManagementFactory.getRuntimeMXBean().getInputArguments()) if (passed(a)) c.add(a);
        c.addAll(List.of("-Djava.awt.headless=true", "-cp", System.getProperty("java.class.path"), QueueProcess.class.getName(), queue.toString()));
        File log = queue.resolve("worker.log").toFile();
        new ProcessBuilder(c).redirectErrorStream(true).redirectOutput(ProcessBuilder.Redirect.appendTo(
                log)).start().getOutputStream().close();
        return true;
    }

    /** What Java itself is told is told again; what is about windows or debuggers is not. */
    private static boolean passed(String a) {
        return a.startsWith("-X") && !a.startsWith("-Xrun") && !a.startsWith("-XX:Archive") && !a.startsWith("-XX:SharedArchive")
                && !a.startsWith("-XX:AOT") || a.equals("--add-modules=jdk.incubator.vector") || a.startsWith("--sun-misc-unsafe")
                || a.startsWith("--enable-native-access=ALL") || a.startsWith("-Dbake.");
    }

    public static void main(String[] args) throws IOException {
        UserFolders.prepareLog();
        Path folder = Path.of(args[0]);
        try (QueueWorker w = new QueueWorker(new RenderQueue(folder), Runtime.getRuntime().availableProcessors(), WorkLog.shared(),
                Clock.systemDefaultZone())) {
            Runtime.getRuntime().addShutdownHook(new Thread(w::quit));
            System.exit(w.run(false) ? 0 : 1);
        }
    }
}
