package dev.oddsentry.demo;

import java.util.List;
import java.util.Locale;

/** Terminals, vessels and routes. No person, place or vessel is real. */
final class Network {
    record Terminal(String name, String dutyManager, boolean hasAddress) {}

    record Vessel(String name, int seats) {}

    record Route(int from, int to, double miles) {}

    static final List<Terminal> TERMINALS = List.of(
            new Terminal("Holm", "Per Aune", true),
            new Terminal("Varsund", "Siv Tangen", true),
            new Terminal("Ternvik", "Odd Myhre", true),
            new Terminal("Gråvik", "Åse Lunde", true),
            new Terminal("Skjærnes", "Bjørn Vik", true),
            new Terminal("Måkehamn", "Tuva Berg", true),
            new Terminal("Tangstrand", "Nils Øye", true),
            new Terminal("Fyrholm", "Kari Strøm", true),
            new Terminal("Siljevik", "Jon Hauge", false));

    static final List<Vessel> VESSELS = List.of(
            new Vessel("Terna", 220),
            new Vessel("Lomvi", 180),
            new Vessel("Havella", 300),
            new Vessel("Skarven", 150),
            new Vessel("Tjelden", 260),
            new Vessel("Ærfugl", 120),
            new Vessel("Storspove", 340));

    /** By position in {@link #TERMINALS}. */
    static final List<Route> ROUTES = List.of(
            new Route(0, 1, 12.4),
            new Route(1, 0, 12.4),
            new Route(0, 3, 18.0),
            new Route(3, 0, 18.0),
            new Route(2, 0, 9.7),
            new Route(0, 2, 9.7),
            new Route(1, 2, 7.3),
            new Route(4, 5, 5.1),
            new Route(5, 4, 5.1),
            new Route(0, 6, 21.8),
            new Route(6, 7, 3.9),
            new Route(7, 8, 14.6));

    private Network() {}

    static String routeName(Route route) {
        return TERMINALS.get(route.from()).name() + " – "
                + TERMINALS.get(route.to()).name();
    }

    static String addressOf(Terminal terminal) {
        String plain = terminal.dutyManager()
                .toLowerCase(Locale.ROOT)
                .replace("å", "aa")
                .replace("ø", "o")
                .replace(' ', '.');
        return plain + "@skerryline.example";
    }
}
