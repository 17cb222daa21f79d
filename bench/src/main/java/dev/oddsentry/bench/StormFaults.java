package dev.oddsentry.bench;

import dev.oddsentry.service.ServiceProcess;
import dev.oddsentry.service.UnwillingMailServer;
import dev.oddsentry.service.UnwillingMailServer.Mood;
import java.io.IOException;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;

/** Begins and ends what goes wrong in a storm, some of it at the same time, none of the same kind twice at once. */
final class StormFaults {
    private static final int MOST_AT_ONCE = 3;

    /** What the mail server may be up to beside taking mail. */
    private static final List<Mood> MOODS = List.of(
            Mood.REFUSE_RECIPIENTS,
            Mood.BUSY,
            Mood.DROP_BEFORE_DATA,
            Mood.DROP_WITHIN_DATA,
            Mood.HANG,
            Mood.TAKE_AND_DROP_BEFORE_ANSWER,
            Mood.DRIP,
            Mood.REFUSE_WITH_NUL,
            Mood.TOO_LARGE,
            Mood.ANNOUNCE_SIZE,
            Mood.NOT_NOW,
            Mood.REFUSE_MESSAGE);

    private interface Act {
        void run() throws IOException, InterruptedException, SQLException;
    }

    /** One kind, which lasts some whole number of seconds between two. */
    private record Fault(String name, int least, int most, Act begin, Act end) {}

    private record Lasting(Fault fault, double until) {}

    private final Random random;
    private final List<Fault> kinds = new ArrayList<>();
    private final List<Lasting> now = new ArrayList<>();
    private final Map<String, Integer> happened = new TreeMap<>();
    private double next = 5;

    StormFaults(Random random) {
        this.random = random;
    }

    void add(String name, int least, int most, Act begin, Act end) {
        kinds.add(new Fault(name, least, most, begin, end));
    }

    void ofNode(String name, ServiceProcess node) {
        add("kill", 0, 0, node::kill, node::startAgain);
        add("pause " + name, 30, 90, () -> signal(node, "STOP"), () -> signal(node, "CONT"));
    }

    void ofClock(String name, FalseClock clock) {
        add(
                "clock of " + name,
                60,
                90,
                () -> clock.ahead(random.nextBoolean() ? "+3h" : "-3h"),
                () -> clock.ahead("+0"));
    }

    void ofMail(UnwillingMailServer mail) {
        for (Mood mood : MOODS)
            add(
                    "mail " + mood.name().toLowerCase(java.util.Locale.ROOT),
                    3,
                    20,
                    () -> mail.mood(mood),
                    () -> mail.mood(Mood.TAKE));
    }

    void ofServers(Lab lab) {
        var records = lab.records();
        add("records stopped", 0, 15, records::stop, records::startAgain);
        add("source stopped", 5, 40, lab.source()::stop, lab.source()::startAgain);
        var taken = new ArrayList<Connection>();
        add("connections used up", 10, 30, () -> takeAll(lab, taken), () -> giveBack(taken));
    }

    /** Each kind that needs the disk: PostgreSQL ends where it can write no log, and must be started again. */
    void ofRecordsDisk(Lab lab, SmallDisk disk) {
        add("records' disk full", 5, 20, disk::fill, () -> {
            disk.empty();
            if (!lab.records().isRunning()) lab.records().startAgain();
        });
    }

    void ofTemporaryDisk(String name, SmallDisk disk) {
        add("temporary disk of " + name + " full", 5, 30, disk::fill, disk::empty);
    }

    /** Begins one or ends some where it is time. @param seconds since the storm began */
    void move(double seconds) throws IOException, InterruptedException, SQLException {
        for (Iterator<Lasting> each = now.iterator(); each.hasNext(); ) {
            var lasting = each.next();
            if (lasting.until() > seconds) continue;
            each.remove();
            lasting.fault().end().run();
        }
        if (seconds < next || now.size() >= MOST_AT_ONCE) return;
        var fault = kinds.get(random.nextInt(kinds.size()));
        if (now.stream().anyMatch(each -> excludes(each.fault(), fault))) return;
        happened.merge(fault.name(), 1, Integer::sum);
        fault.begin().run();
        now.add(new Lasting(fault, seconds + fault.least() + random.nextInt(fault.most() - fault.least() + 1)));
        next = seconds + 2 + random.nextInt(8);
    }

    /** Two of one kind, two moods of the mail server, and two that stop and start the same database server. */
    private static boolean excludes(Fault one, Fault other) {
        return one.name().equals(other.name())
                || one.name().startsWith("mail ") && other.name().startsWith("mail ")
                || one.name().startsWith("records") && other.name().startsWith("records")
                || one.name().startsWith("records") && other.name().startsWith("connections")
                || one.name().startsWith("connections") && other.name().startsWith("records");
    }

    void endAll() throws IOException, InterruptedException, SQLException {
        for (var lasting : now) lasting.fault().end().run();
        now.clear();
    }

    @Override
    public String toString() {
        return happened.toString();
    }

    private static void signal(ServiceProcess node, String signal) throws IOException, InterruptedException {
        new ProcessBuilder("kill", "-" + signal, String.valueOf(node.pid()))
                .inheritIO()
                .start()
                .waitFor();
    }

    private static void takeAll(Lab lab, List<Connection> taken) {
        try {
            while (true) taken.add(lab.connect("records"));
        } catch (SQLException all) {
            // which is what was wanted
        }
    }

    private static void giveBack(List<Connection> taken) throws SQLException {
        for (var each : taken) each.close();
        taken.clear();
    }
}
