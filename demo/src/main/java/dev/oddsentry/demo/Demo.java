package dev.oddsentry.demo;

import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.LocalDate;
import java.time.ZoneId;

/**
 * The demo's helper program, called by {@code demo.sh}: {@code load}, {@code a-day-passes} (both with the database in the
 * environment: FERRY_URL, FERRY_USER, FERRY_PASSWORD) and {@code mail SMTP_PORT IMAP_PORT PAGE_PORT FOLDER}.
 */
public final class Demo {
    static final ZoneId ZONE = ZoneId.of("Europe/Oslo");

    private Demo() {}

    public static void main(String[] arguments) throws Exception {
        switch (arguments.length == 0 ? "" : arguments[0]) {
            case "load" -> {
                try (var connection = connect()) {
                    new FerryData(connection).loadUpTo(LocalDate.now(ZONE).minusDays(1));
                }
            }
            case "a-day-passes" -> {
                try (var connection = connect()) {
                    LocalDate day = new FerryData(connection).aDayPasses();
                    System.out.println("The ferry company's data now includes " + day + ".");
                }
            }
            case "mail" -> {
                var server = new MailStandIn(port(arguments[1]), port(arguments[2]), Path.of(arguments[4]));
                new MailboxPage(server).start(port(arguments[3]));
                System.out.println("ready");
                Thread.currentThread().join();
            }
            default -> {
                System.err.println("Expected load, a-day-passes, or mail SMTP_PORT IMAP_PORT PAGE_PORT FOLDER");
                System.exit(2);
            }
        }
    }

    private static int port(String text) {
        return Integer.parseInt(text);
    }

    private static Connection connect() throws SQLException {
        return DriverManager.getConnection(
                System.getenv("FERRY_URL"), System.getenv("FERRY_USER"), System.getenv("FERRY_PASSWORD"));
    }
}
